/** Reader of a survey and of changes to it, as strict as those of the plan. */
import type { DecoderReading } from '../wiring/line.ts';
import type { Accepted } from '../findings/accepted.ts';
import { POWERS } from '../plan/kind.ts';
import { FINDING_CODES } from '../findings/finding.ts';
import {
  readOftenADay,
  readRulesShape,
  readStationDays,
  readWishShape,
  wantedFaults,
} from '../brief/readBrief.ts';
import type { Fault, Outcome } from '../document/fault.ts';
import { readLetter } from '../plan/readPlan.ts';
import { readDate, readTime } from '../time/timeReaders.ts';
import {
  boolean,
  decimal,
  fieldsToSet,
  integer,
  list,
  object,
  oneOf,
  optional,
  readLine,
  readNote,
  readUuid,
  required,
  variant,
  type Fields,
  type Reader,
} from '../document/reader.ts';
import {
  readFollowUp,
  readMoment,
  readNextVisits,
  readTariff,
  readUndone,
  readVisitShape,
} from '../visit/readVisit.ts';
import { HEADS, PLANT_FACTORS, SOILS, SURROUNDINGS } from '../water/tables.ts';
import {
  CHANGERS,
  DEFECTS,
  RAIN_WAYS,
  SCHOOLS,
  SEASON_WAYS,
  SENSOR_KINDS,
  URGENCIES,
  type FittedTimer,
  type TimerSensor,
  type DripLine,
  type FlowTest,
  type NotedCups,
  type NotedDefect,
  type Overruled,
  type RunOffTest,
  type Survey,
  type SurveyFields,
  type SurveyStation,
  type SurveyStationFields,
  type UnknownPhase,
} from './survey.ts';
import { say } from '../language/say.ts';

export const MOST_CUPS = 200;
export const MOST_PHOTOS = 12;
const MOST_TRIES = 20;

const keysOf = <T extends object>(table: T) => Object.keys(table) as (keyof T & string)[];

const share = decimal(0, 1);
const positive = (most: number) => decimal(0, most, true);

const fault = object<NotedDefect>({
  fault: required(oneOf(DEFECTS), DEFECTS.join(', ')),
  severity: required(oneOf(URGENCIES), URGENCIES.join(', ')),
  note: optional(readNote),
});

const runOff = object<RunOffTest>({
  seconds: required(list(integer(1, 86_400), { least: 1, most: MOST_TRIES }), 'a list of seconds'),
  taken: required(oneOf(['mean', 'least']), 'mean or least'),
  safetyPercent: required(integer(0, 90), '0 to 90'),
});

const cups = object<NotedCups>({
  mouthSquareCentimetres: required(positive(10_000), 'cm², above 0'),
  minutes: required(positive(1440), 'minutes, above 0'),
  millilitres: required(
    list(decimal(0, 100_000), { least: 1, most: MOST_CUPS }),
    say`a list of 1 to ${MOST_CUPS} volumes`,
  ),
  across: required(integer(1, MOST_CUPS), say`1 to ${MOST_CUPS}`),
});

const litres = decimal(0, 100_000_000);
const flow = variant<FlowTest>('by', {
  meter: object<Extract<FlowTest, { by: 'meter' }>>({
    by: required(oneOf(['meter'])),
    before: required(litres, 'litres'),
    after: required(litres, 'litres'),
    minutes: required(positive(1440), 'minutes, above 0'),
  }),
  bucket: object<Extract<FlowTest, { by: 'bucket' }>>({
    by: required(oneOf(['bucket'])),
    litres: required(positive(10_000), 'litres, above 0'),
    seconds: required(positive(86_400), 'seconds, above 0'),
  }),
  timer: object<Extract<FlowTest, { by: 'timer' }>>({
    by: required(oneOf(['timer'])),
    litresPerMinute: required(positive(100_000), 'litres a minute, above 0'),
  }),
});

const drip = object<DripLine>({
  emitterLitresPerHour: required(positive(1000), 'litres an hour, above 0'),
  emitterSpacingMetres: required(positive(100), 'metres, above 0'),
  rowSpacingMetres: required(positive(100), 'metres, above 0'),
});

const overruled = object<Overruled>({
  plantFactor: optional(decimal(0, 2)),
  surroundings: optional(decimal(0, 3)),
  rate: optional(positive(1000)),
  uniformity: optional(share),
  rainShare: optional(share),
  intake: optional(decimal(0, 1000)),
  allowance: optional(positive(1000)),
  available: optional(positive(1000)),
  rootMetres: optional(positive(10)),
  depletion: optional(decimal(0, 1, true)),
  thumbMinutes: optional(positive(1440)),
  weeklyMinutes: optional(positive(10_080)),
  weeklySeconds: optional(integer(0, 604_800)),
});

/** Most photos of one station. */
export const MOST_DECODER_READINGS = 24;

