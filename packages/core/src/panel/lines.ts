/**
 * Everything that is set on a timer as the lines of its panel, one setting a line, in the order in which this timer is gone
 * through. The same lines are read when a timer is noted as found, and keyed in when it is left.
 */
import {
  civilOf,
  epochDayOf,
  parseDate,
  parseMoment,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type EpochDay,
  type Weekday,
} from '../time/calendar.ts';
import { daysLeft, type Days } from '../time/dayRules.ts';
import type { PanelSetting } from '../plan/kind.ts';
import {
  DIALECT_ORDER,
  letterAt,
  type Dialect,
  type Plan,
  type Program,
  type Station,
} from '../plan/plan.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import { monthName, weekdaysWords } from '../words/words.ts';
import { weekdayOf, type PanelStyle, type PanelValue } from './value.ts';
import { programLabel } from '../plan/planWords.ts';

/** Which setting a line is of. */
export type SettingAddress =
  | { readonly of: 'year' | 'date' | 'weekday' | 'time' }
  | { readonly of: 'start'; readonly program: string; readonly slot: number }
  | { readonly of: 'run'; readonly program: string; readonly station: number }
  | { readonly of: 'days' | 'count' | 'phase' | 'total'; readonly program: string }
  | {
      readonly of: 'percent';
      readonly program?: string;
      readonly month?: number;
      readonly hundred?: true;
    }
  | { readonly of: 'longest-piece' | 'soak'; readonly program?: string; readonly station?: number }
  | {
      readonly of: 'delay' | 'windows' | 'off-days' | 'at-once' | 'sensor' | 'mode' | 'rain-delay';
      readonly program?: string;
    }
  | { readonly of: 'pump' | 'obeys-sensor' | 'enabled'; readonly station: number };

export interface PanelLine {
  /** The same setting has the same id on every plan of this timer. */
  readonly id: string;
  readonly setting: PanelSetting;
  readonly address: SettingAddress;
  /** The setting's name as this timer has it, such as `B start 2`. */
  readonly name: string;
  readonly value: PanelValue;
}

export interface PanelNow {
  readonly style: PanelStyle;
  /** The date and the second of the day by the house's clocks. */
  readonly today: EpochDay;
  readonly secondOfDay: number;
}

/** The settings in this timer's order of keying in; those that it does not name stand where they usually do. */
export function orderOf({ timer }: Plan): readonly PanelSetting[] {
  const order = timer.dialect?.order;
  if (!order) return DIALECT_ORDER;
  return [...order, ...DIALECT_ORDER.filter((one) => !order.includes(one))];
}

const idOf = (address: SettingAddress): string =>
  Object.values(address)
    .map((part) => (part === true ? '100' : String(part)))
    .join('.');

/** A program in the name of a line: `B`, or `Program 2`, since `2 start 1` says nothing. */
export const programName = (letter: string, dialect: Dialect): string =>
  dialect.programLabels === 'numbers'
    ? `Program ${programLabel(letter, dialect)}`
    : programLabel(letter, dialect);

/** Days in words beside the digits by which some panels have them: ` (Tue Thu)`. */
const named = (weekdays: readonly Weekday[], { weekdayKeys }: Dialect) =>
  weekdayKeys === 'digits' && weekdays.length > 0 ? ` (${weekdaysWords(weekdays)})` : '';

function clockLines(plan: Plan, { style: hand, today, secondOfDay }: PanelNow): PanelLine[] {
  const line = (of: 'year' | 'date' | 'weekday' | 'time', name: string, value: PanelValue) => ({
    id: of,
    setting: 'clock' as const,
    address: { of },
    name,
    value,
  });
  const byDate = (hand.dialect.clock ?? 'date') === 'date';
  const minute = Math.floor(secondOfDay / 60) * 60;
  return [
    ...(byDate
      ? [
          line('year', 'Year', { kind: 'year', year: civilOf(today).year }),
          line('date', 'Date', { kind: 'date', day: today }),
        ]
      : []),
    line(
      'weekday',
      `${byDate ? 'It must now say' : 'Day of the week'}${named([WEEKDAYS[weekdayIndexOf(today)] ?? 'mon'], hand.dialect)}`,
      weekdayOf(today),
    ),
    line('time', 'Time', { kind: 'time', second: minute }),
  ];
}

