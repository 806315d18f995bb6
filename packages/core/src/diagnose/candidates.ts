/** What may have gone wrong, given what was seen: every setting of the plan, with the values that a sighting points to. */
import {
  formatDate,
  formatTime,
  monthOf,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  type Weekday,
} from '../calendar.ts';
import { cycleShape } from '../cycle.ts';
import { modulo } from '../days.ts';
import { letterAt, type Days, type Plan, type Program } from '../plan.ts';
import { effectivePercent, enabledStations, missingOf, percentSteps } from '../program.ts';
import { MANUAL_SECONDS, type Slip, type World } from './slips.ts';
import { firstFrom, type Seen, type Timeline } from './timeline.ts';

const DAY = SECONDS_PER_DAY;
/** A clock further out than this shows in the weekday as one that is nearer. */
export const FARTHEST_AHEAD = 7.5 * DAY;
/** Errors that clocks have by themselves: half a day, an hour, whole days, a year (another weekday). */
const USUAL_ERRORS = [
  DAY / 2,
  -DAY / 2,
  3600,
  -3600,
  ...[1, 2, 3, 4, 5, 6].flatMap((days) => [days * DAY, -days * DAY]),
];

const roundTo = (n: number, step: number) => Math.round(n / step) * step;

/** Errors of the clock that would bring a run of the timeline to where one was seen, in whole minutes; and the usual ones. */
export function clockErrors(seen: readonly Seen[], timeline: Timeline): number[] {
  const errors = new Set<number>(USUAL_ERRORS);
  for (const one of seen) {
    if (one.saw !== 'ran' || one.to !== null) continue;
    const runs = timeline.of(one.station);
    for (let i = firstFrom(runs, one.from - FARTHEST_AHEAD); i < runs.length; i++) {
      const run = runs[i];
      if (!run || run.on > one.from + FARTHEST_AHEAD) break;
      const error = roundTo(run.on - one.from, 60);
      // Named to five minutes, so what is close to a usual error is that one.
      const usual = USUAL_ERRORS.find((each) => Math.abs(each - error) <= 180);
      if (Math.abs(usual ?? error) > 180) errors.add(usual ?? error);
    }
  }
  return [...errors];
}

/** Seconds from a start to each station's first run, by the percent of a month. */
function offsetsOf(plan: Plan, program: Program, month: number): ReadonlyMap<number, number> {
  const offsets = new Map<number, number>();
  const percent = effectivePercent(plan, program, month);
  for (const { station, on } of cycleShape(plan, program, percent).runs)
    if (!offsets.has(station)) offsets.set(station, on);
  return offsets;
}

const withDays = (program: string, days: Days): Slip => ({ type: 'days', program, days });

function otherDays({ letter, days }: Program): Slip[] {
  if (!days) return [];
  const slips: Slip[] = [];
  if (days.rule === 'odd' || days.rule === 'even') {
    const { rule, ...rest } = days;
    slips.push(withDays(letter, { ...rest, rule: rule === 'odd' ? 'even' : 'odd' }));
  }
  if (days.rule === 'weekdays' || days.rule === 'daily') {
    const on: readonly Weekday[] = days.rule === 'daily' ? WEEKDAYS : days.weekdays;
    const among = (pick: (weekday: Weekday, i: number) => boolean) => WEEKDAYS.filter(pick);
    for (const weekday of WEEKDAYS) {
      const flipped = among((one) => on.includes(one) !== (one === weekday));
      if (flipped.length > 0) slips.push(withDays(letter, { rule: 'weekdays', weekdays: flipped }));
    }
    // The first day of the week taken for another one.
    if (days.rule === 'weekdays' && on.length > 0 && on.length < 7)
      for (const by of [1, 6])
        slips.push(
          withDays(letter, {
            rule: 'weekdays',
            weekdays: among((_, i) => on.includes(WEEKDAYS[(i + by) % 7] ?? 'mon')),
          }),
        );
    if (days.rule === 'weekdays' && on.length < 7) slips.push(withDays(letter, { rule: 'daily' }));
  }
  return slips;
}

function phases({ letter, days }: Program): Slip[] {
  if (days?.rule !== 'interval') return [];
  return Array.from({ length: Math.min(days.everyDays - 1, 13) }, (_, i) => ({
    type: 'phase' as const,
    program: letter,
    days: i + 1,
  }));
}

