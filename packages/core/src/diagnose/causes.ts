/** What can have gone wrong at a timer, each as a change of the world in which the engine then runs. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Press, TimedPress } from '../simulatedTimer/events.ts';
import {
  formatDate,
  formatMoment,
  parseDate,
  SECONDS_PER_DAY,
  type ClockSecond,
} from '../time/calendar.ts';
import type { Plan, Program, Run } from '../plan/plan.ts';
import type { Days } from '../time/dayRules.ts';

export type Cause =
  /** Seconds by which the timer's clock is ahead of true time; negative: behind. */
  | { readonly type: 'clock'; readonly ahead: number }
  /** A start no one has noted. */
  | { readonly type: 'extra-start'; readonly program: string; readonly start: string }
  /** A start at another time than noted. */
  | {
      readonly type: 'other-start';
      readonly program: string;
      readonly start: string;
      readonly to: string;
    }
  /** A whole program no one has noted, such as the factory's. */
  | { readonly type: 'extra-program'; readonly program: Program }
  /** Without a program: of the whole timer. */
  | { readonly type: 'percent'; readonly program?: string; readonly percent: number }
  /** An interval shifted by a number of days. */
  | { readonly type: 'phase'; readonly program: string; readonly days: number }
  | { readonly type: 'days'; readonly program: string; readonly days: Days }
  | {
      readonly type: 'run';
      readonly program: string;
      readonly station: number;
      readonly seconds: number;
    }
  /** A program without a start, runs or days. */
  | { readonly type: 'half-set'; readonly program: string }
  /** On before the first sighting. */
  | { readonly type: 'rain-delay'; readonly until: string }
  /** Set by someone in between. */
  | { readonly type: 'rain-delay-set'; readonly at: ClockSecond; readonly hours: number }
  | { readonly type: 'off' }
  /** A sensor prevented watering in this span. */
  | { readonly type: 'sensor'; readonly from: ClockSecond; readonly to: ClockSecond }
  /** A manual run; null: of a station no one saw. */
  | {
      readonly type: 'manual';
      readonly station: number | null;
      readonly at: ClockSecond;
      readonly seconds: number;
    }
  /** A manual cycle of a program. */
  | { readonly type: 'manual-program'; readonly program: string; readonly at: ClockSecond }
  /** Someone stopped what was running. */
  | { readonly type: 'stopped'; readonly at: ClockSecond }
  /** A power cut in this span, with its effect on clock and settings. */
  | { readonly type: 'outage'; readonly from: ClockSecond; readonly to: ClockSecond }
  /** Someone changed the timer's percent in between. */
  | {
      readonly type: 'percent-changed';
      readonly at: ClockSecond;
      readonly before: number;
      readonly after: number;
    }
  /** Its wire, valve or output. */
  | { readonly type: 'dead-station'; readonly station: number }
  /** It lost its memory: it runs factory settings on a restarted clock. */
  | { readonly type: 'power-failure'; readonly ahead: number };

export type CauseType = Cause['type'];

/** A manual run of unknown length. */
export const MANUAL_SECONDS = 600;

/** What the engine runs, and what else prevents or adds water. */
export interface World {
  readonly plan: Plan;
  readonly ahead: number;
  readonly dead: readonly number[];
  /** Spans in true time in which a sensor prevents watering. */
  readonly wet: readonly { readonly from: ClockSecond; readonly to: ClockSecond }[];
  /** Manual runs of a station that no one saw. */
  readonly somewhere: readonly { readonly on: ClockSecond; readonly off: ClockSecond }[];
  /** Other actions on it, in order. */
  readonly presses: readonly TimedPress[];
  /** Default program after a power cut; null: not known. */
  readonly factory: Plan | null;
}

export const asNoted = (plan: Plan, ahead: number, factory: Plan | null = null): World => ({
  ...{ plan, ahead, factory },
  ...{ dead: [], wet: [], somewhere: [], presses: [] },
});

const inOrder = (presses: readonly TimedPress[]): TimedPress[] =>
  [...presses].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));

/** The world with more actions at moments in true time. */
const pressed = (
  world: World,
  ...presses: readonly (readonly [at: ClockSecond, press: Press])[]
): World => ({
  ...world,
  presses: inOrder([
    ...world.presses,
    ...presses.map(([at, press]) => ({ ...press, at: formatMoment(at) })),
  ]),
});

