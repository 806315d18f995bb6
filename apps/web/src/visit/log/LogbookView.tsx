import { Button, Timeline } from 'antd';
import { useQuery } from '@tanstack/react-query';
import { startWords, type ClockStyle, type DateOrder, type Plan, say } from '@water-clock/core';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { saveJson } from '../../app/platform/files.ts';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { StepProps } from '../steps/stepProps.ts';
import { useBrief } from '../steps/useBrief.ts';
import { CompareStates, type State } from './CompareStates.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { dayOf, LogEntry } from './LogEntry.tsx';
import { loadVisit, useVisits, visitKeys, type VisitSummary } from '../../data/api/visits.ts';
import { WaterView } from './WaterView.tsx';

/** The current settings, those saved in this visit, and those of every closed visit. */
function statesOf(
  { plan, survey, today }: StepProps,
  list: readonly VisitSummary[],
  order: DateOrder,
  clock: ClockStyle,
): State[] {
  const days = list.map(({ visit }) => visit.began.slice(0, 10));
  /** The date; with the time if the day had several visits. */
  const at = (moment: string) => {
    const day = moment.slice(0, 10);
    const date = dayOf(moment, today, order);
    return days.indexOf(day) === days.lastIndexOf(day)
      ? date
      : `${date}, ${startWords(moment.slice(11, 16), clock)}`;
  };
  const { asLeft, asFound } = survey.visit ?? {};
  return [
    { key: 'now', name: say`What is set now`, of: { plan } },
    ...(asLeft ? [{ key: 'left', name: say`This visit, as left`, of: { plan: asLeft.plan } }] : []),
    ...(asFound
      ? [{ key: 'found', name: say`This visit, as found`, of: { plan: asFound.plan } }]
      : []),
    ...list.flatMap(({ id, visit }): State[] => [
      {
        key: `${id} left`,
        name: say`${at(visit.closed)}, as left`,
        of: { visit: id, which: 'asLeft' },
      },
      {
        key: `${id} found`,
        name: say`${at(visit.began)}, as found`,
        of: { visit: id, which: 'asFound' },
      },
    ]),
  ];
}

/** Closed visits, what was left each time, water and money, and exports. */
export default function LogbookView(props: StepProps) {
  const { clock, order } = usePreferences();
  const { timerId, site, plan, survey, editor, today } = props;
  const visits = useVisits(timerId);
  const brief = useBrief(props);
  const last = visits.data?.[0]?.id ?? '';
  const latest = useQuery({
    queryKey: visitKeys.one(last),
    queryFn: () => loadVisit(last),
    enabled: last !== '',
    staleTime: Infinity,
  });
  if (visits.isPending) return <Loading what={say`the logbook`} />;
  if (visits.isError)
    return (
      <Failed what={say`The logbook`} error={visits.error} retry={() => void visits.refetch()} />
    );
  const list = visits.data;
  const states = statesOf(props, list, order, clock);
  const asFound = survey.visit?.asFound?.plan ?? latest.data?.visit.asFound?.plan ?? null;
  const restore = (state: Plan) => commitWords(editor, { type: 'replace-plan', plan: state });
  const path = `/api/timers/${encodeURIComponent(timerId)}`;
  return (
    <div className="survey-view stack page-column">
      {list.length === 0 ? (
        <p>{say`No closed visits yet. The first one will show who, when, what was found and what was left.`}</p>
      ) : (
        <Timeline
          className="log"
          items={list.map((entry) => ({
            key: entry.id,
            content: <LogEntry entry={entry} today={today} />,
          }))}
        />
      )}
      {states.length > 1 && <CompareStates states={states} restore={restore} />}
      <WaterView plan={plan} asFound={asFound} survey={survey} editor={editor} today={today} />
      <section aria-label={say`Files`}>
        <h2>{say`Files`}</h2>
        <p className="files row near">
          <Button href={`${path}/watering.ics`}>{say`Watering as a calendar (.ics)`}</Button>
          <Button href={`${path}/runs.csv`}>{say`Runs for a year (.csv)`}</Button>
          <Button href={`${path}/export`}>{say`Plan (.json)`}</Button>
          <Button
            disabled={props.isPending || props.rulesState === 'failed'}
            onClick={() => saveJson(`${site.name}.brief.json`, brief)}
          >{say`Brief (.json)`}</Button>
          <Button
            href={`/api/sites/${encodeURIComponent(site.id)}/archive`}
          >{say`Site with visits (.zip)`}</Button>
        </p>
      </section>
    </div>
  );
}
