import { useEffect, useState } from 'react';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import {
  announcedEditions,
  applyChange,
  changedSettings,
  dateWords,
  lengthWords,
  MOST_BY_PHONE,
  parseDate,
  plural,
  repairChange,
  say,
  SECONDS_PER_DAY,
  type Finding,
  type Speech,
  type WaterChange,
} from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import type { RepairShown } from '../../data/workers/planning.ts';
import type { PlanningWorker } from '../../data/workers/planning.worker.ts';
import { started } from '../../data/workers/started.ts';
import { Differences } from '../log/Differences.tsx';
import { panelNow } from '../shared/panel.ts';
import type { CheckedFacts } from './useChecks.ts';

/** What a repair can fix. */
export const REPAIRABLE: ReadonlySet<Finding['code']> = new Set<Finding['code']>([
  'overlap',
  'forbidden-day',
  'forbidden-hour',
  'too-many-days',
  'not-on-timer',
  'coming-rules',
]);

type Repairing =
  | { readonly state: 'working' }
  | { readonly state: 'failed' }
  | ({ readonly state: 'done' } & RepairShown);
const WORKING: Repairing = { state: 'working' };

/** The smallest repair for the checked plan, from a worker that stops with the page. */
function useRepair({ plan, brief, coming, today }: CheckedFacts): Repairing {
  const [repairing, setRepairing] = useState<Repairing>(WORKING);
  useEffect(() => {
    setRepairing(WORKING);
    const worker = started<PlanningWorker>(
      new Worker(new URL('../../data/workers/planning.worker.ts', import.meta.url), {
        type: 'module',
      }),
    );
    let isOver = false;
    const editions = announcedEditions(coming);
    void worker.call
      .repair({
        plan,
        brief: editions.length > 0 ? { ...brief, coming: editions } : brief,
        on: today,
      })
      .then((outcome) => {
        if (isOver) return;
        setRepairing(outcome.ok ? { state: 'done', ...outcome.value } : { state: 'failed' });
      });
    return () => {
      isOver = true;
      worker.end();
    };
  }, [plan, brief, coming, today]);
  return repairing;
}

/** Stations that get more or less than now, in minutes a week. */
function Water({ changes }: { readonly changes: readonly WaterChange[] }) {
  const minutes = (seconds: number) => lengthWords(Math.round(seconds / 60) * 60);
  if (changes.length === 0) return <p>{say`Every station gets the same water as now.`}</p>;
  return (
    <ul>
      {changes.map(({ station, before, after }) => (
        <li key={station}>
          {after < before
            ? say`Station ${station} gets less: ${minutes(after)} a week instead of ${minutes(before)}.`
            : say`Station ${station} gets more: ${minutes(after)} a week instead of ${minutes(before)}.`}
        </li>
      ))}
    </ul>
  );
}

interface Props {
  readonly facts: CheckedFacts;
  readonly timerId: string;
  readonly editor: TimerEditor;
  readonly speech: Speech;
}

/** The fewest settings that leave no overlap and keep the rules. A new plan is the second option. */
export function RepairPanel({ facts, timerId, editor, speech }: Props) {
  const navigate = useNavigate();
  const repairing = useRepair(facts);
  const [refusal, setRefusal] = useState<string | null>(null);
  const { plan, today } = facts;
  const { clock, order, on } = speech;
  const newPlan = (
    <Button onClick={() => void navigate(`/timers/${timerId}/plan`)}>{say`Make a new plan`}</Button>
  );
  if (repairing.state === 'working')
    return <p className="notice" role="status">{say`Looking for a fix with few settings …`}</p>;
  if (repairing.state === 'failed' || !repairing.plan)
    return (
      <div className="notice stack" role="status">
        <p>{say`No fix with a few settings was found.`}</p>
        <p>{newPlan}</p>
      </div>
    );
  const change = repairChange(plan, repairing.plan);
  const applied = applyChange(plan, change);
  const panel = panelNow(plan, today * SECONDS_PER_DAY, {
    clock,
    order: order ?? 'day-month',
    kind: null,
  });
  const rows = applied.ok ? changedSettings(plan, applied.value.plan, panel) : [];
  if (rows.length === 0) return null;
  const broken = repairing.coming.filter(({ keeps }) => !keeps);
  return (
    <section className="notice stack near">
      <h3>{plural(rows.length, 'Suggested fix: # setting', 'Suggested fix: # settings')}</h3>
      <Differences rows={rows} none="" before={say`Now`} after={say`Then`} />
      <Water changes={repairing.water} />
      {broken.map(({ from }) => (
        <p key={from} className="fault">
          {say`Breaks the rules from ${dateWords(parseDate(from) ?? today, on, order)}`}
        </p>
      ))}
      <p className="soft">
        {rows.length <= MOST_BY_PHONE
          ? say`Few enough to read out by phone.`
          : say`Too many to read out by phone; needs a visit.`}
      </p>
      <span className="row near">
        <Button
          type="primary"
          onClick={() => setRefusal(commitWords(editor, change))}
        >{say`Use this fix`}</Button>
        {newPlan}
      </span>
      {refusal && (
        <p className="fault" role="alert">
          {refusal}
        </p>
      )}
    </section>
  );
}
