/** Why the plan is as it is, number by number: each reason with its part of the brief. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, type BriefStation, wishOf } from '../brief/brief.ts';
import { formatTime, parseTime, SECONDS_PER_DAY, type Weekday } from '../time/calendar.ts';
import { shapeAt } from '../engine/cycle.ts';
import { cycleModel } from '../engine/cycleModel.ts';
import { Effort } from '../engine/effort.ts';
import { EVERY_WEEKDAY, modulo, type Days, weekdaysOfMask } from '../time/dayRules.ts';
import type { Path } from '../document/fault.ts';
import { joinedRuns } from '../engine/wetStarts.ts';
import { meanWeeklySeconds } from '../engine/weeklyWater.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { outsideSpan, spanOf } from '../brief/span.ts';
import {
  countsForTimes,
  isBound,
  mowingMask,
  NEED_TOLERANCE,
  daysWanted,
  highPercent,
} from '../brief/wanted.ts';
import { adjustedSeconds } from '../plan/program.ts';
import { breachOf, type Breach } from './verify.ts';
import { datesOfProgram } from '../plan/starts.ts';

export type Reason = {
  /** Its source in the brief. */
  readonly path: Path;
  readonly program?: string;
  readonly station?: number;
} & (
  | {
      readonly kind: 'days';
      readonly days: Days;
      /** Dates a week. */
      readonly dates: number;
      /** The station with the highest minimum of dates, and the one with the lowest maximum. */
      readonly least: { readonly station: number; readonly days: number } | null;
      readonly most: { readonly station: number; readonly days: number } | null;
      readonly allowed: readonly Weekday[] | null;
      readonly parity: 'odd' | 'even' | null;
      readonly mown: readonly Weekday[];
    }
  | { readonly kind: 'one-program'; readonly stations: number }
  | {
      readonly kind: 'programs';
      readonly count: number;
      /** Stations whose days exclude each other; null: not the reason. */
      readonly days: readonly [DaysWanted, DaysWanted] | null;
      readonly apart: readonly [string, string] | null;
      /** Groups kept apart because programs follow need; empty: not the reason. */
      readonly byNeed: readonly string[];
    }
  | { readonly kind: 'one-start' }
  | {
      readonly kind: 'starts';
      readonly count: number;
      /** The longest run without a break, seconds; null: it has several waterings a day. */
      readonly stretch: number | null;
    }
  | {
      readonly kind: 'start';
      readonly start: string;
      readonly ends: number;
      /** The same at the high percent, at which everything must finish in time. */
      readonly endsHigh: number;
      /** Why not one step later. */
      readonly later: Breach['code'] | 'outside' | 'finish' | 'free';
      /** The program it would run into. */
      readonly into: string | null;
    }
  | {
      readonly kind: 'run';
      readonly seconds: number;
      readonly weekly: number;
      readonly runsAWeek: number;
      readonly given: number;
      /** Why it is off by more than a tenth; null: it is not. */
      readonly off: OffCause | null;
    }
  | {
      readonly kind: 'split';
      readonly pieces: readonly number[];
      readonly stretch: number;
      readonly soak: number;
    }
  | { readonly kind: 'headroom'; readonly percent: number }
  | { readonly kind: 'outside'; readonly minutes: number }
);

/** What limits a run: the time after which water runs off, the timer's longest run or its step, or the available time. */
export type OffCause = 'stretch' | 'longest' | 'step' | 'room';

interface DaysWanted {
  readonly station: number;
  readonly least: number;
  readonly most: number;
}

/**
 * All reasons: about programs first, then each program's own.
 *
 * @throws TooMuchWork
 */
export function reasonsOf(brief: Brief, plan: Plan, outsideMinutes: number): Reason[] {
  const reasons: Reason[] = [programsReason(brief, plan)];
  const given = meanWeeklySeconds(plan);
  for (const program of plan.programs) {
    reasons.push(daysReason(brief, plan, program), ...startReasons(brief, plan, program));
    for (const { station, seconds } of program.runs)
      reasons.push(
        ...runReasons(
          brief,
          plan,
          program,
          station,
          seconds,
          assertDefined(given.get(station), 'given.get(station)'),
        ),
      );
  }
  if (outsideMinutes > 0)
    reasons.push({ kind: 'outside', minutes: outsideMinutes, path: ['wish', 'finishBy'] });
  if (plan.programs.length > 0)
    reasons.push({
      kind: 'headroom',
      percent: wishOf(brief).headroomPercent,
      path: ['wish', 'headroomPercent'],
    });
  return reasons;
}

