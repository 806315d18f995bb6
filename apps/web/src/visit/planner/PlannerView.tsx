import { useMemo, useState } from 'react';
import { Button, Checkbox } from 'antd';
import { Link } from 'react-router';
import {
  attempt,
  bansByMonth,
  civilOf,
  epochDayOf,
  language,
  listed,
  plural,
  proofSentence,
  say,
  SECONDS_PER_DAY,
  unknownNeeds,
  withPresentWater,
  type AlternativeKind,
  type Brief,
  type MonthNeed,
  type Pins,
  type Plan,
  type PlannerOptions,
} from '@water-clock/core';
import { clockChangesAfter } from '../../app/platform/clockChange.ts';
import { SideDrawer } from '../../app/frame/SideDrawer.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Loading } from '../../app/platform/states.tsx';
import { Patterns } from '../../shared/charts/patterns.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { WishEditor } from '../brief/WishEditor.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import {
  beforeSunrise,
  earliestSunrise,
  planningMonth,
  useSunrise,
  useWholeBrief,
} from '../steps/useBrief.ts';
import { RULES_FAILED } from '../steps/useVisitBasis.ts';
import { givenBy } from './facts.ts';
import { clearOf, namesOf, useOthers } from './keepClear.ts';
import { PlanCards } from './PlanCards.tsx';
import { Changes, Reasons, Season, Table } from './PlanDetails.tsx';
import { PlanPrograms } from './PlanPrograms.tsx';
import { Conflicts, ShortHours } from './PlanTrouble.tsx';
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
  const { year, month: thisMonth } = civilOf(today);
  const bans = bansByMonth(survey.rules, rules, site, today);
  const finishIn = (inYear: number, month: number) => {
    if (finishBeforeSunrise === undefined) return null;
    const first = epochDayOf({ year: inYear, month, day: 1 });
    const next = epochDayOf({
      year: month === 12 ? inYear + 1 : inYear,
      month: (month % 12) + 1,
      day: 1,
    });
    const sunrise = earliestSunrise(site, first, next - first);
    return sunrise && beforeSunrise(sunrise, finishBeforeSunrise);
  };
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
    finishBy: finishIn(month < thisMonth ? year + 1 : year, month),
  }));
}

const stationsText = (numbers: readonly number[]) =>
  `${numbers.length === 1 ? say`station` : say`stations`} ${listed(numbers)}`;

/** The hour that a clock change skips or repeats, on a timer that follows it: a start there comes late, or twice. */
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

/** The brief, with the water of the current programs where the need is not known. */
function withPresent(brief: Brief, plan: Plan, unknown: readonly number[]): Brief {
  const worked = attempt(() => withPresentWater(brief, plan, unknown));
  return worked.ok ? worked.value : brief;
}

/** The planner: from the brief to the best programs, with reasons. It waits until the site's rules are known. */
export default function PlannerView(props: StepProps) {
  if (props.isPending) return <Loading what={say`the rules, tables and weather for this site`} />;
  if (props.rulesState === 'failed') return <p className="fault">{RULES_FAILED}</p>;
  return <Planner {...props} />;
}

/** Parts of a plan that can be kept while the rest is planned again. */
const PARTS = {
  days: (plan: Plan): Pins => ({
    days: plan.programs.flatMap(({ letter, days }) => (days ? [{ program: letter, days }] : [])),
  }),
  starts: (plan: Plan): Pins => ({
    starts: plan.programs.flatMap(({ letter, starts }) =>
      starts.map((start) => ({ program: letter, start })),
    ),
  }),
  runs: (plan: Plan): Pins => ({ runs: plan.programs.flatMap(({ runs }) => runs) }),
  stations: (plan: Plan): Pins => ({
    stations: plan.programs.flatMap(({ letter, runs }) =>
      runs.map(({ station }) => ({ station, program: letter })),
    ),
  }),
} as const;

