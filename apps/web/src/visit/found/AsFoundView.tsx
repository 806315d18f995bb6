import { useMemo } from 'react';
import {
  HIDDEN_WORDS,
  momentWords,
  parseMoment,
  panelLines,
  planDifferences,
  type AsFound,
  type Plan,
  plural,
  say,
} from '@water-clock/core';
import { PhotoRow } from '../../shared/photos/PhotoRow.tsx';
import { PlanWeek } from '../../shared/charts/PlanWeek.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { Differences } from '../log/Differences.tsx';
import { VisitFindings } from '../shared/VisitFindings.tsx';
import { NoVisit } from '../shared/NoVisit.tsx';
import '../planner/planner.css';
import { panelNow } from '../shared/panel.ts';
import { PanelEntry } from './PanelEntry.tsx';

/** In a visit. */
const HOLDS = [
  say`Settings to copy from the display, in the timer’s own words and order`,
  say`Totals to check your readings, hidden programs and a photo of the panel`,
  say`As-found settings, saved so that nothing is lost`,
];

/** A line of the panel by its label. */
function lineName(plan: Plan, id: string): string {
  const now = panelNow(plan, 0, { clock: '24', order: 'day-month', kind: null });
  return panelLines(plan, now).find((line) => line.id === id)?.name ?? id;
}

function Found(props: StepProps & { readonly found: AsFound }) {
  const { found, plan, site, today } = props;
  const { clock, order } = usePreferences();
  const at = parseMoment(found.at) ?? 0;
  const differences = useMemo(
    () => planDifferences(found.plan, plan, clock),
    [found.plan, plan, clock],
  );
  return (
    <>
      <p className="visit-frozen aside accent">
        <strong>{say`Saved as found`}</strong> {momentWords(at, { on: today, clock, order })}.{' '}
        {say`${HIDDEN_WORDS[found.hidden]}. Your changes from now on are the new settings.`}
      </p>
      {(found.notLooked?.length ?? 0) > 0 && (
        <p className="soft">
          {plural(
            found.notLooked?.length ?? 0,
            '# setting was not checked. Its planned value is shown as found, and the card lists it to key in.',
            '# settings were not checked. Their planned values are shown as found, and the card lists them to key in.',
          )}
        </p>
      )}
      {found.shown?.map(({ line, text }) => (
        <p key={line} className="fault">
          {say`${lineName(found.plan, line)} showed ${text}, which this timer cannot produce.`}
        </p>
      ))}
      {(found.photos?.length ?? 0) > 0 && (
        <PhotoRow label={say`Photos of the panel`} photos={found.photos ?? []} />
      )}
      <VisitFindings {...props} />
      <div className="tiles fill of-300">
        <section aria-label={say`As found`}>
          <h2>{say`As found`}</h2>
          <PlanWeek plan={found.plan} from={today} place={site} />
        </section>
        <section aria-label={say`As planned now`}>
          <h2>{say`As planned now`}</h2>
          <PlanWeek plan={plan} from={today} place={site} />
        </section>
      </div>
      <Differences
        rows={differences}
        none={say`Nothing changed yet.`}
        before={say`As found`}
        after={say`Now`}
      />
    </>
  );
}

/** The settings as found; once saved, what has changed since. */
export default function AsFoundView(props: StepProps) {
  const { survey, editor, now } = props;
  const { visit } = survey;
  return (
    <div className="survey-view stack page-column">
      {!visit ? (
        <NoVisit editor={editor} now={now} holds={HOLDS} />
      ) : visit.asFound ? (
        <Found {...props} found={visit.asFound} />
      ) : (
        <PanelEntry {...props} visit={visit} />
      )}
    </div>
  );
}