const placeOf = ({ stations }: Brief, station: number) =>
  stations.findIndex(({ number }) => number === station);

const stationsOf = (brief: Brief, { runs }: Program): BriefStation[] =>
  brief.stations.filter(({ number }) => runs.some(({ station }) => station === number));

function programsReason(brief: Brief, plan: Plan): Reason {
  const watered = brief.stations.filter(({ weeklySeconds }) => weeklySeconds > 0);
  if (plan.programs.length <= 1)
    return { kind: 'one-program', stations: watered.length, path: ['stations'] };
  const wanted = watered.flatMap((station) => {
    const days = daysWanted(brief, station);
    return days ? [{ station: station.number, ...days }] : [];
  });
  const pair = wanted
    .flatMap((a) => wanted.map((b) => [a, b] as const))
    .find(([a, b]) => a.most < b.least);
  const groups = new Set(watered.map(({ group }) => group));
  const apart = wishOf(brief).apart.find(([a, b]) => groups.has(a) && groups.has(b)) ?? null;
  const days = pair ?? null;
  const named = [...groups].filter((group) => group !== undefined);
  const byNeed = wishOf(brief).programs === 'by-need' && groups.size > 1 ? named : [];
  return {
    kind: 'programs',
    count: plan.programs.length,
    days,
    apart: days ? null : apart,
    byNeed: days || apart ? [] : byNeed,
    path: days
      ? ['stations', placeOf(brief, days[0].station), 'days']
      : apart
        ? ['wish', 'apart']
        : byNeed.length > 0
          ? ['wish', 'programs']
          : ['wish', 'finishBy'],
  };
}

function daysReason(brief: Brief, plan: Plan, program: Program): Reason {
  const members = stationsOf(brief, program);
  const days = assertDefined(program.days, 'program.days');
  let least: { station: number; days: number } | null = null;
  let most: { station: number; days: number } | null = null;
  for (const member of members) {
    const { number } = member;
    const own = daysWanted(brief, member);
    if (own && own.least > (least?.days ?? 1)) least = { station: number, days: own.least };
    if (own && own.most < (most?.days ?? 7)) most = { station: number, days: own.most };
  }
  const bound = members.some(({ overhead = true }) => isBound(brief, overhead));
  const mown = members.some(({ overhead = true }) => overhead) ? mowingMask(brief) : 0;
  const { weekdays, parity } = brief.rules ?? {};
  const allowed = bound ? (weekdays ?? null) : null;
  const source = most ?? least;
  return {
    kind: 'days',
    program: program.letter,
    days,
    dates: datesOfProgram(plan, program).mean,
    least,
    most,
    allowed,
    parity: bound ? (parity ?? null) : null,
    mown: weekdaysOfMask(mown & EVERY_WEEKDAY),
    path: source
      ? ['stations', placeOf(brief, source.station), 'days']
      : allowed
        ? ['rules', 'weekdays']
        : ['wish', 'days'],
  };
}

function startReasons(brief: Brief, plan: Plan, program: Program): Reason[] {
  const { letter, starts } = program;
  const count = starts.length;
  const reasons: Reason[] = [];
  if (count <= 1) reasons.push({ kind: 'one-start', program: letter, path: ['wish', 'starts'] });
  else {
    const long = stationsOf(brief, program)
      .filter(
        ({ cycleSeconds, oftenADay }) => cycleSeconds !== undefined || oftenADay !== undefined,
      )
      .sort(
        (a, b) =>
          Number(b.oftenADay !== undefined) - Number(a.oftenADay !== undefined) ||
          b.weeklySeconds / (b.cycleSeconds ?? 1) - a.weeklySeconds / (a.cycleSeconds ?? 1),
      )[0];
    const base = { kind: 'starts', program: letter, count } as const;
    if (!long) reasons.push({ ...base, stretch: null, path: ['wish', 'starts'] });
    else {
      const { number: station, oftenADay, cycleSeconds = null } = long;
      reasons.push({
        ...base,
        station,
        stretch: oftenADay ? null : cycleSeconds,
        path: ['stations', placeOf(brief, station), oftenADay ? 'oftenADay' : 'cycleSeconds'],
      });
    }
  }
  const model = cycleModel(plan, program);
  const lengths = [100, highPercent(brief)].map(
    (percent) => shapeAt(model, percent, new Effort()).seconds,
  );
  for (const start of starts) reasons.push(startReason(brief, plan, program, start, lengths));
  return reasons;
}

