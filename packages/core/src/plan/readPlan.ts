/** Reader and writer of the plan document (plan-format.md), with every limit and every rule marked ■ there. */
import { parseMoment } from '../time/calendar.ts';
import type { Fault, Outcome, Path } from '../document/fault.ts';
import {
  CYCLE_SOAKS,
  DIALECT_ORDER,
  IN_WINDOWS,
  letterAt,
  ON_OVERLAPS,
  PLAN_FORMAT,
  PLAN_VERSION,
  ROUNDINGS,
  SEASONAL_SCOPES,
  START_STEPS_MINUTES,
  type Dialect,
  type Plan,
  type PlanSite,
  type Program,
  type Run,
  type Seasonal,
  type Settings,
  type Station,
  type Timer,
} from './plan.ts';
import { DAY_RULES, type Days } from '../time/dayRules.ts';
import {
  boolean,
  decimal,
  fieldsToSet,
  integer,
  list,
  nullable,
  object,
  oneOf,
  optional,
  required,
  text,
  textLike,
  variant,
  type Fields,
  type Reader,
} from '../document/reader.ts';
import {
  readTime,
  readWeekdays,
  readDate,
  readWindow,
  leavesFreeTime,
} from '../time/timeReaders.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
const minuteMoment = textLike(
  (t) => t.includes('T') && parseMoment(t) !== null,
  'a moment "YYYY-MM-DDTHH:MM", years 1970 to 9999',
);
const dateOrMoment = textLike(
  (t) => parseMoment(t) !== null,
  'a date "YYYY-MM-DD" or a moment "YYYY-MM-DDTHH:MM", years 1970 to 9999',
);
const percent = integer(0, 500);
const pieceSeconds = integer(1, 86_400);
const soakSeconds = integer(0, 86_400);
const atOnce = integer(1, 99);

const site = object<PlanSite>({
  name: required(text(), 'the name of the site'),
  timeZone: optional(text()),
  latitude: optional(decimal(-90, 90)),
  longitude: optional(decimal(-180, 180)),
  houseNumber: optional(text()),
});

const seasonal = object<Seasonal>({
  scope: required(oneOf(SEASONAL_SCOPES), SEASONAL_SCOPES.join(', ')),
  lowestPercent: required(integer(0, 100), '0 to 100'),
  highestPercent: required(integer(100, 500), '100 to 500'),
  stepPercent: required(integer(1, 50), '1 to 50'),
  byMonth: required(boolean, 'true or false'),
  roundToSeconds: required(oneOf([1, 60]), '1 or 60'),
  rounding: required(oneOf(ROUNDINGS), ROUNDINGS.join(', ')),
});

const dialect = object<Dialect>({
  programLabels: optional(oneOf(['letters', 'numbers'])),
  weekOrder: optional(oneOf(['mon', 'sun'])),
  weekdayKeys: optional(oneOf(['names', 'digits'])),
  clock: optional(oneOf(['date', 'weekday'])),
  clockStyle: optional(oneOf(['12', '24', 'either'])),
  runPage: optional(oneOf(['entered', 'adjusted'])),
  total: optional(
    object<NonNullable<Dialect['total']>>({
      shown: required(boolean, 'true or false'),
      percent: required(boolean, 'true or false'),
      soaks: required(boolean, 'true or false'),
      delays: required(boolean, 'true or false'),
    }),
  ),
  intervalPhase: optional(oneOf(['daysLeft', 'firstDate', 'none'])),
  intervalCounts: optional(oneOf(['every', 'between'])),
  confirms: optional(boolean),
  order: optional(list(oneOf(DIALECT_ORDER), { unique: true })),
});

export const readTimerShape: Reader<Timer> = object<Timer>({
  name: required(text(1), 'the name of the timer'),
  stationCount: required(integer(1, 99), '1 to 99'),
  programCount: required(integer(1, 26), '1 to 26'),
  startsPerProgram: required(integer(1, 24), '1 to 24'),
  startStepMinutes: required(oneOf(START_STEPS_MINUTES), START_STEPS_MINUTES.join(', ')),
  runStepSeconds: required(integer(1, 3600), '1 to 3600'),
  longestRunSeconds: required(integer(1, 86_400), '1 to 86400'),
  dayRules: required(list(oneOf(DAY_RULES), { least: 1, unique: true }), 'a list of day rules'),
  longestIntervalDays: required(integer(1, 365), '1 to 365'),
  oddDaysSkip31: required(boolean, 'true or false'),
  seasonal: required(seasonal, 'an object'),
  cycleSoak: required(oneOf(CYCLE_SOAKS), CYCLE_SOAKS.join(', ')),
  longestStationDelaySeconds: required(integer(0, 36_000), '0 to 36000'),
  onOverlap: required(oneOf(ON_OVERLAPS), ON_OVERLAPS.join(', ')),
  inWindow: required(oneOf(IN_WINDOWS), IN_WINDOWS.join(', ')),
  stationsAtOnce: required(atOnce, '1 to 99'),
  followsDaylightSaving: required(boolean, 'true or false'),
  manualDuring: optional(oneOf(['replace', 'refuse'])),
  onRain: optional(oneOf(['dry-run', 'lose'])),
  powerLoss: optional(
    object<NonNullable<Timer['powerLoss']>>({
      clock: optional(oneOf(['kept', 'stops', 'resets'])),
      settings: optional(oneOf(['kept', 'factory'])),
    }),
  ),
  clockAfterReset: optional(minuteMoment),
  linksStations: optional(boolean),
  dialect: optional(dialect),
});

