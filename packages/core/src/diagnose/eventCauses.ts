/** One-time actions of people and power, with their consequences: the moments to try, from the sightings. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  monthOf,
  parseMoment,
  SECONDS_PER_DAY as DAY,
  type ClockSecond,
} from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import { CLOCK_AFTER_RESET } from '../simulatedTimer/power.ts';
import { effectivePercent } from '../plan/program.ts';
import type { Plan } from '../plan/plan.ts';
import { asNoted, MANUAL_SECONDS, type Cause, type World } from './causes.ts';
import { momentsOf, offsetsOf, percentsSeen } from './pointers.ts';
import { cyclesOf, misfitOf, Timeline, type Seen, type SeenRun } from './timeline.ts';

/** A sighting that costs less is explained, nats. */
const FITS = 1;
/** Precision with which people give times, seconds. */
const NAMED_TO = 300;
const toMinute = (moment: ClockSecond) => Math.round(moment / 60) * 60;
/** Seconds before a prevented run at which the power is cut. */
const JUST_BEFORE = 600;
/** An outage of unknown length. */
const AN_OUTAGE = 3600;
/** People remember longer outages. */
const LONGEST_OUTAGE = 1.5 * DAY;
/** A run starting this close to the time was the one seen, seconds. */
const IN_TIME = 900;
/** A run shorter by less than this was not cut. */
const CUT_SHORT = 90;
/** Days after a clock reset on which it still shows. */
const DAYS_AFTER_RESET = 10;

/** Days between an outage and a sighting that still shows it. */
const REMEMBERED_DAYS = 60;

/** End of a current run, by a person or by the power. */
const endedAt = (at: ClockSecond): Cause[] => [
  { type: 'stopped', at },
  { type: 'outage', from: at, to: at + AN_OUTAGE },
];

/** A manual run of a station when it was seen; for "twice in the night", at any hour of it. */
function byHand({ ahead }: World, seen: Seen, timeline: Timeline): Cause[] {
  const { saw, from, to, times, station, seconds } = seen;
  if (saw === 'ran' && to !== null && times === null) return [];
  const moments =
    to === null || saw === 'dry' ? momentsOf(seen) : [Math.round((from + to) / 7200) * 3600];
  // People give times to five minutes: it may have met a run that begins just after, or ended before one that begins just then.
  const met = moments.flatMap((at) =>
    timeline
      .within(null, at + ahead - NAMED_TO, at + ahead + NAMED_TO)
      .map(({ on }) => on - ahead + 60)
      .filter((on) => Math.abs(on - at) <= NAMED_TO),
  );
  return [...new Set([...moments, ...met])].map((at) => ({
    ...{ type: 'manual', station, at },
    seconds: seconds ?? MANUAL_SECONDS,
  }));
}

/** A manual cycle of each program, timed so that the station runs when it was seen. */
function programsByHand({ plan, ahead }: World, one: Seen): Cause[] {
  if (one.saw !== 'ran' || one.times !== null) return [];
  const [moment] = momentsOf(one);
  if (moment === undefined) return [];
  const month = monthOf(Math.floor((moment + ahead) / DAY));
  return plan.programs.flatMap((program): Cause[] => {
    const offsets = offsetsOf(plan, program, month);
    const offset = one.station === null ? 0 : offsets.get(one.station);
    return offset === undefined || offsets.size === 0
      ? []
      : [{ type: 'manual-program', program: program.letter, at: toMinute(moment - offset) }];
  });
}

/** Runs seen to end too soon, and the cycle that stopped before its turn. */
function cutCauses(world: World, one: Seen, timeline: Timeline): Cause[] {
  const { ahead } = world;
  const shown = one.from + ahead;
  if (one.saw === 'ran') {
    const told = one.seconds;
    if (told === null || one.station === null) return [];
    return timeline
      .within(one.station, shown - IN_TIME, shown + IN_TIME)
      .filter(({ on, off }) => Math.abs(on - shown) < IN_TIME && off - on > told + CUT_SHORT)
      .flatMap(({ on }) => endedAt(toMinute(on + told - ahead)));
  }
  if (one.station === null) return [];
  const due = timeline.within(one.station, shown, (one.to ?? one.from) + ahead);
  const [first] = due;
  // A press ends one cycle, not the next.
  return first && cyclesOf(due, timeline).length === 1
    ? [{ type: 'stopped', at: toMinute(first.on - ahead - 60) }]
    : [];
}

/** What kept a period dry that began and ended within the sightings. */
function drySpell({ ahead }: World, one: Seen, timeline: Timeline): Cause[] {
  if (one.saw !== 'dry') return [];
  const cycles = cyclesOf(
    timeline.within(one.station, one.from + ahead, (one.to ?? one.from) + ahead),
    timeline,
  );
  const [first, last] = [cycles[0], cycles.at(-1)];
  if (!first || !last) return [];
  const causes: Cause[] = [];
  const [from, to] = [first.from - ahead - JUST_BEFORE, last.from - ahead + JUST_BEFORE];
  if (to - from <= LONGEST_OUTAGE) causes.push({ type: 'outage', from, to });
  if (one.ranBefore) {
    // Days of a rain delay count from the moment it is set.
    const at = toMinute(one.from + AN_OUTAGE);
    const days = Math.max(1, Math.ceil((last.from - ahead - at) / DAY));
    causes.push({ type: 'rain-delay-set', at, hours: 24 * days });
  }
  return causes;
}

