/**
 * Three or more timers of one site at once. Pairs are proved for all dates (houseMeetings.ts); larger groups are looked for day by day in the
 * coming year.
 */
import { SECONDS_PER_DAY, type ClockSecond, type EpochDay } from '../time/calendar.ts';
import { Effort } from './effort.ts';
import { peakOf, type Flow, type HouseCycle, type HouseTimer } from './houseMeetings.ts';
import type { ProgramCycles } from './nominal.ts';
import { dueCycles } from './simulate.ts';

/** Starts of three or more timers that run at the same time. */
export interface HouseCrowd {
  /** The first time: at least one cycle of each timer, in order of begin. */
  readonly cycles: readonly HouseCycle[];
  readonly from: ClockSecond;
  readonly to: ClockSecond;
  /** The highest of all times. */
  readonly flow: Flow;
  /** In the days examined. */
  readonly times: number;
}

interface Running {
  readonly timer: HouseTimer;
  readonly program: ProgramCycles;
  readonly cycle: HouseCycle;
}

const DAYS = 366;
const FEWEST = 3;

function cyclesOf(timer: HouseTimer, on: EpochDay, effort: Effort): Running[] {
  if (timer.plan.settings.mode === 'off') return [];
  return dueCycles(timer.plan, on - 1, DAYS + 1, [], effort).flatMap(
    ({ letter, start, due, nominal, program }) =>
      nominal && nominal.ends > on * SECONDS_PER_DAY
        ? [
            {
              timer,
              program,
              cycle: {
                timer: timer.id,
                letter,
                start,
                day: Math.floor(due / SECONDS_PER_DAY),
                ...nominal,
              },
            },
          ]
        : [],
  );
}

const keyOf = (running: readonly Running[]) =>
  running
    .map(({ cycle: { timer, letter, start } }) => `${timer} ${letter} ${start}`)
    .sort()
    .join();

/**
 * Groups of starts of three or more timers that run at the same time within a year, earliest first.
 *
 * Cost: cycles in the year × cycles at once.
 *
 * @param on earlier dates do not count
 * @throws TooMuchWork
 */
export function houseCrowds(
  timers: readonly HouseTimer[],
  on: EpochDay,
  effort = new Effort(),
): HouseCrowd[] {
  if (timers.length < FEWEST) return [];
  const all = timers
    .flatMap((timer) => cyclesOf(timer, on, effort))
    .sort((a, b) => a.cycle.begins - b.cycle.begins);
  const midnight = on * SECONDS_PER_DAY;
  const found = new Map<string, HouseCrowd>();
  let active: Running[] = [];
  for (const [i, one] of all.entries()) {
    const { begins } = one.cycle;
    active = [...active.filter(({ cycle }) => cycle.ends > begins), one];
    effort.spend(active.length);
    const from = Math.max(begins, midnight);
    // Those that begin together join together.
    if (from >= (all[i + 1]?.cycle.begins ?? Infinity)) continue;
    if (new Set(active.map(({ timer }) => timer.id)).size < FEWEST) continue;
    const to = Math.min(...active.map(({ cycle }) => cycle.ends));
    const flow = peakOf(
      active.map((running) => [running, running.cycle] as const),
      from,
      to,
    );
    const key = keyOf(active);
    const { times, ...first } = found.get(key) ?? {
      ...{ cycles: active.map(({ cycle }) => cycle), from, to, flow, times: 0 },
    };
    const isMore = flow.litresPerMinute > first.flow.litresPerMinute;
    found.set(key, { ...first, flow: isMore ? flow : first.flow, times: times + 1 });
  }
  return [...found.values()];
}