export const readSettingsFields: Fields<Settings> = {
  mode: optional(oneOf(['run', 'off'])),
  sensor: optional(oneOf(['active', 'bypass', 'none'])),
  percentDrivenBy: optional(oneOf(['person', 'sensor', 'service'])),
  percentRange: optional(
    object<NonNullable<Settings['percentRange']>>({
      lowest: required(percent, '0 to 500'),
      highest: required(percent, '0 to 500'),
    }),
  ),
  seasonalPercent: optional(percent),
  monthlyPercent: optional(list(percent, { least: 12, most: 12 })),
  stationDelaySeconds: optional(integer(0, 36_000)),
  noWaterWindows: optional(list(readWindow)),
  offDaysOfMonth: optional(list(integer(1, 31), { unique: true })),
  wateringResumes: optional(dateOrMoment),
  stationsAtOnce: optional(atOnce),
  flowLimitLpm: optional(decimal(0, null, true)),
};

const settings = object<Settings>(readSettingsFields);

/** Settings to set; null removes one. */
export const readSettingsChange = fieldsToSet<Settings>(readSettingsFields);

export const readStationFields: Fields<Omit<Station, 'number'>> = {
  name: optional(text()),
  enabled: optional(boolean),
  cycleSeconds: optional(pieceSeconds),
  soakSeconds: optional(soakSeconds),
  flowLpm: optional(decimal(0, null)),
  pump: optional(boolean),
  obeysRainSensor: optional(boolean),
  needsPump: optional(boolean),
  underCover: optional(boolean),
  flowSensor: optional(boolean),
  overhead: optional(boolean),
  linkedTo: optional(integer(1, 99)),
};

export const readStationShape: Reader<Station> = object<Station>({
  number: required(integer(1, 99), '1 to 99'),
  ...readStationFields,
});
/** Station facts to set; null removes one. */
export const readStationChange = fieldsToSet<Omit<Station, 'number'>>(readStationFields);

const blocked = optional(readWeekdays);
const parityRule = (rule: 'odd' | 'even') =>
  object<Extract<Days, { rule: 'odd' | 'even' }>>({
    rule: required(oneOf([rule])),
    blockedWeekdays: blocked,
  });

export const readDaysShape: Reader<Days | null> = nullable(
  variant<Days>('rule', {
    daily: object<Extract<Days, { rule: 'daily' }>>({ rule: required(oneOf(['daily'])) }),
    weekdays: object<Extract<Days, { rule: 'weekdays' }>>({
      rule: required(oneOf(['weekdays'])),
      weekdays: required(readWeekdays, 'a list of weekdays'),
    }),
    interval: object<Extract<Days, { rule: 'interval' }>>({
      rule: required(oneOf(['interval'])),
      everyDays: required(integer(1, 365), '1 to 365'),
      firstDate: required(readDate, 'a date'),
      blockedWeekdays: blocked,
    }),
    hours: object<Extract<Days, { rule: 'hours' }>>({
      rule: required(oneOf(['hours'])),
      everyHours: required(integer(1, 744), '1 to 744'),
      first: required(minuteMoment, 'a moment'),
      blockedWeekdays: blocked,
    }),
    odd: parityRule('odd'),
    even: parityRule('even'),
  }),
);

export const readLetter: Reader<string> = textLike(
  (t) => /^[A-Z]$/.test(t),
  'one letter, "A" to "Z"',
);
export const readStarts: Reader<readonly string[]> = list(readTime);
export const readRunSeconds: Reader<number> = integer(0, 86_400);

/** What a program may have besides starts, runs and days. */
export type ProgramExtras = Omit<Program, 'letter' | 'starts' | 'runs' | 'days'>;
const extraFields: Fields<ProgramExtras> = {
  seasonalPercent: optional(percent),
  cycleSeconds: optional(pieceSeconds),
  soakSeconds: optional(soakSeconds),
  stationsAtOnce: optional(atOnce),
  noWaterWindows: optional(list(readWindow)),
};

