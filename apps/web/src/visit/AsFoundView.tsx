import { useMemo, useState } from 'react';
import { Button } from 'antd';
import {
  attempt,
  findingSentence,
  fixWords,
  HIDDEN_WORDS,
  momentWords,
  parseMoment,
  planDifferences,
  safeFixes,
  type Brief,
  type Frozen,
  type HiddenAnswer,
  type Plan,
} from '@water-clock/core';
import { PlanWeek } from '../charts/PlanWeek.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import type { TimerEditor } from '../editor/editor.ts';
import type { StepProps } from '../steps/stepProps.ts';
import { useBrief } from '../steps/useBrief.ts';
import { Differences } from './Differences.tsx';
import { VisitFindings } from './VisitFindings.tsx';
import { NoVisit } from './NoVisit.tsx';
import '../planner/planner.css';
import './visits.css';
import './visitCards.css';
import { PanelEntry } from './PanelEntry.tsx';

/** Fixes that need no decision, made at once. */
function SafeFixes({
  plan,
  brief,
  editor,
  today,
}: {
  readonly plan: Plan;
  readonly brief: Brief;
  readonly editor: TimerEditor;
  readonly today: number;
}) {
  const { clock } = usePreferences();
  const [done, setDone] = useState<readonly string[] | null>(null);
  const fix = () => {
    const worked = attempt(() => safeFixes(plan, today, brief));
    if (!worked.ok) return;
    const { change, fixed } = worked.value;
    if (change) editor.commit(change);
    setDone(
      fixed.map(
        ({ finding, fix: one }) =>
          `${findingSentence(finding, { on: today, clock })} — ${fixWords(one, clock)}.`,
      ),
    );
  };
  return (
    <div>
      <Button size="large" onClick={fix}>
        Fix all that is safe
      </Button>{' '}
      <span className="soft">
        What changes when something runs, never how much; each by itself is below.
      </span>
      {done && (
        <ul className="visit-list" role="status">
          {done.length === 0 ? (
            <li>Nothing here is safe to fix without you.</li>
          ) : (
            done.map((one) => <li key={one}>{one}</li>)
          )}
        </ul>
      )}
    </div>
  );
}

function Found(props: StepProps & { readonly found: Frozen & { hidden: HiddenAnswer } }) {
  const { found, plan, site, today, editor } = props;
  const { clock } = usePreferences();
  const brief = useBrief(props);
  const at = parseMoment(found.at) ?? 0;
  const differences = useMemo(
    () => planDifferences(found.plan, plan, clock),
    [found.plan, plan, clock],
  );
  return (
    <>
      <p className="visit-frozen">
        <strong>Frozen as found</strong> {momentWords(at, { on: today, clock })}.{' '}
        {HIDDEN_WORDS[found.hidden]}. What you change from here on is what it will be.
      </p>
      <VisitFindings {...props} />
      <SafeFixes plan={plan} brief={brief} editor={editor} today={today} />
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
