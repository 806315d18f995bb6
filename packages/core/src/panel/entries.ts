/** What someone reads from a panel, as a change of the plan; and what was entered, if the panel shows something else. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  formatDate,
  formatMoment,
  formatTime,
  parseMoment,
  SECONDS_PER_DAY,
  type EpochDay,
} from '../time/calendar.ts';
import { linkStationChange, type PlanChange } from '../plan/change.ts';
import type { Plan, Program, Timer } from '../plan/plan.ts';
import type { Days } from '../time/dayRules.ts';
import { adjustedSeconds } from '../plan/program.ts';
import type { PanelNow, SettingAddress } from './line.ts';
import { rainDelayEnds } from './rainDelay.ts';
import type { PanelValue } from './value.ts';

/** Run times that may have been entered, inclusive, in seconds. */
export interface Entered {
  readonly least: number;
  readonly most: number;
}

/**
 * What was entered on a timer whose run page shows minutes at the current percent (`dialect.runPage` adjusted): because of rounding, a
 * range in the timer's steps.
 *
 * @param shown seconds on the display
 * @returns null if no entry shows so at that percent
 */
export function enteredFromShown(shown: number, percent: number, timer: Timer): Entered | null {
  const { runStepSeconds: step, longestRunSeconds: longest, seasonal } = timer;
  if (shown === 0) return { least: 0, most: 0 };
  if (percent <= 0) return null;
  // Rounded to whole minutes or seconds, so nothing more than one of these away can be it.
  const about = (shown * 100) / percent;
  const span = (seasonal.roundToSeconds * 100) / percent + step;
  const from = Math.max(step, Math.floor((about - span) / step) * step);
  const to = Math.min(longest, about + span);
  const found: number[] = [];
  for (let seconds = from; seconds <= to; seconds += step)
    if (adjustedSeconds(seconds, percent, seasonal) === shown) found.push(seconds);
  const [least] = found;
  return least === undefined
    ? null
    : { least, most: assertDefined(found[found.length - 1], 'found[found.length - 1]') };
}

const programIn = (plan: Plan, letter: string): Program =>
  plan.programs.find((program) => program.letter === letter) ?? {
    letter,
    starts: [],
    runs: [],
    days: null,
  };

/** A day rule from what the panel shows, with the rest unchanged. */
function daysFrom(
  value: Extract<PanelValue, { kind: 'days' }>,
  present: Days | null,
  today: EpochDay,
): Days | null {
  const { rule, weekdays } = value;
  const blocked = weekdays.length > 0 ? { blockedWeekdays: weekdays } : {};
  switch (rule) {
    case 'none':
      return null;
    case 'daily':
      return { rule };
    case 'weekdays':
      return { rule, weekdays };
    case 'odd':
    case 'even':
      return { rule, ...blocked };
    case 'interval':
      return present?.rule === 'interval'
        ? { rule, everyDays: present.everyDays, firstDate: present.firstDate, ...blocked }
        : { rule, everyDays: 2, firstDate: formatDate(today), ...blocked };
    case 'hours':
      return present?.rule === 'hours'
        ? { rule, everyHours: present.everyHours, first: present.first, ...blocked }
        : { rule, everyHours: 24, first: `${formatDate(today)}T06:00`, ...blocked };
  }
}

function withCount(days: Days | null, every: number): Days | null {
  if (days?.rule === 'interval') return { ...days, everyDays: every };
  return days?.rule === 'hours' ? { ...days, everyHours: every } : days;
}

function withPhase(days: Days | null, value: PanelValue, today: EpochDay): Days | null {
  if (days?.rule === 'interval') {
    if (value.kind === 'days-left') return { ...days, firstDate: formatDate(today + value.days) };
    return value.kind === 'date' ? { ...days, firstDate: formatDate(value.day) } : days;
  }
  if (days?.rule !== 'hours' || value.kind !== 'time' || value.second === null) return days;
  const first = assertDefined(parseMoment(days.first), 'parseMoment(days.first)');
  const day = Math.floor(first / SECONDS_PER_DAY);
  return { ...days, first: formatMoment(day * SECONDS_PER_DAY + value.second).slice(0, 16) };
}

