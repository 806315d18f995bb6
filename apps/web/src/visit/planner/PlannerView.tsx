import { useMemo, useState } from 'react';
import { Button, Checkbox } from 'antd';
import { Link } from 'react-router';
import {
  highPercent,
  bansByMonth,
  startWords,
  wishOf,
  type Wish,
  ALTERNATIVE_WORDS,
  attempt,
  lengthWords,
  listed,
  meanWeeklySeconds,
  SECONDS_PER_DAY,
  unknownNeeds,
  withPresentWater,
  type Brief,
  type MonthNeed,
  type Pins,
  type Plan,
  type PlannerOptions,
  language,
  say,
} from '@water-clock/core';
import { Patterns } from '../../shared/charts/patterns.tsx';
import { clockChangesAfter } from '../../app/platform/clockChange.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { Loading } from '../../app/platform/states.tsx';
import { RULES_FAILED } from '../steps/useVisitBasis.ts';
import { planningMonth, sunriseOf, useBrief } from '../steps/useBrief.ts';
import { Changes, Reasons, Season, Table } from './PlanDetails.tsx';
import { PlanPrograms } from './PlanPrograms.tsx';
import { PlanWeek } from '../../shared/charts/PlanWeek.tsx';
import { clearOf, namesOf, useOthers } from './keepClear.ts';
import { usePlanner } from './usePlanner.ts';
import './planner.css';

const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);

/** What each month asks for, station by station, from the year of its school. */
function monthNeeds(props: StepProps): MonthNeed[] {
  const { site, minutes, table, survey, rules, today } = props;
  if (survey.season === 'never') return [];
  const hundred = planningMonth(minutes, today);
  const full = table.months[hundred - 1] ?? 100;
  const { finishBeforeSunrise } = survey;
  const bans = bansByMonth(survey.rules, rules, site, today);
  return MONTHS.map((month) => ({
    month,
    ban: bans.find((ban) => ban.month === month),
    shares: new Map(
      minutes.stations.map(({ number, year, school }) => {
        const base = year?.[hundred - 1]?.weeklySeconds ?? 0;
        const own = year?.[month - 1]?.weeklySeconds ?? 0;
        const byBalance = school === 'balance' && base > 0;
        return [
          number,
          byBalance ? own / base : (table.months[month - 1] ?? 100) / Math.max(1, full),
        ];
      }),
    ),
    finishBy:
      finishBeforeSunrise === undefined ? null : sunriseOf(site, today, month, finishBeforeSunrise),
  }));
}

const stationsText = (numbers: readonly number[]) =>
  `${numbers.length === 1 ? say`station` : say`stations`} ${listed(numbers)}`;

/** Seconds a week that the present programs give each station. */
function presentWater(plan: Plan): ReadonlyMap<number, number> {
  const worked = attempt(() => meanWeeklySeconds(plan));
  return worked.ok ? worked.value : new Map<number, number>();
}

/** Hours that a change of the clocks skips or repeats, on a timer that follows it: a start there comes late, or twice. */
function hoursOfClockChanges({
  site,
  plan,
  today,
}: StepProps): NonNullable<PlannerOptions['avoid']> {
  if (!plan.timer.followsDaylightSaving) return [];
  return clockChangesAfter(new Date(today * SECONDS_PER_DAY * 1000), site.timeZone).map(
    ({ from, to }) => ({ from: Math.min(from, to), to: Math.max(from, to) }),
  );
}

/** The brief with what the present programs give where the need is not known. */
function withPresent(brief: Brief, plan: Plan, unknown: readonly number[]): Brief {
  const worked = attempt(() => withPresentWater(brief, plan, unknown));
  return worked.ok ? worked.value : brief;
}

/** The planner: from the brief to the best programs, with reasons. A plan that does not know the rules of its place is none. */
export default function PlannerView(props: StepProps) {
  if (props.isPending) return <Loading what={say`the rules, tables and weather for this site`} />;
  if (props.rulesState === 'failed') return <p className="fault">{RULES_FAILED}</p>;
  return <Planner {...props} />;
}