/** All actions of people, weather and power on the timer, in order. */
export const pressesOf = ({ presses, wet }: World): TimedPress[] =>
  inOrder([
    ...presses,
    ...wet.flatMap(({ from, to }): TimedPress[] => [
      { do: 'wet', at: formatMoment(from) },
      { do: 'dry', at: formatMoment(to) },
    ]),
  ]);

const withProgram = (plan: Plan, letter: string, change: (program: Program) => Program): Plan => ({
  ...plan,
  programs: plan.programs.map((program) => (program.letter === letter ? change(program) : program)),
});

const withRun = (runs: readonly Run[], station: number, seconds: number): Run[] =>
  runs.map((run) => (run.station === station ? { station, seconds } : run));

/** One percent all year, set by someone who did not look at the months. */
function withPercent(plan: Plan, percent: number): Plan {
  const { monthlyPercent: _months, ...settings } = plan.settings;
  return { ...plan, settings: { ...settings, seasonalPercent: percent } };
}

/**
 * The world with one cause added.
 *
 * @param factory the timer's plan after losing its memory; needed for a power cut
 */
export function withCause(world: World, cause: Cause, factory: Plan | null): World {
  const { plan } = world;
  const inPlan = (changed: Plan): World => ({ ...world, plan: changed });
  switch (cause.type) {
    case 'clock':
      return { ...world, ahead: cause.ahead };
    case 'extra-start':
      return inPlan(
        withProgram(plan, cause.program, (program) => ({
          ...program,
          starts: [...program.starts, cause.start],
        })),
      );
    case 'other-start':
      return inPlan(
        withProgram(plan, cause.program, (program) => ({
          ...program,
          starts: program.starts.map((start) => (start === cause.start ? cause.to : start)),
        })),
      );
    case 'extra-program':
      return inPlan({ ...plan, programs: [...plan.programs, cause.program] });
    case 'percent':
      return inPlan(
        cause.program === undefined
          ? withPercent(plan, cause.percent)
          : withProgram(plan, cause.program, (program) => ({
              ...program,
              seasonalPercent: cause.percent,
            })),
      );
    case 'phase':
      return inPlan(
        withProgram(plan, cause.program, (program) =>
          program.days?.rule === 'interval'
            ? {
                ...program,
                days: {
                  ...program.days,
                  firstDate: formatDate(
                    assertDefined(
                      parseDate(program.days.firstDate),
                      'parseDate(program.days.firstDate)',
                    ) + cause.days,
                  ),
                },
              }
            : program,
        ),
      );
    case 'days':
      return inPlan(
        withProgram(plan, cause.program, (program) => ({ ...program, days: cause.days })),
      );
    case 'run':
      return inPlan(
        withProgram(plan, cause.program, (program) => ({
          ...program,
          runs: withRun(program.runs, cause.station, cause.seconds),
        })),
      );
    case 'half-set':
      return inPlan(withProgram(plan, cause.program, (program) => ({ ...program, days: null })));
    case 'rain-delay':
      return inPlan({ ...plan, settings: { ...plan.settings, wateringResumes: cause.until } });
    case 'rain-delay-set':
      return pressed(world, [cause.at, { do: 'rainDelay', hours: cause.hours }]);
    case 'off':
      return inPlan({ ...plan, settings: { ...plan.settings, mode: 'off' } });
    case 'sensor':
      return { ...world, wet: [...world.wet, cause] };
    case 'manual': {
      const { station, at, seconds } = cause;
      return station === null
        ? { ...world, somewhere: [...world.somewhere, { on: at, off: at + seconds }] }
        : pressed(world, [at, { do: 'manual', station, seconds }]);
    }
    case 'manual-program':
      return pressed(world, [cause.at, { do: 'manual', program: cause.program }]);
    case 'stopped':
      return pressed(world, [cause.at, { do: 'stop' }]);
    case 'outage':
      return pressed(world, [cause.from, { do: 'powerOff' }], [cause.to, { do: 'powerOn' }]);
    case 'percent-changed':
      return pressed(inPlan(withPercent(plan, cause.before)), [
        cause.at,
        { do: 'percent', to: cause.after },
      ]);
    case 'dead-station':
      return { ...world, dead: [...world.dead, cause.station] };
    case 'power-failure':
      return { ...world, plan: factory ?? plan, ahead: cause.ahead };
  }
}

const IN_SETTINGS: readonly CauseType[] = [
  'extra-start',
  'other-start',
  'extra-program',
  'percent',
  'phase',
  'days',
  'run',
  'half-set',
  'rain-delay',
  'off',
];