export const readProgramChange = fieldsToSet<ProgramExtras>(extraFields);

export const readProgramShape: Reader<Program> = object<Program>({
  letter: required(readLetter, 'one letter'),
  starts: required(readStarts, 'a list of times'),
  runs: required(
    list(
      object<Run>({
        station: required(integer(1, 99), '1 to 99'),
        seconds: required(readRunSeconds, '0 to 86400'),
      }),
    ),
    'a list of runs',
  ),
  days: required(readDaysShape, 'a day rule or null'),
  ...extraFields,
});

const planShape = object<Plan>({
  format: required(oneOf([PLAN_FORMAT]), `"${PLAN_FORMAT}"`),
  version: required(oneOf([PLAN_VERSION]), `${PLAN_VERSION}`),
  site: optional(site),
  timer: required(readTimerShape, 'an object'),
  settings: required(settings, 'an object'),
  stations: required(list(readStationShape), 'a list of stations'),
  programs: required(list(readProgramShape), 'a list of programs'),
});

/** Rules between fields of a document whose shape is valid. */
function crossFaults(plan: Plan): Fault[] {
  const faults: Fault[] = [];
  const numbers = new Set<number>();
  plan.stations.forEach(({ number }, i) => {
    const path: Path = ['stations', i, 'number'];
    if (number > plan.timer.stationCount)
      faults.push({
        code: 'beyond-timer',
        path,
        what: 'station',
        last: String(plan.timer.stationCount),
      });
    if (numbers.has(number)) faults.push({ code: 'repeated', path, actual: String(number) });
    numbers.add(number);
  });
  const linkedTo = new Map(plan.stations.map((station) => [station.number, station.linkedTo]));
  plan.stations.forEach(({ number, linkedTo: leader }, i) => {
    const path: Path = ['stations', i, 'linkedTo'];
    if (leader === undefined) return;
    if (!numbers.has(leader)) faults.push({ code: 'unknown-station', path, station: leader });
    else if (leader === number || linkedTo.get(leader) !== undefined)
      faults.push({ code: 'linked-to-linked', path, station: leader });
  });
  const lastLetter = letterAt(plan.timer.programCount - 1);
  const letters = new Set<string>();
  plan.programs.forEach((program, i) => {
    const path: Path = ['programs', i];
    if (program.letter > lastLetter)
      faults.push({
        code: 'beyond-timer',
        path: [...path, 'letter'],
        what: 'program',
        last: lastLetter,
      });
    if (letters.has(program.letter))
      faults.push({ code: 'repeated', path: [...path, 'letter'], actual: program.letter });
    letters.add(program.letter);
    const run = new Set<number>();
    program.runs.forEach(({ station }, k) => {
      const at: Path = [...path, 'runs', k, 'station'];
      if (!numbers.has(station)) faults.push({ code: 'unknown-station', path: at, station });
      if (run.has(station)) faults.push({ code: 'repeated', path: at, actual: String(station) });
      run.add(station);
      const leader = linkedTo.get(station);
      if (leader !== undefined)
        faults.push({ code: 'run-of-linked', path: at, station, linkedTo: leader });
    });
    if (program.days?.rule === 'hours' && program.starts.length > 0)
      faults.push({ code: 'starts-with-hours-rule', path: [...path, 'starts'] });
  });
  const common = plan.settings.noWaterWindows ?? [];
  if (!leavesFreeTime(common))
    faults.push({ code: 'no-free-second', path: ['settings', 'noWaterWindows'] });
  else
    plan.programs.forEach(({ noWaterWindows: own }, i) => {
      if (own && !leavesFreeTime([...common, ...own]))
        faults.push({ code: 'no-free-second', path: ['programs', i, 'noWaterWindows'] });
    });
  return faults;
}

/**
 * Reads a plan document from a JSON value. Strict: unknown fields, formats and versions are refused. Faults of one sort are reported
 * together: first those of shape; if there are none, those between fields.
 */
export function readPlan(value: unknown): Outcome<Plan> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, PLAN_FORMAT, PLAN_VERSION);
  if (other) return { ok: false, faults: [other] };
  const plan = planShape(value, [], faults);
  if (plan === undefined) return { ok: false, faults };
  const between = crossFaults(plan);
  return between.length > 0 ? { ok: false, faults: between } : { ok: true, value: plan };
}

/** Reads a plan document from a file's text. */
export const readPlanText = (json: string): Outcome<Plan> => readJson(json, readPlan);

/** A valid plan as a file's text: fields in the order of plan-format.md, two spaces, a final newline. Reading it gives an equal plan. */
export function writePlan(plan: Plan): string {
  const read = planShape(plan, [], []);
  return `${JSON.stringify(read ?? plan, null, 2)}\n`;
}