/** Percents tried: the timer's own steps, thinned to tens where they are finer. */
function percents(plan: Plan, seen: readonly Seen[]): number[] {
  const steps = percentSteps(plan.timer).filter((one) => one > 0);
  const told = seen.flatMap(({ station, seconds }) =>
    station === null || seconds === null
      ? []
      : plan.programs.flatMap(({ runs }) =>
          runs
            .filter((run) => run.station === station && run.seconds > 0)
            .map((run) => (seconds * 100) / run.seconds),
        ),
  );
  const near = told.flatMap((percent) =>
    [...steps].sort((a, b) => Math.abs(a - percent) - Math.abs(b - percent)).slice(0, 2),
  );
  const coarse = steps.length <= 30 ? steps : steps.filter((one) => one % 10 === 0);
  return [...new Set([...coarse, ...near])];
}

function percentSlips(plan: Plan, seen: readonly Seen[], month: number): Slip[] {
  const { scope } = plan.timer.seasonal;
  if (scope === 'none') return [];
  const all = percents(plan, seen);
  if (scope === 'timer') return all.map((percent) => ({ type: 'percent', percent }));
  return plan.programs.flatMap((program) =>
    all
      .filter((percent) => percent !== effectivePercent(plan, program, month))
      .map((percent): Slip => ({ type: 'percent', program: program.letter, percent })),
  );
}

/** Moments at which a run can have begun that somebody saw; of "twice in the night" every hour of it. */
function momentsOf({ saw, from, to, times }: Seen): number[] {
  if (saw !== 'ran') return [];
  if (to === null) return [from];
  const hours = Math.min(24, Math.floor((to - from) / 3600));
  return times === null ? [] : Array.from({ length: hours }, (_, i) => from + i * 3600);
}

/** Starts of a program that would have watered what was seen, on the timer's own step. */
function startsSeen(world: World, program: Program, seen: readonly Seen[]): string[] {
  const { plan, ahead } = world;
  const step = plan.timer.startStepMinutes * 60;
  const starts = new Set<string>();
  for (const one of seen)
    for (const moment of momentsOf(one)) {
      const shown = moment + ahead;
      const offsets = offsetsOf(plan, program, monthOf(Math.floor(shown / DAY)));
      const offset = one.station === null ? 0 : offsets.get(one.station);
      if (offset === undefined) continue;
      starts.add(formatTime(modulo(roundTo(shown - offset, step), DAY)));
    }
  return [...starts];
}

function startSlips(world: World, program: Program, seen: readonly Seen[]): Slip[] {
  const { letter, starts, days } = program;
  if (days?.rule === 'hours') return [];
  const pointed = startsSeen(world, program, seen).filter((start) => !starts.includes(start));
  const halfADay = starts.map((start) => ({
    start,
    to: formatTime(modulo((parseTime(start) ?? 0) + DAY / 2, DAY)),
  }));
  const others = [
    ...halfADay,
    ...starts.flatMap((start) => pointed.map((to) => ({ start, to }))),
  ].filter(({ to }) => !starts.includes(to));
  return [
    ...pointed.map((start): Slip => ({ type: 'extra-start', program: letter, start })),
    ...others.map(({ start, to }): Slip => ({ type: 'other-start', program: letter, start, to })),
  ];
}

