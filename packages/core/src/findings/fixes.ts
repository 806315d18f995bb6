/** Fixes by one press. A fix is an ordinary change: one step, undoable. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  formatTime,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type EpochDay,
  type Weekday,
  parseDate,
} from '../time/calendar.ts';
import { blockedStarts } from '../engine/blockedStarts.ts';
import type { PlanChange } from '../plan/change.ts';
import { attempt, Effort } from '../engine/effort.ts';
import { greatestCommonDivisor, type Days } from '../time/dayRules.ts';
import { meanDatesOf } from '../engine/weeklyWater.ts';
import { startsOf } from '../plan/starts.ts';
import { Meetings } from '../time/meetings.ts';
import type { Brief } from '../brief/brief.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { nearestRun } from '../brief/runChoices.ts';
import type { Finding } from './finding.ts';
import { splitByStarts } from './splitByStarts.ts';

export type FixWhat =
  | { readonly what: 'keep-one-start'; readonly start: string }
  | { readonly what: 'move-start'; readonly start: string; readonly to: string }
  | { readonly what: 'clear-program'; readonly program: string }
  | { readonly what: 'take-out-run'; readonly programs: readonly string[] }
  | { readonly what: 'set-run'; readonly seconds: number }
  | { readonly what: 'pump-on' }
  | { readonly what: 'ignore-sensor' }
  | { readonly what: 'obey-sensor' }
  | { readonly what: 'sensor-active' }
  | { readonly what: 'percent-100' }
  | { readonly what: 'end-rain-delay' }
  | { readonly what: 'switch-on' }
  | {
      readonly what: 'split';
      readonly program: string;
      readonly pieceSeconds: number;
      readonly soakSeconds: number;
    }
  | { readonly what: 'more-starts'; readonly starts: readonly string[] }
  | { readonly what: 'without-weekday'; readonly weekday: Weekday }
  | { readonly what: 'even-dates' };

export interface Fix {
  readonly change: PlanChange;
  readonly does: FixWhat;
}

/**
 * The fix of a finding; null if only a person can decide.
 *
 * @param brief the one used for the finding; null: none
 */
export function fixOf(plan: Plan, finding: Finding, on: EpochDay, brief: Brief | null): Fix | null {
  const { where } = finding;
  const program = plan.programs.find(({ letter }) => letter === where.program);
  const { station } = where;
  const setStation = (
    fields: Extract<PlanChange, { type: 'set-station' }>['fields'],
  ): PlanChange => ({
    type: 'set-station',
    station: assertDefined(station, 'station'),
    fields,
  });
  switch (finding.code) {
    case 'overlap':
      return program
        ? moved(plan, program, assertDefined(where.start, 'where.start'), on, () => true)
        : null;
    case 'same-start-twice': {
      if (!program) return null;
      const starts = [...new Set(program.starts)];
      return {
        change: { type: 'set-starts', program: program.letter, starts },
        does: { what: 'keep-one-start', start: assertDefined(where.start, 'where.start') },
      };
    }
    case 'starts-taken-for-stations':
    case 'leftover-start':
      return program ? keptFirst(program, finding.code === 'leftover-start', plan) : null;
    case 'leftover-program':
      return program
        ? {
            change: { type: 'remove-program', program: program.letter },
            does: { what: 'clear-program', program: program.letter },
          }
        : null;
    case 'not-on-timer':
      return snapped(plan, finding, program);
    case 'afternoon-start':
      return program
        ? moved(
            plan,
            program,
            assertDefined(where.start, 'where.start'),
            on,
            (second) => second < 7 * 3600,
          )
        : null;
    case 'mowing-day':
      return program && where.date !== undefined ? withoutWeekday(program, where.date) : null;
    case 'odd-then-odd':
      return program?.days?.rule === 'odd' && plan.timer.dayRules.includes('even')
        ? {
            change: {
              type: 'set-days',
              program: program.letter,
              days: { ...program.days, rule: 'even' },
            },
            does: { what: 'even-dates' },
          }
        : null;
    case 'pump-off':
      return { change: setStation({ pump: true }), does: { what: 'pump-on' } };
    case 'under-cover-obeys-sensor':
      return { change: setStation({ obeysRainSensor: false }), does: { what: 'ignore-sensor' } };
    case 'open-ignores-sensor':
      return { change: setStation({ obeysRainSensor: true }), does: { what: 'obey-sensor' } };
    case 'sensor-bypassed':
      return {
        change: { type: 'set-settings', settings: { sensor: 'active' } },
        does: { what: 'sensor-active' },
      };
    case 'timer-off':
      return {
        change: { type: 'set-settings', settings: { mode: 'run' } },
        does: { what: 'switch-on' },
      };
    case 'rain-delay':
      return {
        change: { type: 'set-settings', settings: { wateringResumes: null } },
        does: { what: 'end-rain-delay' },
      };
    case 'percent-not-100':
      return {
        change: program
          ? { type: 'set-program', program: program.letter, fields: { seasonalPercent: 100 } }
          : {
              type: 'set-settings',
              settings: where.field?.startsWith('settings.monthlyPercent')
                ? { monthlyPercent: null, seasonalPercent: 100 }
                : { seasonalPercent: 100 },
            },
        does: { what: 'percent-100' },
      };
    case 'disabled-station':
      return {
        change: {
          type: 'several',
          changes: finding.programs.map((letter) => ({
            type: 'set-runs',
            program: letter,
            runs: [{ station: assertDefined(station, 'station'), seconds: null }],
          })),
        },
        does: { what: 'take-out-run', programs: finding.programs },
      };
    case 'runs-off':
      return program ? (splitInProgram(plan, program) ?? moreStarts(plan, program, on)) : null;
    case 'too-much':
    case 'too-little':
      return brief && toNeed(plan, assertDefined(station, 'station'), finding.wanted);
    default:
      return null;
  }
}

