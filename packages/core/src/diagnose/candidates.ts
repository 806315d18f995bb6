/** What may have gone wrong, given the sightings: every setting of the plan, with values that a sighting suggests. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  formatDate,
  formatTime,
  monthOf,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  type Weekday,
} from '../time/calendar.ts';
import { modulo, type Days } from '../time/dayRules.ts';
import { letterAt, type Plan, type Program } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { effectivePercent, missingOf, percentSteps } from '../plan/program.ts';
import type { Cause, World } from './causes.ts';
import { momentsOf, offsetsOf, percentsSeen } from './pointers.ts';
import { eventCauses } from './eventCauses.ts';
import { runCauses } from './runCauses.ts';
import { cyclesOf, firstFrom, type Seen, type Timeline } from './timeline.ts';

const DAY = SECONDS_PER_DAY;
/** A display with weekdays only cannot show a larger clock error. */
export const FARTHEST_AHEAD = 7.5 * DAY;
/** Common clock errors: half a day, an hour, whole days, a year (another weekday). */
const USUAL_ERRORS = [
  DAY / 2,
  -DAY / 2,
  3600,
  -3600,
  ...[1, 2, 3, 4, 5, 6].flatMap((days) => [days * DAY, -days * DAY]),
];

const roundTo = (n: number, step: number) => Math.round(n / step) * step;

/** Clock errors that would move a run of the timeline to a sighting, in whole minutes; and the common ones. */
export function clockErrors(seen: readonly Seen[], timeline: Timeline): number[] {
  const errors = new Set<number>(USUAL_ERRORS);
  for (const one of seen) {
    const runs = timeline.of(one.station);
    for (const moment of one.times === null ? momentsOf(one) : [])
      for (let i = firstFrom(runs, moment - FARTHEST_AHEAD); i < runs.length; i++) {
        const run = runs[i];
        if (!run || run.on > moment + FARTHEST_AHEAD) break;
        const error = roundTo(run.on - moment, 60);
        // People give times to five minutes, so an error close to a common one is that one.
        const usual = USUAL_ERRORS.find((each) => Math.abs(each - error) <= 180);
        if (Math.abs(usual ?? error) > 180) errors.add(usual ?? error);
      }
  }
  return [...errors];
}

const withDays = (program: string, days: Days): Cause => ({ type: 'days', program, days });

function otherDays({ letter, days }: Program): Cause[] {
  if (!days) return [];
  const causes: Cause[] = [];
  if (days.rule === 'odd' || days.rule === 'even') {
    const { rule, ...rest } = days;
    causes.push(withDays(letter, { ...rest, rule: rule === 'odd' ? 'even' : 'odd' }));
  }
  if (days.rule === 'weekdays' || days.rule === 'daily') {
    const on: readonly Weekday[] = days.rule === 'daily' ? WEEKDAYS : days.weekdays;
    const among = (pick: (weekday: Weekday, i: number) => boolean) => WEEKDAYS.filter(pick);
    for (const weekday of WEEKDAYS) {
      const flipped = among((one) => on.includes(one) !== (one === weekday));
      if (flipped.length > 0)
        causes.push(withDays(letter, { rule: 'weekdays', weekdays: flipped }));
    }
    // The first day of the week mistaken for another.
    if (days.rule === 'weekdays' && on.length > 0 && on.length < 7)
      for (const by of [1, 6])
        causes.push(
          withDays(letter, {
            rule: 'weekdays',
            weekdays: among((_, i) =>
              on.includes(assertDefined(WEEKDAYS[(i + by) % 7], 'WEEKDAYS[(i + by) % 7]')),
            ),
          }),
        );
    if (days.rule === 'weekdays' && on.length < 7) causes.push(withDays(letter, { rule: 'daily' }));
  }
  return causes;
}

function phases({ letter, days }: Program): Cause[] {
  if (days?.rule !== 'interval') return [];
  return Array.from({ length: Math.min(days.everyDays - 1, 13) }, (_, i) => ({
    type: 'phase' as const,
    program: letter,
    days: i + 1,
  }));
}

