import { useMemo } from 'react';
import {
  HIDDEN_WORDS,
  momentWords,
  parseMoment,
  planDifferences,
  type Frozen,
  type HiddenAnswer,
} from '@water-clock/core';
import { PlanWeek } from '../charts/PlanWeek.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { Differences } from './Differences.tsx';
import { VisitFindings } from './VisitFindings.tsx';
import { NoVisit } from './NoVisit.tsx';
import '../planner/planner.css';
import './visits.css';
import './visitCards.css';
import { PanelEntry } from './PanelEntry.tsx';

function Found(props: StepProps & { readonly found: Frozen & { hidden: HiddenAnswer } }) {
  const { found, plan, site, today } = props;
  const { clock, order } = usePreferences();
  const at = parseMoment(found.at) ?? 0;
  const differences = useMemo(
    () => planDifferences(found.plan, plan, clock),
    [found.plan, plan, clock],
  );
  return (
    <>
      <p className="visit-frozen">
        <strong>Frozen as found</strong> {momentWords(at, { on: today, clock, order })}.{' '}
        {HIDDEN_WORDS[found.hidden]}. What you change from here on is what it will be.
      </p>
      <VisitFindings {...props} />
      <div className="before-after">
        <section aria-label="As found">
          <h2>As found</h2>
          <PlanWeek plan={found.plan} from={today} place={site} />
        </section>
        <section aria-label="As it is planned now">
          <h2>As planned now</h2>
          <PlanWeek plan={plan} from={today} place={site} />
        </section>
      </div>
      <Differences
        rows={differences}
        none="Nothing is changed yet."
        before="As found"
        after="Now"
      />
    </>
  );
}

/** What is in the box before anybody touches it; and once frozen, what has changed since. */
export default function AsFoundView(props: StepProps) {
  const { survey, editor, now } = props;
  const { visit } = survey;
  return (
    <div className="survey-view">
      {!visit ? (
        <NoVisit editor={editor} now={now} />
      ) : visit.asFound ? (
        <Found {...props} found={visit.asFound} />
      ) : (
        <PanelEntry {...props} visit={visit} />
      )}
    </div>
  );
}
