import { useMemo, useState } from 'react';
import { Button } from 'antd';
import { useQueries } from '@tanstack/react-query';
import {
  dateWords,
  FAULT_WORDS,
  NEXT_WORDS,
  parseDate,
  planDifferences,
  startWords,
  type FaultFound,
  type Plan,
} from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { saveJson } from '../platform/files.ts';
import { commitWords } from '../timers/commitWords.ts';
import type { SurveyProps } from '../visit/SurveyViews.tsx';
import { useBrief } from '../visit/useBrief.ts';
import { Differences } from './Differences.tsx';
import { loadVisit, useVisits, visitKeys, type VisitSummary } from './queries.ts';
import { WaterView } from './WaterView.tsx';
import './visits.css';

/** A state of the timer that was frozen, or what is set now. */
interface State {
  readonly key: string;
  readonly name: string;
  readonly plan: Plan;
}

const dayOf = (moment: string, today: number) =>
  dateWords(parseDate(moment.slice(0, 10)) ?? today, today);

function Entry({ entry, today }: { readonly entry: VisitSummary; readonly today: number }) {
  const { clock } = usePreferences();
  const { visit, by } = entry;
  const faultsText = (isOpen: boolean) =>
    visit.faults
      .filter(({ open }) => open === isOpen)
      .map(
        ({ station, fault }) =>
          // The cast holds for what was noted here; what another program wrote is told as it stands.
          `station ${station}, ${(FAULT_WORDS[fault as FaultFound] ?? fault).toLowerCase()}`,
      )
      .join('; ');
  const [open, mended] = [faultsText(true), faultsText(false)];
  const weak = (visit.tests ?? []).filter(({ result }) => result && result !== 'waters');
  return (
    <li className="log-entry">
      <h2>
        {dayOf(visit.began, today)}, {startWords(visit.began.slice(11), clock)} to{' '}
        {startWords(visit.closed.slice(11), clock)} <span className="soft">{by}</span>
      </h2>
      <ul className="visit-list">
        {visit.complaint && <li>Complaint: {visit.complaint}</li>}
        {visit.cause && <li>Found: {visit.cause}</li>}
        {visit.done && <li>Done: {visit.done}</li>}
        {(visit.keyIn?.slips ?? 0) > 0 && (
          <li>Slips caught in reading back: {visit.keyIn?.slips}</li>
        )}
        {weak.length > 0 && (
          <li>Tested and not right: stations {weak.map(({ station }) => station).join(', ')}</li>
        )}
        {open && <li>Faults open: {open}</li>}
        {mended && <li>Mended: {mended}</li>}
        {visit.minutesSpent !== undefined && <li>{visit.minutesSpent} minutes spent</li>}
        {visit.next.map((one) => (
          <li key={`${one.date}${one.reason}`}>
            Next: {dayOf(one.date, today)}, {NEXT_WORDS[one.reason].toLowerCase()}
            {one.note ? `: ${one.note}` : ''}
          </li>
        ))}
      </ul>
    </li>
  );
}

/** Any two states side by side, and any of them brought back. */
function Compare({
  states,
  restore,
}: {
  readonly states: readonly State[];
  readonly restore: (plan: Plan) => string | null;
}) {
  const { clock } = usePreferences();
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState('now');
  const [told, setTold] = useState<string | null>(null);
  const firstKey = from ?? states.find(({ key }) => key !== 'now')?.key ?? 'now';
  const a = states.find(({ key }) => key === firstKey);
  const b = states.find(({ key }) => key === to);
  const rows = useMemo(() => (a && b ? planDifferences(a.plan, b.plan, clock) : []), [a, b, clock]);
  const choice = (label: string, value: string, set: (key: string) => void) => (
    <label className="labelled">
      {label}
      <select className="field" value={value} onChange={({ target }) => set(target.value)}>
        {states.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <section aria-label="Compare">
      <h2>Compare and bring back</h2>
      <div className="sighting-fields">
        {choice('This', firstKey, setFrom)}
        {choice('With', to, setTo)}
        {a && a.key !== 'now' && (
          <Button
            onClick={() => {
              const refused = restore(a.plan);
              setTold(refused ?? `${a.name} is set again. Undo takes it back; nothing is lost.`);
            }}
          >
            Bring “{a.name}” back
          </Button>
        )}
      </div>
      {told && <p role="status">{told}</p>}
      <Differences
        rows={rows}
        none="They set the timer alike."
        before={a?.name ?? ''}
        after={b?.name ?? ''}
      />
    </section>
  );
}

/** The visits that were closed, what was left each time, water and money, and the way out for all of it. */
export default function LogbookView(props: SurveyProps) {
  const { timerId, site, plan, survey, editor, today } = props;
  const visits = useVisits(timerId);
  const brief = useBrief(props);
  const list = visits.data ?? [];
  const whole = useQueries({
    queries: list.slice(0, 12).map(({ id }) => ({
      queryKey: visitKeys.one(id),
      queryFn: () => loadVisit(id),
      staleTime: Infinity,
    })),
  });
  if (visits.isPending) return <Loading what="the logbook" />;
  if (visits.isError)
    return <Failed what="The logbook" error={visits.error} retry={() => void visits.refetch()} />;
  const loaded = whole.flatMap(({ data }) => data ?? []);
  const states: State[] = [
    { key: 'now', name: 'What is set now', plan },
    ...(survey.visit?.asLeft
      ? [{ key: 'left', name: 'This visit, as left', plan: survey.visit.asLeft.plan }]
      : []),
    ...(survey.visit?.asFound
      ? [{ key: 'found', name: 'This visit, as found', plan: survey.visit.asFound.plan }]
      : []),
    ...loaded.flatMap(({ id, visit }): State[] => [
      {
        key: `${id} left`,
        name: `${dayOf(visit.closed, today)}, as left`,
        plan: visit.asLeft.plan,
      },
      ...(visit.asFound
        ? [
            {
              key: `${id} found`,
              name: `${dayOf(visit.began, today)}, as found`,
              plan: visit.asFound.plan,
            },
          ]
        : []),
    ]),
  ];
  const asFound = survey.visit?.asFound?.plan ?? loaded[0]?.visit.asFound?.plan ?? null;
  const restore = (state: Plan) => commitWords(editor, { type: 'replace-plan', plan: state });
  const path = `/api/timers/${encodeURIComponent(timerId)}`;
  return (
    <div className="survey-view">
      {list.length === 0 ? (
        <p>
          No visit is closed yet. The first one stands here with who, when, what was found and left.
        </p>
      ) : (
        <ol className="log">
          {list.map((entry) => (
            <Entry key={entry.id} entry={entry} today={today} />
          ))}
        </ol>
      )}
      {states.length > 1 && <Compare states={states} restore={restore} />}
      <WaterView plan={plan} asFound={asFound} survey={survey} editor={editor} today={today} />
      <section aria-label="Files">
        <h2>Files</h2>
        <p className="files">
          <Button href={`${path}/watering.ics`}>Watering as a calendar (.ics)</Button>
          <Button href={`${path}/runs.csv`}>A year of runs (.csv)</Button>
          <Button href={`${path}/export`}>Plan (.json)</Button>
          <Button onClick={() => saveJson(`${site.name}.brief.json`, brief)}>Brief (.json)</Button>
          <Button href={`/api/sites/${encodeURIComponent(site.id)}/archive`}>
            The whole site with visits (.zip)
          </Button>
        </p>
      </section>
    </div>
  );
}