/** A program's starts with one slot set or cleared. Later slots move up, since lists of starts have no gaps. */
function startsWith({ starts }: Program, slot: number, second: number | null): string[] {
  const slots: (string | undefined)[] = [...starts];
  slots[slot - 1] = second === null ? undefined : formatTime(second);
  return slots.filter((one) => one !== undefined);
}

const nullIf = <T>(value: T, usual: T): T | null => (value === usual ? null : value);

/** The change that notes what a panel shows at a place; null if it does not apply, or there is nothing to note. */
export function entryChange(
  plan: Plan,
  place: SettingAddress,
  value: PanelValue,
  now: PanelNow,
): PlanChange | null {
  const { today } = now;
  const inProgram = (letter: string, change: PlanChange): PlanChange =>
    plan.programs.some((program) => program.letter === letter)
      ? change
      : {
          type: 'several',
          changes: [{ type: 'add-program', program: programIn(plan, letter) }, change],
        };
  switch (place.of) {
    case 'start': {
      if (value.kind !== 'time') return null;
      const starts = startsWith(programIn(plan, place.program), place.slot, value.second);
      return inProgram(place.program, { type: 'set-starts', program: place.program, starts });
    }
    case 'run': {
      if (value.kind !== 'run') return null;
      const { station, program } = place;
      const seconds = value.seconds === 0 ? null : value.seconds;
      return inProgram(program, { type: 'set-runs', program, runs: [{ station, seconds }] });
    }
    case 'days':
    case 'count':
    case 'phase': {
      const { days } = programIn(plan, place.program);
      const next =
        value.kind === 'days'
          ? daysFrom(value, days, today)
          : value.kind === 'count'
            ? withCount(days, value.every)
            : withPhase(days, value, today);
      return inProgram(place.program, { type: 'set-days', program: place.program, days: next });
    }
    case 'percent': {
      if (value.kind !== 'percent') return null;
      const { percent } = value;
      if (place.program !== undefined)
        return inProgram(place.program, {
          type: 'set-program',
          program: place.program,
          fields: { seasonalPercent: nullIf(percent, 100) },
        });
      const { monthlyPercent } = plan.settings;
      return {
        type: 'set-settings',
        settings:
          place.month !== undefined && monthlyPercent
            ? {
                monthlyPercent: monthlyPercent.map((one, i) =>
                  i + 1 === place.month ? percent : one,
                ),
              }
            : { seasonalPercent: nullIf(percent, 100) },
      };
    }
    case 'delay':
      return value.kind === 'length'
        ? { type: 'set-settings', settings: { stationDelaySeconds: nullIf(value.seconds, 0) } }
        : null;
    case 'sensor':
      return value.kind === 'sensor'
        ? { type: 'set-settings', settings: { sensor: nullIf(value.state, 'active') } }
        : null;
    case 'mode':
      return value.kind === 'switch'
        ? { type: 'set-settings', settings: { mode: value.on ? null : 'off' } }
        : null;
    case 'rain-delay':
      return value.kind === 'rain-delay'
        ? {
            type: 'set-settings',
            settings: { wateringResumes: rainDelayEnds(value, now, now.style.rainDelay) },
          }
        : null;
    case 'linked': {
      const to = value.kind === 'numbers' ? (value.numbers[0] ?? null) : null;
      return linkStationChange(plan, place.station, to);
    }
    case 'pump':
    case 'obeys-sensor':
    case 'enabled': {
      if (value.kind !== 'switch') return null;
      const field = (
        { pump: 'pump', 'obeys-sensor': 'obeysRainSensor', enabled: 'enabled' } as const
      )[place.of];
      return {
        type: 'set-station',
        station: place.station,
        fields: { [field]: nullIf(value.on, true) },
      };
    }
    case 'longest-piece':
    case 'soak': {
      if (value.kind !== 'length') return null;
      const field = place.of === 'soak' ? 'soakSeconds' : 'cycleSeconds';
      const fields = { [field]: nullIf(value.seconds, 0) };
      if (place.station !== undefined)
        return { type: 'set-station', station: place.station, fields };
      return place.program === undefined
        ? null
        : { type: 'set-program', program: place.program, fields };
    }
    default:
      return null;
  }
}