const stationFields: Fields<SurveyStationFields> = {
  walked: optional(oneOf(['seen', 'skipped'])),
  head: optional(oneOf(keysOf(HEADS))),
  plants: optional(oneOf(keysOf(PLANT_FACTORS))),
  surroundings: optional(oneOf(keysOf(SURROUNDINGS))),
  soil: optional(oneOf(keysOf(SOILS))),
  slopePercent: optional(decimal(0, 100)),
  areaSquareMetres: optional(positive(1_000_000)),
  headCount: optional(integer(1, 1000)),
  faults: optional(list(fault, { most: 50 })),
  photos: optional(list(readUuid, { most: MOST_PHOTOS, unique: true })),
  note: optional(readNote),
  group: optional(readLine),
  days: optional(readStationDays),
  runOff: optional(runOff),
  cups: optional(cups),
  flow: optional(flow),
  drip: optional(drip),
  overruled: optional(overruled),
  school: optional(oneOf(SCHOOLS)),
  waterings: optional(integer(1, 14)),
  oftenADay: optional(readOftenADay),
  decoder: optional(readLine),
  decoderMark: optional(readLine),
  decoderReadings: optional(
    list(
      object<DecoderReading>({
        at: required(readMoment, 'a moment'),
        milliamps: optional(decimal(0, 100_000)),
      }),
      { most: MOST_DECODER_READINGS },
    ),
  ),
  masterValve: optional(boolean),
};

const station = object<SurveyStation>({
  number: required(integer(1, 99), '1 to 99'),
  ...stationFields,
});
/** Station facts to set; null makes one unknown. */
export const readSurveyStationChange = fieldsToSet<SurveyStationFields>(stationFields);

const sensorShape = object<TimerSensor & { readonly bypass?: string }>({
  kind: required(oneOf(SENSOR_KINDS), SENSOR_KINDS.join(', ')),
  // Older documents have the switch here too; it is `settings.sensor` of the plan.
  bypass: optional(oneOf(['active', 'bypass', 'none'])),
  note: optional(readNote),
});
const readSensor: Reader<TimerSensor> = (value, path, faults) => {
  const read = sensorShape(value, path, faults);
  if (!read) return undefined;
  const { bypass: _earlier, ...sensor } = read;
  return sensor;
};

const device = object<FittedTimer>({
  power: optional(oneOf(POWERS)),
  batteryKind: optional(readLine),
  batteryDate: optional(readDate),
  backup: optional(
    object<NonNullable<FittedTimer['backup']>>({
      kind: optional(readLine),
      date: optional(readDate),
    }),
  ),
  twoWire: optional(boolean),
  transformer: optional(readLine),
  modules: optional(readLine),
  liveTerminals: optional(list(integer(1, 99), { unique: true })),
  sensors: optional(list(readSensor, { most: 20 })),
  pump: optional(readLine),
  pumpRunsOn: optional(boolean),
  masterValve: optional(boolean),
  tankRefillMinutes: optional(integer(1, 1440)),
  slowValveSeconds: optional(integer(1, 600)),
  changers: optional(list(oneOf(CHANGERS), { unique: true })),
  clockShown: optional(readMoment),
  clockReally: optional(readMoment),
  note: optional(readNote),
});

/** Longest text of a judgement. Our own limit. */
const MOST_ACCEPTED = 200;

const surveyFields: Fields<SurveyFields> = {
  device: optional(device),
  school: optional(oneOf(SCHOOLS)),
  hundredMonth: optional(integer(1, 12)),
  season: optional(oneOf(SEASON_WAYS)),
  rain: optional(oneOf(RAIN_WAYS)),
  walkSeconds: optional(integer(10, 600)),
  rules: optional(readRulesShape),
  dryBeforeMowing: optional(boolean),
  dryFrom: optional(readTime),
  wish: optional(readWishShape),
  finishBeforeSunrise: optional(integer(-180, 180)),
  unknownPhases: optional(
    list(
      object<UnknownPhase>({
        program: required(readLetter, 'a program'),
        everyDays: required(integer(1, 365), '1 to 365'),
        firstDate: required(readDate, 'a date'),
      }),
      { most: 26 },
    ),
  ),
  accepted: optional(
    list(
      object<Accepted>({
        code: required(oneOf(FINDING_CODES), 'the code of a finding'),
        about: required(readLine, 'what it is about'),
        reason: required(readNote, 'a reason'),
        until: optional(readDate),
      }),
      { most: MOST_ACCEPTED },
    ),
  ),
  visit: optional(readVisitShape),
  next: optional(readNextVisits),
  followUp: optional(readFollowUp),
  undone: optional(
    object<NonNullable<Survey['undone']>>({
      closed: required(readMoment, 'when the visit was closed'),
      points: required(readUndone, 'a list'),
    }),
  ),
  tariff: optional(readTariff),
};

/** Timer facts to set; null makes one unknown. */
export const readSurveyChange = fieldsToSet<SurveyFields>(surveyFields);

const shape = object<Survey>({
  stations: required(list(station, { most: 99 }), 'a list of stations'),
  ...surveyFields,
});

/** Reads a survey from a JSON value, as strictly as `readPlan`. */
export function readSurvey(value: unknown): Outcome<Survey> {
  const faults: Fault[] = [];
  const survey = shape(value, [], faults);
  if (survey === undefined) return { ok: false, faults };
  const numbers = new Set<number>();
  survey.stations.forEach(({ number, oftenADay, days, flow: test }, i) => {
    const path = ['stations', i];
    if (numbers.has(number))
      faults.push({ code: 'repeated', path: [...path, 'number'], actual: String(number) });
    numbers.add(number);
    faults.push(...wantedFaults({ days, oftenADay }, path));
    if (test?.by === 'meter' && test.after <= test.before)
      faults.push({
        code: 'out-of-range',
        path: [...path, 'flow', 'after'],
        least: test.before,
        most: null,
        above: true,
        actual: test.after,
      });
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: survey };
}