/** On a timer that splits the runs of a whole program: the shortest cycles and longest soak any of its stations needs. */
function splitInProgram(plan: Plan, program: Program): Fix | null {
  if (plan.timer.cycleSoak !== 'program') return null;
  const stations = plan.stations.filter(({ number }) =>
    program.runs.some(({ station, seconds }) => station === number && seconds > 0),
  );
  const pieceSeconds = Math.min(...stations.map(({ cycleSeconds = Infinity }) => cycleSeconds));
  if (!Number.isFinite(pieceSeconds)) return null;
  const soakSeconds = Math.max(
    program.soakSeconds ?? 0,
    ...stations.map((station) => station.soakSeconds ?? 0),
  );
  return {
    change: {
      type: 'set-program',
      program: program.letter,
      fields: { cycleSeconds: pieceSeconds, soakSeconds },
    },
    does: { what: 'split', program: program.letter, pieceSeconds, soakSeconds },
  };
}

/** On a timer that splits no runs: more starts with shorter runs. */
function moreStarts(plan: Plan, program: Program, on: EpochDay): Fix | null {
  const split = splitByStarts(plan, program, on);
  return split && { change: split.change, does: { what: 'more-starts', starts: split.starts } };
}

/** A program without one of its starts. */
export const withoutStart = ({ letter, starts }: Program, start: string): PlanChange => ({
  type: 'set-starts',
  program: letter,
  starts: starts.filter((one) => one !== start),
});

/** One start in place of several, with the same water for each date, if runs can be that long. */
function keptFirst(program: Program, withAll: boolean, plan: Plan): Fix | null {
  const [first] = [...program.starts].sort();
  if (first === undefined) return null;
  const only: PlanChange = { type: 'set-starts', program: program.letter, starts: [first] };
  const times = program.starts.length;
  const runs = program.runs.map(({ station, seconds }) => ({ station, seconds: seconds * times }));
  const fits = runs.every(({ seconds }) => seconds <= plan.timer.longestRunSeconds);
  return {
    change:
      withAll && fits
        ? { type: 'several', changes: [only, { type: 'set-runs', program: program.letter, runs }] }
        : only,
    does: { what: 'keep-one-start', start: first },
  };
}

/** The nearest later time of day, wrapping at midnight, at which a start overlaps nothing. */
function moved(
  plan: Plan,
  program: Program,
  start: string,
  on: EpochDay,
  suits: (second: number) => boolean,
): Fix | null {
  const asked = attempt(() => new Set(blockedStarts(plan, program.letter, start, on)));
  const from = parseTime(start);
  // A start listed twice would overlap itself anywhere: first keep only one, by its own fix.
  const isListedOnce = program.starts.filter((time) => time === start).length === 1;
  if (!asked.ok || from === null || !isListedOnce) return null;
  const step = plan.timer.startStepMinutes * 60;
  const base = Math.ceil(from / step) * step;
  for (let later = 0; later < SECONDS_PER_DAY; later += step) {
    const second = (base + later) % SECONDS_PER_DAY;
    const to = formatTime(second);
    if (to === start || asked.value.has(second) || !suits(second)) continue;
    if (program.starts.includes(to)) continue;
    const starts = program.starts.map((time) => (time === start ? to : time)).sort();
    return {
      change: { type: 'set-starts', program: program.letter, starts },
      does: { what: 'move-start', start, to },
    };
  }
  return null;
}

