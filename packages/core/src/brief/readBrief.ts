/** Reader and writer of the brief (planning.md section 1), as strict as those of the plan. */
import { assertDefined } from '../document/assertDefined.ts';
import { parseTime } from '../time/calendar.ts';
import type { Fault, Outcome, Path } from '../document/fault.ts';
import { readSettingsFields, readStationFields, readTimerShape } from '../plan/readPlan.ts';
import {
  leavesFreeTime,
  readWindow,
  readDate,
  readTime,
  readWeekdays,
} from '../time/timeReaders.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  boolean,
  integer,
  list,
  object,
  oneOf,
  optional,
  pair,
  required,
  text,
  type Fields,
  type Reader,
} from '../document/reader.ts';
import {
  BRIEF_FORMAT,
  BRIEF_VERSION,
  DAY_WISHES,
  PROGRAM_WISHES,
  START_WISHES,
  type Brief,
  type BriefRules,
  type BriefStation,
  type ComingEdition,
  type Mowing,
  type OftenADay,
  type Wish,
} from './brief.ts';
import { say } from '../language/say.ts';

const SECONDS_PER_WEEK = 604_800;
const daysOfWeek = integer(1, 7);

export const readOftenADay = object<OftenADay>({
  times: required(integer(2, 8), '2 to 8'),
  from: required(readTime, 'a time of day'),
  to: required(readTime, 'a time of day'),
  until: optional(readDate),
});

export const readStationDays = object<NonNullable<BriefStation['days']>>({
  least: required(daysOfWeek, '1 to 7'),
  most: required(daysOfWeek, '1 to 7'),
});

const { enabled: _enabled, ...stationFields } = readStationFields;
const station = object<BriefStation>({
  number: required(integer(1, 99), '1 to 99'),
  weeklySeconds: required(integer(0, SECONDS_PER_WEEK), say`0 to ${SECONDS_PER_WEEK}`),
  group: optional(text(1)),
  days: optional(readStationDays),
  oftenADay: optional(readOftenADay),
  ...stationFields,
});

export const readRulesFields: Fields<BriefRules> = {
  weekdays: optional(readWeekdays),
  parity: optional(oneOf(['odd', 'even'])),
  noWaterWindows: optional(list(readWindow)),
  mostDaysPerWeek: optional(daysOfWeek),
  dripExempt: optional(boolean),
};

export const readRulesShape = object<BriefRules>(readRulesFields);

const mowing = object<Mowing>({
  weekdays: required(readWeekdays, 'a list of weekdays'),
  dayBefore: optional(boolean),
  dryFrom: optional(readTime),
});

const comingEdition = object<ComingEdition>({
  from: required(readDate, 'a date'),
  rules: required(readRulesShape, 'an object'),
});

const group = text(1);
export const readWishShape = object<Wish>({
  notBefore: optional(readTime),
  finishBy: optional(readTime),
  dripAnyTime: optional(boolean),
  daysPerWeek: optional(readStationDays),
  starts: optional(oneOf(START_WISHES)),
  days: optional(oneOf(DAY_WISHES)),
  programs: optional(oneOf(PROGRAM_WISHES)),
  headroomPercent: optional(integer(0, 500)),
  apart: optional(list(pair(group, group))),
});

const { stationDelaySeconds, stationsAtOnce, flowLimitLpm, offDaysOfMonth } = readSettingsFields;
const shape: Reader<Brief> = object<Brief>({
  format: required(oneOf([BRIEF_FORMAT]), `"${BRIEF_FORMAT}"`),
  version: required(oneOf([BRIEF_VERSION]), `${BRIEF_VERSION}`),
  timer: required(readTimerShape, 'an object'),
  settings: optional(
    object<NonNullable<Brief['settings']>>({
      stationDelaySeconds,
      stationsAtOnce,
      flowLimitLpm,
      offDaysOfMonth,
    }),
  ),
  stations: required(list(station), 'a list of stations'),
  rules: optional(readRulesShape),
  mowing: optional(mowing),
  coming: optional(list(comingEdition)),
  wish: optional(readWishShape),
});

/** Fields of a station's needs that contradict each other. */
export function wantedFaults(
  {
    days,
    oftenADay,
  }: { days?: BriefStation['days'] | undefined; oftenADay?: OftenADay | undefined },
  path: Path,
  field = 'days',
): Fault[] {
  const faults: Fault[] = [];
  if (days && days.most < days.least)
    faults.push({
      code: 'out-of-range',
      path: [...path, field, 'most'],
      least: days.least,
      most: 7,
      actual: days.most,
    });
  if (
    oftenADay &&
    assertDefined(parseTime(oftenADay.to), 'parseTime(oftenADay.to)') <=
      assertDefined(parseTime(oftenADay.from), 'parseTime(oftenADay.from)')
  )
    faults.push({
      code: 'malformed',
      path: [...path, 'oftenADay', 'to'],
      expected: say`a time of day after ${oftenADay.from}`,
      actual: `"${oftenADay.to}"`,
    });
  return faults;
}

/** Rules between fields. No plan could meet a brief that breaks them. */
function crossFaults(brief: Brief): Fault[] {
  const faults: Fault[] = [];
  const numbers = new Set<number>();
  brief.stations.forEach(({ number, days, oftenADay: often }, i) => {
    const path: Path = ['stations', i];
    const last = brief.timer.stationCount;
    if (number > last)
      faults.push({
        code: 'beyond-timer',
        path: [...path, 'number'],
        what: 'station',
        last: String(last),
      });
    if (numbers.has(number))
      faults.push({ code: 'repeated', path: [...path, 'number'], actual: String(number) });
    numbers.add(number);
    faults.push(...wantedFaults({ days, oftenADay: often }, path));
  });
  faults.push(...wantedFaults({ days: brief.wish?.daysPerWeek }, ['wish'], 'daysPerWeek'));
  const editions = brief.coming ?? [];
  const rules = [
    { path: ['rules'], windows: brief.rules?.noWaterWindows },
    ...editions.map((edition, i) => ({
      path: ['coming', i, 'rules'],
      windows: edition.rules.noWaterWindows,
    })),
  ];
  for (const { path, windows = [] } of rules)
    if (!leavesFreeTime(windows))
      faults.push({ code: 'no-free-second', path: [...path, 'noWaterWindows'] });
  editions.forEach(({ from }, i) => {
    const before = editions[i - 1]?.from;
    if (before !== undefined && from <= before)
      faults.push({
        code: 'malformed',
        path: ['coming', i, 'from'],
        expected: say`a date after ${before}`,
        actual: `"${from}"`,
      });
  });
  return faults;
}

/** Reads a brief from a JSON value, as strictly as `readPlan`. */
export function readBrief(value: unknown): Outcome<Brief> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, BRIEF_FORMAT, BRIEF_VERSION);
  if (other) return { ok: false, faults: [other] };
  const brief = shape(value, [], faults);
  if (brief === undefined) return { ok: false, faults };
  const between = crossFaults(brief);
  return between.length > 0 ? { ok: false, faults: between } : { ok: true, value: brief };
}

/** Reads a brief from a file's text; a byte order mark is allowed. */
export const readBriefText = (json: string): Outcome<Brief> => readJson(json, readBrief);

/** A valid brief as a file's text: fields in the order of planning.md, two spaces, a final newline. Reading it gives an equal brief. */
export function writeBrief(brief: Brief): string {
  const read = shape(brief, [], []);
  return `${JSON.stringify(read ?? brief, null, 2)}\n`;
}