/** Percents to try: those that match, and the timer's steps, thinned to tens if finer. */
function percents(plan: Plan, seen: readonly Seen[]): number[] {
  const steps = percentSteps(plan.timer).filter((one) => one > 0);
  const coarse = steps.length <= 30 ? steps : steps.filter((one) => one % 10 === 0);
  return [...new Set([...percentsSeen(plan, seen), ...coarse])];
}

function percentCauses(plan: Plan, seen: readonly Seen[], month: number): Cause[] {
  const { scope } = plan.timer.seasonal;
  if (scope === 'none') return [];
  const all = percents(plan, seen);
  if (scope === 'timer') return all.map((percent) => ({ type: 'percent', percent }));
  return plan.programs.flatMap((program) =>
    all
      .filter((percent) => percent !== effectivePercent(plan, program, month))
      .map((percent): Cause => ({ type: 'percent', program: program.letter, percent })),
  );
}

/** Seconds from a program's start to the sighting, if the program caused it; without a station, of each that runs that long. */
function offsetsSeen(
  { saw, station, seconds, ranBefore }: Seen,
  program: Program,
  offsets: ReadonlyMap<number, number>,
): number[] {
  if (station === null) {
    const long = program.runs.filter(
      (run) => seconds !== null && Math.abs(run.seconds - seconds) <= 0.3 * seconds,
    );
    return [0, ...long.flatMap((run) => offsets.get(run.station) ?? [])];
  }
  const offset = offsets.get(station);
  if (offset === undefined) return [];
  const long = program.runs.find((run) => run.station === station)?.seconds ?? 0;
  // The dry span begins after the run.
  return saw === 'dry' && ranBefore ? [offset, offset + long] : [offset];
}

/** Starts of a program that would have watered what was seen, or cut it short, in the timer's step. */
function startsSeen(world: World, program: Program, seen: readonly Seen[]): string[] {
  const { plan, ahead } = world;
  const { startStepMinutes, onOverlap } = plan.timer;
  const step = startStepMinutes * 60;
  const starts = new Set<string>();
  const add = (shown: number) => {
    starts.add(formatTime(modulo(roundTo(shown, step), DAY)));
    // The cycle may have waited for its turn.
    if (onOverlap === 'queue') starts.add(formatTime(modulo(Math.floor(shown / step) * step, DAY)));
  };
  for (const one of seen) {
    for (const moment of momentsOf(one)) {
      const shown = moment + ahead;
      const offsets = offsetsOf(plan, program, monthOf(Math.floor(shown / DAY)));
      for (const offset of offsetsSeen(one, program, offsets)) add(shown - offset);
    }
    if (onOverlap === 'cut' && one.saw === 'ran' && one.seconds !== null)
      add(one.from + one.seconds + ahead);
  }
  return [...starts];
}

function startCauses(world: World, program: Program, seen: readonly Seen[]): Cause[] {
  const { letter, starts, days } = program;
  if (days?.rule === 'hours') return [];
  const pointed = startsSeen(world, program, seen).filter((start) => !starts.includes(start));
  const halfADay = starts.map((start) => ({
    start,
    to: formatTime(modulo(assertDefined(parseTime(start), 'parseTime(start)') + DAY / 2, DAY)),
  }));
  const others = [
    ...halfADay,
    ...starts.flatMap((start) => pointed.map((to) => ({ start, to }))),
  ].filter(({ to }) => !starts.includes(to));
  return [
    ...pointed.map((start): Cause => ({ type: 'extra-start', program: letter, start })),
    ...others.map(({ start, to }): Cause => ({ type: 'other-start', program: letter, start, to })),
  ];
}

/** Factory programs under an unused letter. */
function extraPrograms(plan: Plan, factory: Plan | null): Cause[] {
  const free = Array.from({ length: plan.timer.programCount }, (_, i) => letterAt(i)).find(
    (letter) => !plan.programs.some((program) => program.letter === letter),
  );
  if (free === undefined) return [];
  return (factory?.programs ?? []).map((program) => ({
    type: 'extra-program',
    program: { ...program, letter: free },
  }));
}