/** Why a start is not one step later: what would be wrong then. */
function startReason(
  brief: Brief,
  plan: Plan,
  program: Program,
  start: string,
  [length = 0, high = 0]: readonly number[],
): Reason {
  const second = assertDefined(parseTime(start), 'parseTime(start)');
  const step = brief.timer.startStepMinutes * 60;
  const ends = second + length;
  const endsHigh = second + high;
  const finish = assertDefined(
    parseTime(wishOf(brief).finishBy),
    'parseTime(wishOf(brief).finishBy)',
  );
  const by = second + (modulo(finish - second, SECONDS_PER_DAY) || SECONDS_PER_DAY);
  const base = { kind: 'start', program: program.letter, start, ends, endsHigh } as const;
  const { notBefore, finishBy } = wishOf(brief);
  const isCounted = stationsOf(brief, program).some((station) => countsForTimes(brief, station));
  if (isCounted && outsideSpan(spanOf(notBefore, finishBy), second, endsHigh) > 0)
    return { ...base, later: 'outside', into: null, path: ['wish', 'finishBy'] };
  if (endsHigh + step > by)
    return { ...base, later: 'finish', into: null, path: ['wish', 'finishBy'] };
  const moved = formatTime((second + step) % SECONDS_PER_DAY);
  const later = {
    ...plan,
    programs: plan.programs.map((one) =>
      one === program
        ? { ...one, starts: one.starts.map((other) => (other === start ? moved : other)).sort() }
        : one,
    ),
  };
  const breach = breachOf(brief, later);
  const next = plan.programs
    .flatMap(({ letter, starts }) =>
      starts.map((other) => ({
        letter,
        after: modulo(
          assertDefined(parseTime(other), 'parseTime(other)') - second,
          SECONDS_PER_DAY,
        ),
      })),
    )
    .filter(({ after }) => after > 0)
    .sort((a, b) => a.after - b.after)[0];
  const path: Path =
    breach?.code === 'forbidden-hour'
      ? ['rules', 'noWaterWindows']
      : breach?.code === 'mowing-day'
        ? ['mowing']
        : ['wish', 'headroomPercent'];
  return {
    ...base,
    later: breach?.code ?? 'free',
    into: breach?.code === 'overlap' ? (next?.letter ?? null) : null,
    path,
  };
}

/** Why a run is off its need, if it is. */
function offCause(
  { timer }: Brief,
  { weeklySeconds, cycleSeconds = Infinity }: BriefStation,
  seconds: number,
  given: number,
): OffCause | null {
  if (Math.abs(given - weeklySeconds) <= NEED_TOLERANCE * weeklySeconds + 1e-6) return null;
  const next = seconds + timer.runStepSeconds;
  const runs = given / Math.max(1, seconds);
  // The next run up or down would be as far off on the other side.
  const isCoarse = timer.runStepSeconds * runs > 2 * NEED_TOLERANCE * weeklySeconds;
  if (given > weeklySeconds) return isCoarse ? 'step' : 'room';
  if (next > timer.longestRunSeconds) return 'longest';
  if (adjustedSeconds(next, 100, timer.seasonal) > cycleSeconds) return 'stretch';
  return isCoarse ? 'step' : 'room';
}

function runReasons(
  brief: Brief,
  plan: Plan,
  program: Program,
  station: number,
  seconds: number,
  given: number,
): Reason[] {
  const place = placeOf(brief, station);
  const own = brief.stations[place];
  if (!own) return [];
  const base = { program: program.letter, station } as const;
  const runSeconds = Math.max(1, seconds);
  const reasons: Reason[] = [
    {
      ...base,
      kind: 'run',
      seconds,
      weekly: own.weeklySeconds,
      runsAWeek: given / runSeconds,
      given,
      off: offCause(brief, own, seconds, given),
      path: ['stations', place, 'weeklySeconds'],
    },
  ];
  const { runs } = shapeAt(cycleModel(plan, program), 100, new Effort());
  const pieces = joinedRuns(runs.filter((run) => run.station === station)).map(
    ({ on, off }) => off - on,
  );
  if (own.cycleSeconds !== undefined && pieces.length > 1)
    reasons.push({
      ...base,
      kind: 'split',
      pieces,
      stretch: own.cycleSeconds,
      soak: own.soakSeconds ?? 0,
      path: ['stations', place, 'cycleSeconds'],
    });
  return reasons;
}
