import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  ALTERNATIVE_WORDS,
  applyChange,
  comparedSentence,
  lengthWords,
  monthName,
  monthSentence,
  notKept,
  planDifferences,
  proofSentence,
  reasonSentence,
  simplerSentence,
  sourceWords,
  takePlanChange,
  type Brief,
  type EpochDay,
  type Path,
  type Plan,
  type Reason,
  type SiteMinutes,
  say,
  plural,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { StepProps } from '../steps/stepProps.ts';
import type { PlanResult } from '../../data/workers/planning.ts';
import { datesText, ruleWords, spansWords, weekWords } from './facts.ts';
import type { usePlanner } from './usePlanner.ts';
import { Scroll } from '../../app/platform/Scroll.tsx';

/** Where on the screens a part of the brief is entered. */
function stepOf([first, , third]: Path): string {
  if (first === 'rules' || first === 'mowing') return 'house';
  if (first === 'timer' || first === 'settings') return 'timer';
  if (first === 'stations') return third === 'weeklySeconds' ? 'minutes' : 'stations';
  return 'brief';
}

/** Why a plan is as it is, each reason with a way to where it comes from. */
export function Reasons({ result, timerId }: { result: PlanResult; timerId: string }) {
  const { clock } = usePreferences();
  const { brief } = result;
  const line = (reason: Reason, i: number) => (
    <li key={i}>
      {reasonSentence(reason, brief, clock)}{' '}
      <Link to={`/timers/${timerId}/${stepOf(reason.path)}`}>
        {sourceWords(reason.path, brief)}
      </Link>
    </li>
  );
  const { cost } = result;
  return (
    <section className="plan-reasons stack">
      <h2>{say`Why this plan`}</h2>
      <ul>
        {result.reasons.map(line)}
        {cost &&
          result.simpler.map((simpler) => (
            <li key={simpler.what}>{simplerSentence(simpler, cost)}</li>
          ))}
        {cost && <li>{proofSentence(result.proof, cost)}</li>}
      </ul>
    </section>
  );
}

/** Plans of different kinds side by side, and what each gives up. */
export function Table({ results, brief }: { results: readonly PlanResult[]; brief: Brief }) {
  const { clock } = usePreferences();
  const [first] = results;
  const rows: [string, (result: PlanResult & { plan: Plan }) => string][] = [
    [say`Programs`, ({ plan }) => String(plan.programs.length)],
    [
      say`Start times`,
      ({ plan }) => String(plan.programs.reduce((sum, { starts }) => sum + starts.length, 0)),
    ],
    [say`Days a week`, ({ plan }) => datesText(plan)],
    [
      say`Runs`,
      ({ plan }) =>
        plan.programs
          .map((program) => `${program.letter} ${spansWords(plan, program, clock).join(', ')}`)
          .join('; '),
    ],
    [say`Water a week`, ({ plan }) => weekWords(plan)],
    [
      say`Over or under`,
      ({ short }) =>
        short.length === 0
          ? say`all stations within 10 %`
          : plural(
              short.length,
              '# station is more than 10 % off',
              '# stations are more than 10 % off',
            ),
    ],
    [
      say`Outside watering hours`,
      ({ cost }) =>
        cost?.[1] ? say`${lengthWords(Math.round(cost[1] * 60))} a week` : say`nothing`,
    ],
    [
      say`Trade-off`,
      ({ plan, cost, kind }) => {
        const lost = notKept(brief, plan);
        const told =
          first?.cost && cost && kind !== 'as-wished' ? comparedSentence(cost, first.cost) : '';
        return [told, ...lost].filter(Boolean).join('; ') || '—';
      },
    ],
    [say`Proof`, ({ proof }) => (proof.optimal ? say`best possible` : say`best found`)],
  ];
  return (
    <Scroll label={say`Plans as a table`}>
      <table className="plan-table data">
        <thead>
          <tr>
            <td />
            {results.map(({ kind }) => (
              <th key={kind} scope="col">
                {ALTERNATIVE_WORDS[kind]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, cell]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {results.map((result) => (
                <td key={result.kind}>
                  {result.plan ? cell({ ...result, plan: result.plan }) : '—'}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}

/** What taking a plan changes on the timer, and the button that does. */
export function Changes({ props, plan }: { props: StepProps; plan: Plan }) {
  const { clock } = usePreferences();
  const [refusal, setRefusal] = useState<string | null>(null);
  const change = takePlanChange(props.plan, plan);
  const applied = applyChange(props.plan, change);
  const differences = applied.ok ? planDifferences(props.plan, applied.value.plan, clock) : [];
  return (
    <section className="plan-changes stack">
      <h2>{say`Settings that change`}</h2>
      {differences.length === 0 ? (
        <p>{say`Nothing. These programs are already set.`}</p>
      ) : (
        <>
          <table>
            <thead>
              <tr>
                <th scope="col">{say`Setting`}</th>
                <th scope="col">{say`Now`}</th>
                <th scope="col">{say`Then`}</th>
              </tr>
            </thead>
            <tbody>
              {differences.map(({ what, before, after }) => (
                <tr key={what}>
                  <th scope="row">{what}</th>
                  <td>{before}</td>
                  <td>
                    <strong>{after}</strong>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button
            type="primary"
            size="large"
            onClick={() => setRefusal(commitWords(props.editor, change))}
          >{say`Use these programs`}</Button>
          <p className="soft">{say`This is one step. “Undo” restores the current programs.`}</p>
        </>
      )}
      {refusal && <p className="fault">{refusal}</p>}
    </section>
  );
}

/** A plan through the year. */
export function Season({
  months,
  brief,
  minutes,
  clockPlan,
  today,
}: {
  months: NonNullable<ReturnType<typeof usePlanner>['planning']['season']>;
  brief: Brief;
  minutes: SiteMinutes;
  clockPlan: Plan;
  today: EpochDay;
}) {
  const { clock, order } = usePreferences();
  const others = months.filter(({ serves }) => !serves);
  const told = months.filter(
    ({ serves, rounded, ban }) => !serves || rounded.length > 0 || ban !== null,
  );
  return (
    <section>
      <h2>{say`Through the year`}</h2>
      <p>
        {others.length === 0
          ? say`These programs work all year with these percents:`
          : say`These programs work in ${12 - others.length} months with these percents. ${others.map(({ month }) => monthName(month)).join(', ')} need something else.`}
        {minutes.hundredMonth ? say` 100 % stands for ${monthName(minutes.hundredMonth)}.` : ''}
      </p>
      <ol className="season list tiles of-100 near">
        {months.map(({ month, percent, serves }) => (
          <li key={month} className={serves ? undefined : 'fault'}>
            <span>{monthName(month).slice(0, 3)}</span>
            <strong>{percent === null ? say`off` : serves ? percent : '*'}</strong>
          </li>
        ))}
      </ol>
      {told.length > 0 && (
        <ul>
          {told.map((seasonMonth) => {
            const differences = seasonMonth.plan
              ? planDifferences(clockPlan, seasonMonth.plan, clock)
              : [];
            return (
              <li key={seasonMonth.month}>
                {monthSentence(seasonMonth, brief, { on: today, clock, order })}{' '}
                {seasonMonth.serves
                  ? ''
                  : seasonMonth.plan
                    ? say`Set: ${seasonMonth.plan.programs.map((program) => `${program.letter} ${ruleWords(program.days, clock, order)}, ${spansWords(seasonMonth.plan ?? clockPlan, program, clock).join(', ')}`).join('; ')} (${differences.length} settings differ).`
                    : say`No better plan was found.`}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