/** What a cause leaves behind in the timer. */
const stillThere = (cause: Cause): Cause =>
  cause.type === 'percent-changed' ? { type: 'percent', percent: cause.after } : cause;

/** The settings in the timer if the causes turn out to be true; null if none of them is a setting. */
export function settingsWith(plan: Plan, causes: readonly Cause[]): Plan | null {
  const own = causes.map(stillThere).filter(({ type }) => IN_SETTINGS.includes(type));
  if (own.length === 0) return null;
  return own.reduce((world, cause) => withCause(world, cause, null), asNoted(plan, 0)).plan;
}

/** Number of wrong times of day, in steps of five minutes. */
const TIMES_OF_DAY = 288;
/** Days that people look back. */
const DAYS_LOOKED_BACK = 10;
/** A change between two sightings is rarer than something always there, because it also has a moment. */
export const BETWEEN = Math.log(DAYS_LOOKED_BACK);
/** Number of wrong run times. */
const LENGTHS = 12;
/** Seconds. A longer run means drip, or hours mistaken for minutes. */
const LONG_RUN = 4200;
const LONG_RUN_IS_ODD = 2;

/**
 * Rarity of a cause in nats (lower is more common): the rarity of its kind plus the number of ways it can happen, since what has many ways
 * explains anything. The kinds follow the field guide: a clock twelve hours off is the most common fault; then leftovers; then switches
 * left on or off; then wiring.
 *
 * @param plan the noted settings
 */
export function rarityOf(cause: Cause, plan: Plan): number {
  const ways = (count: number) => Math.log(Math.max(1, count));
  const programs = plan.programs.length;
  const starts = plan.programs.flatMap((program) => program.starts).length;
  switch (cause.type) {
    case 'clock':
      return clockRarity(cause.ahead);
    case 'extra-start':
      return 1.6 + ways(programs * TIMES_OF_DAY) - ways(3);
    case 'other-start':
      return isHalfADay(cause.start, cause.to)
        ? 2.2 + ways(starts)
        : 3.4 + ways(starts * TIMES_OF_DAY);
    case 'phase': {
      const days = plan.programs.find(({ letter }) => letter === cause.program)?.days;
      return 2 + ways(days?.rule === 'interval' ? days.everyDays - 1 : 1);
    }
    case 'half-set':
      return 2.2 + ways(programs);
    case 'off':
      return 2.2;
    case 'extra-program':
      return 2.6;
    case 'percent':
      return 1.6 + ways(LENGTHS) + (cause.program === undefined ? 0 : ways(programs));
    case 'rain-delay':
      return 2 + ways(DAYS_LOOKED_BACK / 2);
    case 'rain-delay-set':
      return 2 + ways(DAYS_LOOKED_BACK / 2) + BETWEEN;
    case 'sensor':
      return 2 + ways(DAYS_LOOKED_BACK);
    case 'dead-station':
      return 2.4 + ways(plan.stations.length);
    case 'days':
      return 1.8 + ways(7 * programs);
    case 'run':
      return (
        1.2 +
        ways(plan.stations.length * LENGTHS) +
        (cause.seconds > LONG_RUN ? LONG_RUN_IS_ODD : 0)
      );
    case 'manual':
      return ways(DAYS_LOOKED_BACK * TIMES_OF_DAY);
    case 'manual-program':
      return 1 + ways(DAYS_LOOKED_BACK * TIMES_OF_DAY);
    case 'stopped':
      return 1 + ways(DAYS_LOOKED_BACK * TIMES_OF_DAY);
    // When it began, and for how long.
    case 'outage':
      return 2.4 + ways(DAYS_LOOKED_BACK * LENGTHS);
    case 'percent-changed':
      return 1.6 + ways(LENGTHS) + BETWEEN;
    case 'power-failure':
      return 2.4 + ways(TIMES_OF_DAY);
  }
}

/** Whether two times of day are twelve hours apart. */
export function isHalfADay(a: string, b: string): boolean {
  const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3));
  return Math.abs(minutes(a) - minutes(b)) === 720;
}

function clockRarity(ahead: number): number {
  const day = SECONDS_PER_DAY;
  const size = Math.abs(ahead);
  const rest = size % day;
  if (size === day / 2) return 1.2;
  if (size === 3600) return 1.8;
  if (rest === 0) return size === day ? 3 : 3.8;
  if (rest === day / 2) return 3.8;
  // A clock that runs slow or fast is off by hours, rarely by days.
  return 1.6 + Math.log(2 * 7 * TIMES_OF_DAY) + Math.floor(size / day) / 4;
}