/** More stations than this do not fail at once. */
const MOST_DEAD = 2;

/** Stations that are dry: the reported one, or, if nothing ran, a few that should have. */
function keptDry({ station, from, to }: Seen, timeline: Timeline, ahead: number): number[] {
  if (station !== null) return [station];
  const due = timeline.within(null, from + ahead, (to ?? from) + ahead);
  const numbers = new Set(due.flatMap((run) => run.station ?? []));
  return numbers.size <= MOST_DEAD ? [...numbers] : [];
}

/** Days of a dry period to consider. */
const MOST_DRY_DAYS = 14;

/** With more cycles than this, only spans with the first or the last are tried. */
const ALL_CYCLES = 6;

/** A sensor that blocked the whole dry span, or some of the cycles due in it. */
function sensorCauses({ station, from, to }: Seen, timeline: Timeline, ahead: number): Cause[] {
  const end = to ?? from;
  const cycles = cyclesOf(timeline.within(station, from + ahead, end + ahead), timeline);
  const last = cycles.length - 1;
  const spans = cycles.flatMap((first, i) =>
    cycles
      .filter((_, k) => k >= i && (cycles.length <= ALL_CYCLES || i === 0 || k === last))
      .map((timeSpan) => ({ from: first.from - ahead - 60, to: timeSpan.to - ahead + 60 })),
  );
  return [{ from: from - 1, to: end + 1 }, ...spans].map((span) => ({ type: 'sensor', ...span }));
}

/** What prevents watering in the dry spans. */
function switchCauses({ plan, ahead }: World, seen: readonly Seen[], timeline: Timeline): Cause[] {
  const dry = seen.filter(({ saw }) => saw === 'dry');
  if (dry.length === 0) return [];
  const causes: Cause[] = [{ type: 'off' }];
  const lastDay = Math.ceil((Math.max(...dry.map(({ from, to }) => to ?? from)) + ahead) / DAY);
  const firstDay = Math.floor((Math.min(...dry.map(({ from }) => from)) + ahead) / DAY) + 1;
  for (let day = lastDay; day >= Math.max(firstDay, lastDay - MOST_DRY_DAYS); day--)
    causes.push({ type: 'rain-delay', until: formatDate(day) });
  if ((plan.settings.sensor ?? 'active') === 'active') {
    for (const seen of dry) causes.push(...sensorCauses(seen, timeline, ahead));
    // The span common to all of them.
    const from = Math.max(...dry.map((seen) => seen.from));
    const to = Math.min(...dry.map((seen) => seen.to ?? seen.from));
    if (dry.length > 1 && from < to) causes.push({ type: 'sensor', from: from - 1, to: to + 1 });
  }
  const numbers = new Set(dry.flatMap((seen) => keptDry(seen, timeline, ahead)));
  for (const station of numbers) causes.push({ type: 'dead-station', station });
  return causes;
}

/** Every single cause worth trying in a world, except clock errors and power cuts, which are derived from the timeline. */
export function candidates(
  world: World,
  seen: readonly Seen[],
  timeline: Timeline,
  factory: Plan | null,
): Cause[] {
  const { plan, ahead } = world;
  const watering = wateringStations(plan);
  const [first] = seen;
  const month = monthOf(Math.floor(((first?.from ?? 0) + ahead) / DAY));
  const complete = plan.programs.filter((program) => missingOf(program, watering).length === 0);
  return [
    ...complete.flatMap((program): Cause[] => [
      ...startCauses(world, program, seen),
      ...phases(program),
      ...otherDays(program),
      { type: 'half-set', program: program.letter },
    ]),
    ...runCauses(world, seen, timeline, complete),
    ...percentCauses(plan, seen, month),
    ...extraPrograms(plan, factory),
    ...switchCauses(world, seen, timeline),
    ...eventCauses(world, seen, timeline),
  ];
}