function Planner(props: StepProps) {
  const { site, survey, minutes, today, timerId, plan, editor } = props;
  const { clock } = usePreferences();
  const noted = useWholeBrief(props);
  const sunrise = useSunrise(site, today);
  const unknown = useMemo(() => unknownNeeds(minutes), [minutes]);
  // As when the step was opened: using a plan does not change what is planned.
  const [opened] = useState(plan);
  const present = useMemo(() => givenBy(opened), [opened]);
  const goByPresent = unknown.filter((number) => (present.get(number) ?? 0) > 0);
  const [byPresent, setByPresent] = useState(true);
  const others = useOthers(site.id, timerId);
  const [keepsClear, setKeepsClear] = useState(true);
  // If the need is not known, the water of the current programs is the best guess.
  const brief = useMemo(() => {
    const known = byPresent ? withPresent(noted, opened, unknown) : noted;
    return keepsClear ? clearOf(known, others, today) : known;
  }, [byPresent, noted, unknown, opened, keepsClear, others, today]);
  const [tried, setTried] = useState<Brief | null>(null);
  const [chosen, setChosen] = useState<AlternativeKind>('as-wished');
  const [pins, setPins] = useState<Pins>({});
  const [isChanging, setIsChanging] = useState(false);
  const kept = [pins.days, pins.starts, pins.runs, pins.stations].reduce(
    (sum, list) => sum + (list?.length ?? 0),
    0,
  );
  const about = tried ?? brief;
  const isWatered = about.stations.some(({ weeklySeconds }) => weeklySeconds > 0);
  const {
    state,
    results,
    present: proven,
    season,
    why,
  } = usePlanner(
    isWatered
      ? {
          brief: about,
          options: {
            on: today,
            pins,
            avoid: hoursOfClockChanges(props),
            linked: opened.stations.filter(
              ({ linkedTo, enabled }) => linkedTo !== undefined && enabled !== false,
            ),
          },
          sunrise: sunrise && beforeSunrise(sunrise, 0),
          months: monthNeeds(props),
          season: survey.season === 'days' ? 'days' : 'percent',
          alone: kept > 0 || tried !== null,
          clock,
          language: language(),
        }
      : null,
    plan,
  );
  const [first] = results;
  const shown = results.find(({ kind }) => kind === chosen) ?? first;
  const attemptWith = (changed: Brief) => {
    setChosen('as-wished');
    setTried(changed);
  };
  const keepOnly = (part: keyof typeof PARTS) => {
    if (!shown?.plan) return;
    setChosen('as-wished');
    setPins(PARTS[part](shown.plan));
  };
  return (
    <div className="survey-view stack page-column planner">
      <Patterns />
      <div className="planner-head row">
        <h2>{say`Plans for this garden`}</h2>
        <p role="status" className="soft push-others">
          {state === 'working' &&
            (results.length > 0 ? say`Looking at other plans …` : say`Planning …`)}
          {state === 'done' && first?.cost && proofSentence(first.proof, first.cost)}
        </p>
        {kept > 0 && <Button onClick={() => setPins({})}>{say`Keep nothing`}</Button>}
        <Button onClick={() => setIsChanging(true)}>{say`Change preferences`}</Button>
      </div>
      <SideDrawer title={say`Preferences`} open={isChanging} close={() => setIsChanging(false)}>
        <WishEditor plan={plan} survey={survey} editor={editor} sunrise={sunrise} />
      </SideDrawer>
      {kept > 0 && (
        <p>
          {plural(
            kept,
            '# setting is kept. The rest is planned around it.',
            '# settings are kept. The rest is planned around them.',
          )}
        </p>
      )}
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
      {!isWatered && <p>{say`Enter what at least one station needs to start planning.`}</p>}
      {why && <p className="fault">{say`No plan: ${why}`}</p>}
      {tried && (
        <p className="caution">
          {say`This plan is for a changed brief. The change is not saved in the brief.`}{' '}
          <Button onClick={() => setTried(null)}>{say`Back to the brief`}</Button>
        </p>
      )}
      {first && !first.plan && <Conflicts result={first} attemptWith={attemptWith} />}
      {shown?.plan && <ShortHours result={shown} attemptWith={attemptWith} />}
      {first?.plan && (
        <PlanCards
          results={results}
          chosen={shown?.kind}
          choose={setChosen}
          plan={plan}
          brief={about}
          survey={survey}
          present={proven}
          today={today}
          place={site}
          sunrise={sunrise}
        />
      )}
      {shown?.plan && (
        <>
          <p className="soft small">
            {about.mowing
              ? say`Hatched: no watering allowed. Star: mowing day.`
              : say`Hatched: no watering allowed.`}
          </p>
          <div className="tiles fill of-300 far">
            <Changes key={shown.kind} props={props} plan={shown.plan} keepOnly={keepOnly} />
            <Reasons result={shown} timerId={timerId} />
          </div>
          {season && shown === first && (
            <Season
              months={season}
              today={today}
              brief={about}
              minutes={minutes}
              clockPlan={shown.plan}
            />
          )}
          <Disclosure summary={say`Programs of this plan, part by part`}>
            {() =>
              shown.plan && (
                <PlanPrograms
                  plan={shown.plan}
                  brief={shown.brief}
                  clock={clock}
                  pins={pins}
                  setPins={setPins}
                />
              )
            }
          </Disclosure>
          {results.length > 1 && (
            <Disclosure summary={say`Plans as a table`}>
              {() => <Table results={results} brief={about} />}
            </Disclosure>
          )}
        </>
      )}
    </div>
  );
}