/** Run times that would make a run as long as it was seen, or let a later one begin when it was seen. */
function runSlips(
  world: World,
  program: Program,
  seen: readonly Seen[],
  timeline: Timeline,
): Slip[] {
  const { plan, ahead } = world;
  const { runStepSeconds: step, longestRunSeconds: longest } = plan.timer;
  const found = new Map<string, Slip>();
  const add = (station: number, seconds: number) => {
    const rounded = Math.min(longest, Math.max(0, roundTo(seconds, step)));
    const present = program.runs.find((run) => run.station === station)?.seconds;
    if (present === undefined || present === rounded) return;
    found.set(`${station} ${rounded}`, {
      type: 'run',
      program: program.letter,
      station,
      seconds: rounded,
    });
  };
  for (const one of seen) {
    const own = program.runs.findIndex(({ station }) => station === one.station);
    const run = program.runs[own];
    if (!run) continue;
    if (one.saw === 'dry') add(run.station, 0);
    if (one.seconds !== null) {
      const percent = effectivePercent(
        plan,
        program,
        monthOf(Math.floor((one.from + ahead) / DAY)),
      );
      if (percent > 0) add(run.station, (one.seconds * 100) / percent);
    }
    if (one.saw !== 'ran' || one.to !== null) continue;
    // It began later or earlier than it should: then a station before it runs longer or shorter.
    for (const near of timeline.within(
      run.station,
      one.from + ahead - 10_800,
      one.from + ahead + 10_800,
    )) {
      const late = one.from + ahead - near.on;
      if (Math.abs(late) < 240) continue;
      for (const before of program.runs.slice(0, own)) add(before.station, before.seconds + late);
    }
  }
  return [...found.values()];
}

/** Programs from the factory under a letter that is not in use. */
function extraPrograms(plan: Plan, factory: Plan | null): Slip[] {
  const free = Array.from({ length: plan.timer.programCount }, (_, i) => letterAt(i)).find(
    (letter) => !plan.programs.some((one) => one.letter === letter),
  );
  if (free === undefined) return [];
  return (factory?.programs ?? []).map((program) => ({
    type: 'extra-program',
    program: { ...program, letter: free },
  }));
}

/** So many days of a dry spell are gone into. */
const MOST_DRY_DAYS = 14;

/** What keeps water away in the spans in which none was seen, and what brings it at moments at which some was. */
function switchSlips(plan: Plan, seen: readonly Seen[], ahead: number): Slip[] {
  const dry = seen.filter(({ saw }) => saw === 'dry');
  const slips: Slip[] = seen.flatMap(({ saw, from, to, times, station, seconds }): Slip[] => {
    if (saw !== 'ran' || (to !== null && times === null)) return [];
    const at = to === null ? from : roundTo((from + to) / 2, 3600);
    return [{ type: 'manual', station, at, seconds: seconds ?? MANUAL_SECONDS }];
  });
  if (dry.length === 0) return slips;
  slips.push({ type: 'off' });
  const lastDay = Math.ceil((Math.max(...dry.map(({ from, to }) => to ?? from)) + ahead) / DAY);
  const firstDay = Math.floor((Math.min(...dry.map(({ from }) => from)) + ahead) / DAY) + 1;
  for (let day = lastDay; day >= Math.max(firstDay, lastDay - MOST_DRY_DAYS); day--)
    slips.push({ type: 'rain-delay', until: formatDate(day) });
  if ((plan.settings.sensor ?? 'active') === 'active')
    for (const { from, to: end } of dry) {
      const to = end ?? from;
      slips.push({ type: 'sensor', from: from - 1, to: to + 1 });
      // Or a part of it only, the rest being dry by itself.
      for (let at = from; at < to && at < from + MOST_DRY_DAYS * DAY; at += DAY)
        for (const days of [1, 2, 3]) slips.push({ type: 'sensor', from: at, to: at + days * DAY });
    }
  const numbers = new Set(dry.flatMap(({ station }) => (station === null ? [] : [station])));
  for (const station of numbers) slips.push({ type: 'dead-station', station });
  return slips;
}

/**
 * Every single slip worth trying in a world, clock errors and the power failure apart: those have their errors from the
 * timeline itself.
 */
export function candidates(
  world: World,
  seen: readonly Seen[],
  timeline: Timeline,
  factory: Plan | null,
): Slip[] {
  const { plan, ahead } = world;
  const enabled = enabledStations(plan);
  const [first] = seen;
  const month = monthOf(Math.floor(((first?.from ?? 0) + ahead) / DAY));
  const complete = plan.programs.filter((one) => missingOf(one, enabled).length === 0);
  return [
    ...complete.flatMap((program): Slip[] => [
      ...startSlips(world, program, seen),
      ...phases(program),
      ...otherDays(program),
      ...runSlips(world, program, seen, timeline),
      { type: 'half-set', program: program.letter },
    ]),
    ...percentSlips(plan, seen, month),
    ...extraPrograms(plan, factory),
    ...switchSlips(plan, seen, ahead),
  ];
}