/** The timer's runs after a reset, by its own clock. */
function afterReset({ plan, factory }: World, reset: ClockSecond): readonly SeenRun[] {
  const then = plan.timer.powerLoss?.settings === 'factory' ? factory : plan;
  const made = attempt(
    () => then && new Timeline(asNoted(then, 0), reset, reset + DAYS_AFTER_RESET * DAY),
  );
  return made.ok ? (made.value?.runs ?? []).filter(({ on }) => on >= reset) : [];
}

const resetOf = ({ timer }: Plan): ClockSecond =>
  assertDefined(parseMoment(timer.clockAfterReset ?? CLOCK_AFTER_RESET), 'parseMoment');

/** An outage after which the timer's clock makes something run when it was seen. */
function clockLost(world: World, one: Seen, timeline: Timeline): Cause[] {
  const { plan, ahead } = world;
  const clock = plan.timer.powerLoss?.clock ?? 'kept';
  if (one.saw !== 'ran' || one.to !== null || clock === 'kept') return [];
  if (clock === 'resets') {
    const reset = resetOf(plan);
    return afterReset(world, reset)
      .filter(({ station }) => one.station === null || station === one.station)
      .map(({ on }) => toMinute(one.from - (on - reset)))
      .map((to) => ({ type: 'outage', from: to - AN_OUTAGE, to }));
  }
  // It stopped for as long as the run was late.
  const shown = one.from + ahead;
  return timeline
    .within(one.station, shown - DAY, shown)
    .filter(({ on }) => shown - on > IN_TIME)
    .flatMap((due) => {
      const [cycle] = cyclesOf([due], timeline);
      const to = toMinute((cycle ?? { from: due.on }).from - ahead - JUST_BEFORE + shown - due.on);
      return [{ type: 'outage' as const, from: to - toMinute(shown - due.on), to }];
    });
}

/** Someone changed the percent between two sightings. */
function percentChanges({ plan, ahead }: World, seen: readonly Seen[]): Cause[] {
  const { seasonal } = plan.timer;
  if (seasonal.scope !== 'timer' || plan.settings.monthlyPercent !== undefined) return [];
  const [one] = seen;
  const [program] = plan.programs;
  if (!one || !program) return [];
  const noted = effectivePercent(plan, program, monthOf(Math.floor((one.from + ahead) / DAY)));
  const moments = [...seen].map(({ from }) => from).sort((a, b) => a - b);
  const between = moments.flatMap((moment, i) => {
    const next = moments[i + 1];
    return next === undefined || next - moment < DAY / 4 ? [] : [toMinute((moment + next) / 2)];
  });
  const others = [...new Set(percentsSeen(plan, seen))].filter((percent) => percent !== noted);
  return others.flatMap((percent) =>
    between.flatMap((at): Cause[] => [
      { type: 'percent-changed', at, before: noted, after: percent },
      { type: 'percent-changed', at, before: percent, after: noted },
    ]),
  );
}

/** Causes that are one press, or one outage, at a moment suggested by sightings that do not fit. */
export function eventCauses(world: World, seen: readonly Seen[], timeline: Timeline): Cause[] {
  const unexplained = seen.filter((one) => misfitOf(one, timeline, world) > FITS);
  if (unexplained.length === 0) return [];
  return [
    ...unexplained.flatMap((one) => [
      ...byHand(world, one, timeline),
      ...programsByHand(world, one),
      ...cutCauses(world, one, timeline),
      ...drySpell(world, one, timeline),
      ...clockLost(world, one, timeline),
    ]),
    ...percentChanges(world, seen),
  ];
}

/**
 * Outages that leave the clock as found, if it was right before.
 *
 * @param ahead seconds by which it was found ahead
 */
export function outagesBehind(plan: Plan, seen: readonly Seen[], ahead: number): Cause[] {
  const clock = plan.timer.powerLoss?.clock ?? 'kept';
  if (clock === 'resets') {
    const to = toMinute(resetOf(plan) - ahead);
    const isRecent = seen.some(({ from }) => Math.abs(from - to) < REMEMBERED_DAYS * DAY);
    if (!isRecent) return [];
    return [{ type: 'outage', from: to - AN_OUTAGE, to }];
  }
  if (clock !== 'stops' || ahead >= 0) return [];
  return seen.map(({ from }) => {
    const to = toMinute(from - JUST_BEFORE * 6);
    return { type: 'outage', from: to + ahead, to };
  });
}
