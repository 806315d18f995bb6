/**
 * Stations that a plan leaves short and hours it exceeds, with what would help. Each claim is tested: the brief is solved again with just
 * that change (planning.md section 3).
 */
import { wishOf, type Brief, type BriefStation } from '../brief/brief.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import type { Plan } from '../plan/plan.ts';
import { formatTime, parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import { briefChanges, type BriefChange } from './briefChanges.ts';
import { stepsOff } from './cost.ts';
import { withTimer, withWish } from './demand.ts';
import type { PlannerOptions } from './options.ts';
import type { Found } from './search.ts';
import { searchPlan } from './searchPlan.ts';

export interface Short {
  readonly station: number;
  /** Seconds in an average week at 100 percent. */
  readonly given: number;
  readonly wanted: number;
  /** The first change of the brief that helps; if none tried does, what limits the run. */
  readonly because: Because;
  /** `given`: seconds the station gets with the change. */
  readonly relief: readonly { readonly apply: readonly BriefChange[]; readonly given: number }[];
}

export interface OutsideHours {
  /** Minutes a week outside the wished hours. */
  readonly outside: number;
  /** Changes with each of which everything is inside them. */
  readonly fits: readonly { readonly apply: readonly BriefChange[] }[];
}

type Because = 'starts' | 'programs' | 'days' | 'hours' | 'stretch' | 'step' | 'headroom';

interface Trial {
  readonly because: Because;
  readonly brief: Brief;
}

const QUARTER = 900;
/** Quarters of an hour by which the wished hours are extended, one after another. */
const LONGER = [1, 2, 3, 4, 6, 8, 12, 16, 24];

const changedHours = (brief: Brief, quarters: number): Brief[] => {
  const { notBefore, finishBy } = wishOf(brief);
  const at = (time: string, by: number) =>
    formatTime(modulo((parseTime(time) ?? 0) + by * QUARTER, SECONDS_PER_DAY));
  return [
    withWish(brief, (own) => ({ ...own, finishBy: at(finishBy, quarters) })),
    withWish(brief, (own) => ({ ...own, notBefore: at(notBefore, -quarters) })),
  ];
};

/** Changes that may give short stations more water, smallest of each sort first. */
function* trialsOf(brief: Brief, short: ReadonlySet<number>): Generator<Trial> {
  const wish = wishOf(brief);
  const { timer } = brief;
  const each = (change: (station: BriefStation) => BriefStation): Brief => ({
    ...brief,
    stations: brief.stations.map((one) => (short.has(one.number) ? change(one) : one)),
  });
  if (wish.starts !== 'any')
    yield { because: 'starts', brief: withWish(brief, ({ starts: _s, ...own }) => own) };
  if (wish.programs === 'one')
    yield { because: 'programs', brief: withWish(brief, ({ programs: _p, ...own }) => own) };
  const most = Math.max(
    0,
    ...brief.stations.map(({ days }) => days?.most ?? brief.wish?.daysPerWeek?.most ?? 7),
  );
  if (most < 7) {
    yield {
      because: 'days',
      brief: each((one) => {
        const days = one.days ?? brief.wish?.daysPerWeek;
        return days ? { ...one, days: { ...days, most: Math.min(7, days.most + 1) } } : one;
      }),
    };
  }
  for (const longer of [4, 8])
    for (const changed of changedHours(brief, longer)) yield { because: 'hours', brief: changed };
  yield {
    because: 'stretch',
    brief: each((one) =>
      one.cycleSeconds === undefined
        ? one
        : { ...one, cycleSeconds: Math.ceil((one.cycleSeconds * 3) / 2 / 60) * 60 },
    ),
  };
  if (wish.headroomPercent > 100)
    yield {
      because: 'headroom',
      brief: withWish(brief, (own) => ({ ...own, headroomPercent: 100 })),
    };
  yield {
    because: 'starts',
    brief: withTimer(brief, { startsPerProgram: timer.startsPerProgram + 1 }),
  };
  yield { because: 'programs', brief: withTimer(brief, { programCount: timer.programCount + 1 }) };
}

const offOf = (given: number, wanted: number) => Math.abs(given - wanted) / wanted;

/**
 * The stations that count in cost part 1 of a plan.
 *
 * @throws TooMuchWork
 */
export function shortOf(brief: Brief, { plan, cost }: Found, options: PlannerOptions): Short[] {
  if (cost[0] === 0) return [];
  const given = meanWeeklySeconds(plan);
  const short = brief.stations.filter(
    ({ number, weeklySeconds }) =>
      weeklySeconds > 0 && stepsOff(offOf(given.get(number) ?? 0, weeklySeconds)) > 0,
  );
  const tried = tryAll(brief, new Set(short.map(({ number }) => number)), options);
  return short.map((station): Short => {
    const { number, weeklySeconds: wanted } = station;
    const now = given.get(number) ?? 0;
    const helping = tried.flatMap(({ because, apply, water }) => {
      const then = water.get(number) ?? 0;
      const helps = stepsOff(offOf(then, wanted)) < stepsOff(offOf(now, wanted));
      return helps ? [{ because, apply, given: Math.round(then) }] : [];
    });
    return {
      station: number,
      given: Math.round(now),
      wanted,
      because: helping[0]?.because ?? limitOf(brief, plan, station),
      relief: helping.map(({ apply, given: then }) => ({ apply, given: then })),
    };
  });
}

function tryAll(brief: Brief, short: ReadonlySet<number>, options: PlannerOptions) {
  const made = new Set<string>();
  return [...trialsOf(brief, short)].flatMap(({ because, brief: changed }) => {
    const apply = briefChanges(brief, changed);
    const key = JSON.stringify(apply);
    if (apply.length === 0 || made.has(key)) return [];
    made.add(key);
    const { found } = searchPlan(changed, options);
    return found ? [{ because, apply, water: meanWeeklySeconds(found.plan) }] : [];
  });
}

/** What limits a station's run if no change tried helps. */
function limitOf(brief: Brief, plan: Plan, { number, cycleSeconds }: BriefStation): Because {
  const run = plan.programs.flatMap(({ runs }) => runs).find(({ station }) => station === number);
  const next = (run?.seconds ?? 0) + brief.timer.runStepSeconds;
  return cycleSeconds !== undefined && next > cycleSeconds ? 'stretch' : 'step';
}

/** What a plan does outside the wished hours; null: nothing. @throws TooMuchWork */
export function outsideHours(
  brief: Brief,
  { cost }: Found,
  options: PlannerOptions,
): OutsideHours | null {
  if (cost[1] === 0) return null;
  const fitsWith = (changed: Brief) => {
    const { found } = searchPlan(changed, options);
    return found !== null && found.cost[1] === 0 && found.cost[0] <= cost[0];
  };
  const fits = [0, 1].flatMap((which) => {
    for (const longer of LONGER) {
      const changed = changedHours(brief, longer)[which];
      if (changed && fitsWith(changed)) return [{ apply: briefChanges(brief, changed) }];
    }
    return [];
  });
  return { outside: cost[1], fits };
}