/** Rounds a value to the timer's nearest step. */
function snapped(
  { timer }: Plan,
  finding: Extract<Finding, { code: 'not-on-timer' }>,
  program: Program | undefined,
): Fix | null {
  const { limit, where } = finding;
  if (!program) return null;
  if (limit.what === 'start-step') {
    const step = limit.stepMinutes * 60;
    const second =
      (Math.round(assertDefined(parseTime(limit.given), 'parseTime(limit.given)') / step) * step) %
      SECONDS_PER_DAY;
    const to = formatTime(second);
    const starts = [
      ...new Set(program.starts.map((one) => (one === limit.given ? to : one))),
    ].sort();
    return {
      change: { type: 'set-starts', program: program.letter, starts },
      does: { what: 'move-start', start: limit.given, to },
    };
  }
  if ((limit.what === 'run-step' || limit.what === 'run-longest') && where.station !== undefined) {
    const step = timer.runStepSeconds;
    const most = Math.floor(timer.longestRunSeconds / step) * step;
    const seconds = Math.min(most, Math.max(step, Math.round(limit.given / step) * step));
    return {
      change: {
        type: 'set-runs',
        program: program.letter,
        runs: [{ station: where.station, seconds }],
      },
      does: { what: 'set-run', seconds },
    };
  }
  return null;
}

/** The same days without a date's weekday; null if none would be left. */
function withoutWeekday({ letter, days }: Program, date: EpochDay): Fix | null {
  const weekday = assertDefined(WEEKDAYS[weekdayIndexOf(date)], 'WEEKDAYS[weekdayIndexOf(date)]');
  const fixed = days && daysWithout(days, weekday);
  return (
    fixed && {
      change: { type: 'set-days', program: letter, days: fixed },
      does: { what: 'without-weekday', weekday },
    }
  );
}

function daysWithout(days: Days, weekday: Weekday): Days | null {
  if (days.rule === 'daily')
    return { rule: 'weekdays', weekdays: WEEKDAYS.filter((one) => one !== weekday) };
  if (days.rule === 'weekdays') {
    const weekdays = days.weekdays.filter((one) => one !== weekday);
    return weekdays.length > 0 && weekdays.length < days.weekdays.length
      ? { ...days, weekdays }
      : null;
  }
  const blocked = days.blockedWeekdays ?? [];
  if (blocked.includes(weekday) || blocked.length >= 6) return null;
  // An interval of whole weeks always falls on one weekday.
  if (days.rule === 'interval' && greatestCommonDivisor(days.everyDays, 7) === 7) {
    if (
      weekdayIndexOf(assertDefined(parseDate(days.firstDate), 'parseDate(days.firstDate)')) ===
      WEEKDAYS.indexOf(weekday)
    )
      return null;
  }
  return {
    ...days,
    blockedWeekdays: WEEKDAYS.filter((one) => one === weekday || blocked.includes(one)),
  };
}

/** The run time closest to the need, with unchanged days and starts; null if the station is in several programs. */
function toNeed(plan: Plan, station: number, wanted: number): Fix | null {
  const own = plan.programs.filter(({ runs }) =>
    runs.some((run) => run.station === station && run.seconds > 0),
  );
  const [program] = own;
  if (!program || own.length > 1 || wanted === 0) return null;
  // A station that is switched off stays dry whatever its run time.
  if (plan.stations.find(({ number }) => number === station)?.enabled === false) return null;
  const meetings = new Meetings(new Effort());
  const runsAWeek = startsOf(plan, program).reduce(
    (sum, { days, times }) => sum + meanDatesOf(days, meetings) * times,
    0,
  );
  if (runsAWeek === 0) return null;
  const run = nearestRun(plan.timer, wanted, runsAWeek, Infinity);
  return run?.fits
    ? {
        change: {
          type: 'set-runs',
          program: program.letter,
          runs: [{ station, seconds: run.seconds }],
        },
        does: { what: 'set-run', seconds: run.seconds },
      }
    : null;
}