const blockedOf = (days: Days) => ('blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : []);

function daysLines(program: Program, label: string, { style: hand, today }: PanelNow): PanelLine[] {
  const { letter, days } = program;
  const line = (of: 'days' | 'count' | 'phase', name: string, value: PanelValue): PanelLine => ({
    id: `${of}.${letter}`,
    setting: 'days',
    address: { of, program: letter },
    name,
    value,
  });
  if (!days) return [line('days', `${label} days`, { kind: 'days', rule: 'none', weekdays: [] })];
  const weekdays = days.rule === 'weekdays' ? days.weekdays : blockedOf(days);
  const inOrder = WEEKDAYS.filter((one) => weekdays.includes(one));
  const all = days.rule === 'weekdays' && inOrder.length === 7;
  const lines = [
    line(
      'days',
      `${label} days${all ? '' : named(inOrder, hand.dialect)}`,
      all
        ? { kind: 'days', rule: 'daily', weekdays: [] }
        : { kind: 'days', rule: days.rule, weekdays: inOrder },
    ),
  ];
  if (days.rule === 'interval') {
    const every = days.everyDays;
    const between = hand.dialect.intervalCounts === 'between';
    lines.push(
      line('count', `${label} ${between ? 'days between' : 'every … days'}`, {
        kind: 'count',
        every,
      }),
    );
    const left = daysLeft(every, parseDate(days.firstDate) ?? 0, today);
    const shown = hand.dialect.intervalPhase ?? 'daysLeft';
    if (shown === 'daysLeft')
      lines.push(line('phase', `${label} days left`, { kind: 'days-left', days: left }));
    if (shown === 'firstDate')
      lines.push(line('phase', `${label} first date`, { kind: 'date', day: today + left }));
  }
  if (days.rule === 'hours')
    lines.push(
      line('count', `${label} every … hours`, { kind: 'count', every: days.everyHours }),
      line('phase', `${label} first start`, {
        kind: 'time',
        second: (parseMoment(days.first) ?? 0) % SECONDS_PER_DAY,
      }),
    );
  return lines;
}

function startLines(plan: Plan, program: Program, label: string): PanelLine[] {
  if (program.days?.rule === 'hours') return [];
  const count = Math.max(plan.timer.startsPerProgram, program.starts.length);
  return Array.from({ length: count }, (_, i): PanelLine => {
    const address = { of: 'start', program: program.letter, slot: i + 1 } as const;
    const start = program.starts[i];
    const second = start === undefined ? null : parseTime(start);
    return {
      id: idOf(address),
      setting: 'starts',
      address: address,
      name: `${label} start ${i + 1}`,
      value: { kind: 'time', second },
    };
  });
}

/** `5 Back lawn far`, or the bare number. */
const stationName = ({ number, name }: Station) => (name ? `${number} ${name}` : String(number));

function runLines(plan: Plan, program: Program, label: string): PanelLine[] {
  return plan.stations.map((station): PanelLine => {
    const address = { of: 'run', program: program.letter, station: station.number } as const;
    const run = program.runs.find((run) => run.station === station.number);
    return {
      id: idOf(address),
      setting: 'runs',
      address: address,
      name: `${label} station ${stationName(station)}`,
      value: { kind: 'run', seconds: run?.seconds ?? 0 },
    };
  });
}

/** Length lines for what a station or a program splits its runs into. */
function soakLines(plan: Plan): PanelLine[] {
  const of = (
    where: { program?: string; station?: number },
    name: string,
    from: { cycleSeconds?: number; soakSeconds?: number },
  ) =>
    (
      [
        ['longest-piece', 'longest piece', from.cycleSeconds ?? 0],
        ['soak', 'soak', from.cycleSeconds === undefined ? 0 : (from.soakSeconds ?? 0)],
      ] as const
    ).map(([what, words, seconds]): PanelLine => {
      const address = { of: what, ...where };
      return {
        id: idOf(address),
        setting: 'soak',
        address: address,
        name: `${name} ${words}`,
        value: { kind: 'length', seconds },
      };
    });
  const { dialect = {}, cycleSoak } = plan.timer;
  if (cycleSoak === 'station')
    return plan.stations.flatMap((station) =>
      of({ station: station.number }, `Station ${stationName(station)}`, station),
    );
  if (cycleSoak === 'program')
    return plan.programs.flatMap((program) =>
      of({ program: program.letter }, programName(program.letter, dialect), program),
    );
  return [];
}

const windowValues = (windows: readonly NoWaterWindow[] = []): PanelValue[] =>
  windows.map(({ from, to, weekdays = WEEKDAYS }) => ({
    kind: 'hours',
    from: parseTime(from) ?? 0,
    to: parseTime(to) ?? 0,
    weekdays: WEEKDAYS.filter((one) => weekdays.includes(one)),
  }));

function windowLines(plan: Plan): PanelLine[] {
  const { timer, settings, programs } = plan;
  const { dialect = {} } = timer;
  const lines = (windows: readonly NoWaterWindow[] | undefined, name: string, program?: string) => {
    const address = { of: 'windows', ...(program === undefined ? {} : { program }) } as const;
    return windowValues(windows).map((value, i): PanelLine => ({
      id: `${idOf(address)}.${i + 1}`,
      setting: 'windows',
      address: address,
      name: `${name} ${i + 1}`,
      value,
    }));
  };
  const offDays: PanelLine = {
    id: 'off-days',
    setting: 'windows',
    address: { of: 'off-days' },
    name: 'Dates without water',
    value: { kind: 'numbers', numbers: settings.offDaysOfMonth ?? [] },
  };
  return [
    ...(timer.inWindow === 'ignore' ? [] : lines(settings.noWaterWindows, 'Hours without water')),
    ...programs.flatMap(({ letter, noWaterWindows }) =>
      lines(noWaterWindows, `${programName(letter, dialect)} hours without water`, letter),
    ),
    ...(settings.offDaysOfMonth === undefined ? [] : [offDays]),
  ];
}

function percentLines(plan: Plan): PanelLine[] {
  const { seasonal, dialect = {} } = plan.timer;
  const line = (
    address: Extract<SettingAddress, { of: 'percent' }>,
    name: string,
    percent: number,
  ): PanelLine => ({
    id: idOf(address),
    setting: 'percent',
    address: address,
    name,
    value: { kind: 'percent', percent },
  });
  if (seasonal.scope === 'none') return [];
  if (seasonal.scope === 'program')
    return plan.programs.map(({ letter, seasonalPercent = 100 }) =>
      line(
        { of: 'percent', program: letter },
        `${programName(letter, dialect)} percent`,
        seasonalPercent,
      ),
    );
  const { monthlyPercent, seasonalPercent = 100 } = plan.settings;
  if (seasonal.byMonth && monthlyPercent)
    return monthlyPercent.map((percent, i) =>
      line({ of: 'percent', month: i + 1 }, `${monthName(i + 1)} percent`, percent),
    );
  return [line({ of: 'percent' }, 'Seasonal percent', seasonalPercent)];
}

function switchLines(plan: Plan, setting: 'pump' | 'sensor' | 'mode' | 'delay'): PanelLine[] {
  const { settings, stations, timer } = plan;
  const line = (address: SettingAddress, name: string, value: PanelValue): PanelLine => ({
    id: idOf(address),
    setting,
    address: address,
    name,
    value,
  });
  const ofStation = (
    of: 'pump' | 'obeys-sensor' | 'enabled',
    words: string,
    on: (s: Station) => boolean,
  ) =>
    stations.map((station) =>
      line({ of, station: station.number }, `Station ${stationName(station)} ${words}`, {
        kind: 'switch',
        on: on(station),
      }),
    );
  switch (setting) {
    case 'pump':
      return ofStation('pump', 'pump or master valve', ({ pump = true }) => pump);
    case 'sensor':
      return [
        line({ of: 'sensor' }, 'Rain sensor', {
          kind: 'sensor',
          state: settings.sensor ?? 'active',
        }),
        ...(settings.sensor === 'none'
          ? []
          : ofStation(
              'obeys-sensor',
              'obeys the sensor',
              ({ obeysRainSensor = true }) => obeysRainSensor,
            )),
      ];
    case 'delay':
      return [
        ...(timer.longestStationDelaySeconds > 0
          ? [
              line({ of: 'delay' }, 'Delay between stations', {
                kind: 'length',
                seconds: settings.stationDelaySeconds ?? 0,
              }),
            ]
          : []),
        ...(timer.stationsAtOnce > 1
          ? [
              line({ of: 'at-once' }, 'Stations at once', {
                kind: 'numbers',
                numbers: [settings.stationsAtOnce ?? 1],
              }),
            ]
          : []),
      ];
    case 'mode': {
      const resumes = settings.wateringResumes;
      return [
        ...ofStation('enabled', 'in use', ({ enabled = true }) => enabled),
        line(
          { of: 'rain-delay' },
          resumes === undefined ? 'Rain delay' : 'Rain delay until',
          resumes === undefined
            ? { kind: 'switch', on: false }
            : {
                kind: 'date',
                day:
                  parseDate(resumes.slice(0, 10)) ?? epochDayOf({ year: 1970, month: 1, day: 1 }),
              },
        ),
        line({ of: 'mode' }, 'Watering', { kind: 'switch', on: settings.mode !== 'off' }),
      ];
    }
  }
}

/** Every program that the timer has, those of which the plan says nothing as unused ones. */
export const allPrograms = (plan: Plan): Program[] =>
  Array.from({ length: Math.max(plan.timer.programCount, 1) }, (_, i) => {
    const letter = letterAt(i);
    return (
      plan.programs.find((program) => program.letter === letter) ?? {
        letter,
        starts: [],
        runs: [],
        days: null,
      }
    );
  });

const PROGRAM_SETTINGS: readonly PanelSetting[] = ['starts', 'runs', 'days'];

/** Every line of a timer's panel, in its order; the programs one after another, each with its starts, runs and days. */
export function panelLines(plan: Plan, now: PanelNow): PanelLine[] {
  const order = orderOf(plan);
  const { dialect } = now.style;
  const inProgram = order.filter((one) => PROGRAM_SETTINGS.includes(one));
  const whole = { ...plan, programs: allPrograms(plan) };
  const programs = () =>
    whole.programs.flatMap((program) => {
      const label = programName(program.letter, dialect);
      return inProgram.flatMap((setting) =>
        setting === 'starts'
          ? startLines(plan, program, label)
          : setting === 'runs'
            ? runLines(plan, program, label)
            : daysLines(program, label, now),
      );
    });
  return order.flatMap((setting) => {
    switch (setting) {
      case 'clock':
        return clockLines(plan, now);
      case 'percent':
        return percentLines(plan);
      case 'soak':
        return soakLines(plan);
      case 'windows':
        return windowLines(plan);
      case 'pump':
      case 'sensor':
      case 'mode':
      case 'delay':
        return switchLines(plan, setting);
      default:
        // All three stand together where the first of them stands.
        return setting === inProgram[0] ? programs() : [];
    }
  });
}
