import { useState } from 'react';
import { Button, Dropdown } from 'antd';
import { Link } from 'react-router';
import {
  ALTERNATIVE_WORDS,
  applyChange,
  changedSettings,
  comparedSentence,
  minutesWords,
  monthName,
  monthSentence,
  notKept,
  reasonSentence,
  simplerSentence,
  SECONDS_PER_DAY,
  sourceWords,
  takePlanChange,
  type Brief,
  type EpochDay,
  type Path,
  type Plan,
  type SiteMinutes,
  say,
  plural,
  wordsOf,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { StepProps } from '../steps/stepProps.ts';
import type { PlanResult } from '../../data/workers/planning.ts';
import { panelNow } from '../shared/panel.ts';
import { datesText, offNeed, ruleWords, spansWords, weekWords } from './facts.ts';
import type { Planning } from './usePlanner.ts';
import { Scroll } from '../../app/platform/Scroll.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';

/** Where a part of the brief is entered. */
function stepOf([first, , third]: Path): string {
  if (first === 'rules' || first === 'mowing') return 'house';
  if (first === 'timer' || first === 'settings') return 'timer';
  if (first === 'stations') return third === 'weeklySeconds' ? 'minutes' : 'stations';
  return 'brief';
}

/** Reasons shown at first; the rest unfold. */
const REASONS_SHOWN = 6;

/** Why a plan is as it is, each reason with a link to its source. */
export function Reasons({ result, timerId }: { result: PlanResult; timerId: string }) {
  const { clock } = usePreferences();
  const { brief, cost, claims } = result;
  const lines = [
    ...result.reasons.map((reason, i) => (
      <li key={i}>
        {reasonSentence(reason, brief, clock)}{' '}
        <Link to={`/timers/${timerId}/${stepOf(reason.path)}`}>
          {sourceWords(reason.path, brief)}
        </Link>
      </li>
    )),
    ...(cost && claims
      ? claims.simpler.map((simpler) => (
          <li key={simpler.what}>{simplerSentence(simpler, cost)}</li>
        ))
      : []),
  ];
  const more = lines.slice(REASONS_SHOWN);
  return (
    <section className="plan-reasons stack">
      <h2>{say`Why this plan`}</h2>
      <ul>{lines.slice(0, REASONS_SHOWN)}</ul>
      {more.length > 0 && (
        <Disclosure summary={say`All ${lines.length} reasons`}>{() => <ul>{more}</ul>}</Disclosure>
      )}
    </section>
  );
}

/** Different kinds of plan side by side, and what each gives up. */
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
      ({ plan }) => {
        const { length } = offNeed(plan, brief);
        return length === 0
          ? say`all stations within 10 %`
          : plural(length, '# station is more than 10 % off', '# stations are more than 10 % off');
      },
    ],
    [
      say`Outside watering hours`,
      ({ cost }) => (cost?.[1] ? say`${minutesWords(cost[1])} a week` : say`nothing`),
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

const KEEP_WORDS = wordsOf({
  days: 'Keep only the days',
  starts: 'Keep only the start times',
  runs: 'Keep only the run times',
  stations: 'Keep only the stations of each program',
});

const KEEPABLE = ['days', 'starts', 'runs', 'stations'] as const;

interface ChangesProps {
  readonly props: StepProps;
  readonly plan: Plan;
  /** Replans the rest around one part of this plan. */
  readonly keepOnly: (part: keyof typeof KEEP_WORDS) => void;
}

/** Settings a plan changes, old and new, and buttons to use all or part of it. */
export function Changes({ props, plan, keepOnly }: ChangesProps) {
  const { clock, order } = usePreferences();
  const [refusal, setRefusal] = useState<string | null>(null);
  const change = takePlanChange(props.plan, plan);
  const applied = applyChange(props.plan, change);
  const panel = panelNow(props.plan, props.now, { clock, order, kind: null });
  const differences = applied.ok ? changedSettings(props.plan, applied.value.plan, panel) : [];
  return (
    <section className="plan-changes stack">
      <h2>
        {say`Settings that change`} <span className="soft">{differences.length}</span>
      </h2>
      {differences.length === 0 ? (
        <p>{say`Nothing. These programs are already set.`}</p>
      ) : (
        <>
          <div className="row near">
            <Button
              type="primary"
              size="large"
              onClick={() => setRefusal(commitWords(props.editor, change))}
            >{say`Use these programs`}</Button>
            <Dropdown
              trigger={['click']}
              menu={{
                items: KEEPABLE.map((part) => ({
                  key: part,
                  label: KEEP_WORDS[part],
                  onClick: () => keepOnly(part),
                })),
              }}
            >
              <Button size="large">{say`Keep only …`}</Button>
            </Dropdown>
          </div>
          <table className="data">
            <thead className="hidden-but-read">
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
                  <td>{before !== '' && <del className="soft">{before}</del>}</td>
                  <td>
                    <strong>{after}</strong>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
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
  months: NonNullable<Planning['season']>;
  brief: Brief;
  minutes: SiteMinutes;
  clockPlan: Plan;
  today: EpochDay;
}) {
  const { clock, order } = usePreferences();
  const panel = panelNow(clockPlan, today * SECONDS_PER_DAY, { clock, order, kind: null });
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
              ? changedSettings(clockPlan, seasonMonth.plan, panel)
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