function Planner(props: StepProps) {
  const { site, survey, minutes, today, timerId, plan } = props;
  const { clock } = usePreferences();
  const noted = useBrief(props);
  const unknown = useMemo(() => unknownNeeds(minutes), [minutes]);
  const present = useMemo(() => presentWater(plan), [plan]);
  const goByPresent = unknown.filter((number) => (present.get(number) ?? 0) > 0);
  const [byPresent, setByPresent] = useState(true);
  const others = useOthers(site.id, timerId);
  const [keepsClear, setKeepsClear] = useState(true);
  // Where nobody knows the need, what the present programs give is the best there is to go by.
  const brief = useMemo(() => {
    const known = byPresent ? withPresent(noted, plan, unknown) : noted;
    return keepsClear ? clearOf(known, others, today) : known;
  }, [byPresent, noted, unknown, plan, keepsClear, others, today]);
  const watered = brief.stations.some(({ weeklySeconds }) => weeklySeconds > 0);
  const { planning, start, stop } = usePlanner();
  const [chosen, setChosen] = useState(0);
  const [pins, setPins] = useState<Pins>({});
  const kept = [pins.days, pins.starts, pins.runs, pins.stations].reduce(
    (sum, list) => sum + (list?.length ?? 0),
    0,
  );
  const sunrise = sunriseOf(site, today, planningMonth(minutes, today));
  const work = (about: Brief, alone: boolean) => {
    setChosen(0);
    start({
      brief: about,
      options: {
        on: today,
        pins,
        avoid: hoursOfClockChanges(props),
        linked: plan.stations.filter(
          ({ linkedTo, enabled }) => linkedTo !== undefined && enabled !== false,
        ),
      },
      sunrise,
      months: monthNeeds(props),
      season: survey.season === 'days' ? 'days' : 'percent',
      alone,
      clock,
      language: language(),
    });
  };
  const { results, state, request, best } = planning;
  const shown = results[chosen] ?? results[0];
  const hours = shown?.plan ? shown.hours : null;
  const tryHours = (wish: Partial<Wish>) => {
    const about = shown?.brief ?? brief;
    work({ ...about, wish: { ...about.wish, ...wish } }, false);
  };
  const tried = request !== null && JSON.stringify(request.brief) !== JSON.stringify(brief);
  const conflicts = results[0] && !results[0].plan ? results[0].conflicts : [];
  return (
    <div className="survey-view stack page-column planner">
      <Patterns />
      <div className="planner-head row">
        {state === 'working' ? (
          <Button size="large" onClick={stop}>{say`Stop`}</Button>
        ) : (
          <Button
            size="large"
            type="primary"
            disabled={!watered}
            onClick={() => work(brief, kept > 0)}
          >
            {kept > 0 ? say`Plan the rest` : say`Plan`}
          </Button>
        )}
        {kept > 0 && state !== 'working' && (
          <Button size="large" onClick={() => setPins({})}>{say`Keep nothing`}</Button>
        )}
        <p role="status">
          {state === 'idle' &&
            say`The best programs for the brief: days, programs, start times and minutes, with the reasons.`}
          {state === 'working' &&
            (results.length > 0
              ? say`Looking at other plans …`
              : best
                ? say`Planning: ${planning.tries} options tried. The best so far is below.`
                : say`Planning: ${planning.tries} options tried.`)}
          {state === 'stopped' && say`Stopped. The best plan so far is shown.`}
          {state === 'done' && kept > 0 && say`${kept} kept. The rest can be planned around it.`}
        </p>
      </div>
      {others.length > 0 && (
        <Checkbox
          className="check"
          checked={keepsClear}
          onChange={({ target }) => setKeepsClear(target.checked)}
        >{say`avoid ${listed(namesOf(others))}: no watering while the other timer waters`}</Checkbox>
      )}
      {unknown.length > 0 && (
        <div className="caution">
          <p>
            {say`Need not known yet: ${stationsText(unknown)}.`}{' '}
            <Link to={`/timers/${timerId}/minutes`}>{say`Minutes`}</Link>
          </p>
          {goByPresent.length > 0 ? (
            <Checkbox
              className="check"
              checked={byPresent}
              onChange={({ target }) => setByPresent(target.checked)}
            >
              {say`use what the current programs give ${stationsText(goByPresent)}`}
            </Checkbox>
          ) : (
            <p>{say`Not in any program.`}</p>
          )}
        </div>
      )}
      {!watered && <p>{say`Enter what at least one station needs to start planning.`}</p>}
      {planning.why && <p className="fault">{say`No plan: ${planning.why}`}</p>}
      {tried && state === 'done' && (
        <p className="caution">
          {say`This plan is for a changed brief. The change is not saved in the brief.`}{' '}
          <Button onClick={() => work(brief, false)}>{say`Back to the brief`}</Button>
        </p>
      )}
      {results.length === 0 && best && (
        <div className="stack column">
          <PlanWeek plan={best.plan} from={today} place={site} />
          {state === 'stopped' && <Changes props={props} plan={best.plan} />}
        </div>
      )}
      {conflicts.length > 0 && (
        <section role="alert" className="aside alarm stack">
          <h2>{say`No plan can meet all of this`}</h2>
          <p>{say`These conflict. Any one of these changes is enough:`}</p>
          <ul>
            {conflicts.map(({ path, demand, change, brief: changed }) => (
              <li key={path}>
                <p>
                  <strong>{demand}</strong>
                </p>
                <p>
                  {change}{' '}
                  {changed && <Button onClick={() => work(changed, false)}>{say`Try it`}</Button>}
                </p>
              </li>
            ))}
          </ul>
          <p className="soft">{say`Local authorities decide what is allowed.`}</p>
        </section>
      )}
      {hours && shown && (
        <section role="alert" className="aside alarm stack">
          <h2>{say`These hours are too short`}</h2>
          <p>{say`At ${highPercent(shown.brief)} %, ${lengthWords(Math.round(hours.outside * 60))} a week falls outside the hours from ${startWords(wishOf(shown.brief).notBefore, clock)} to ${startWords(wishOf(shown.brief).finishBy, clock)}.`}</p>
          <p>
            {hours.fits.length > 0
              ? say`Everything fits with one of these changes:`
              : say`None of the longer hours we tried is enough.`}
          </p>
          <p className="row near">
            {hours.fits.map(({ apply }) => {
              const wish = Object.fromEntries(
                apply.map(({ path, value }) => [path.replace('wish.', ''), String(value)]),
              ) as Pick<Wish, 'finishBy' | 'notBefore'>;
              return (
                <Button key={JSON.stringify(wish)} onClick={() => tryHours(wish)}>
                  {wish.finishBy
                    ? say`End by ${startWords(wish.finishBy, clock)}`
                    : say`Start from ${startWords(wish.notBefore ?? '21:00', clock)}`}
                </Button>
              );
            })}
          </p>
        </section>
      )}
      {results[0]?.plan && (
        <div className="tiles fill" role="group" aria-label={say`Plans`}>
          {results.map(({ kind, plan: other, cost }, i) =>
            other ? (
              <Button
                className="plan-alternative stack"
                key={kind}
                aria-pressed={i === chosen}
                onClick={() => setChosen(i)}
              >
                <strong>{ALTERNATIVE_WORDS[kind]}</strong>
                <PlanWeek plan={other} from={today} place={site} />
                <span>
                  {other.programs.length}{' '}
                  {other.programs.length === 1 ? say`program` : say`programs`}, {cost?.[4]}{' '}
                  {cost?.[4] === 1 ? say`start` : say`starts`}
                  {cost?.[1]
                    ? say`, ${lengthWords(Math.round(cost[1] * 60))} outside the hours`
                    : ''}
                </span>
              </Button>
            ) : null,
          )}
        </div>
      )}
      {shown?.plan && (
        <>
          {results.length > 1 && <Table results={results} brief={brief} />}
          <h2 className="plan-shown">{ALTERNATIVE_WORDS[shown.kind]}</h2>
          <div className="tiles fill of-300 far">
            <PlanPrograms
              plan={shown.plan}
              brief={shown.brief}
              clock={clock}
              pins={pins}
              setPins={setPins}
            />
            <Reasons result={shown} timerId={timerId} />
          </div>
          <Changes key={chosen} props={props} plan={shown.plan} />
          {planning.season && chosen === 0 && (
            <Season
              months={planning.season}
              today={today}
              brief={brief}
              minutes={minutes}
              clockPlan={shown.plan}
            />
          )}
        </>
      )}
    </div>
  );
}
