/** Names and values of a record's settings and facts, as people read them. */
import type { Wish } from '../brief/brief.ts';
import type { Program, Settings, Station } from '../plan/plan.ts';
import { allowedWords, windowWords } from '../rules/rulesWords.ts';
import type {
  FittedTimer,
  Overruled,
  SurveyFields,
  SurveyStationFields,
} from '../survey/survey.ts';
import {
  CHANGER_WORDS,
  HEAD_WORDS,
  PLANT_WORDS,
  POWER_WORDS,
  RAIN_WORDS,
  SCHOOL_WORDS,
  SEASON_WORDS,
  SOIL_WORDS,
  SUN_WORDS,
} from '../survey/surveyWords.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import type { Visit } from '../visit/visit.ts';
import { lengthWords, listed, monthName, startWords, type ClockStyle } from '../words/words.ts';
import { say, wordsOf } from '../language/say.ts';

type FactName = Exclude<
  | keyof Settings
  | keyof Station
  | keyof Program
  | keyof SurveyFields
  | keyof SurveyStationFields
  | keyof FittedTimer
  | keyof Overruled
  | keyof Wish
  | keyof Visit,
  'number' | 'letter'
>;

const NAMES: Readonly<Record<FactName, string>> = wordsOf({
  accepted: 'accepted findings',
  allowance: 'water that may stand on the surface',
  apart: 'stations to keep apart',
  areaSquareMetres: 'area',
  asFound: 'settings as found',
  asLeft: 'settings as left',
  available: 'water the soil holds',
  backup: 'backup battery',
  batteryDate: 'battery installed',
  batteryKind: 'battery type',
  began: 'start of the visit',
  cause: 'confirmed cause',
  changers: 'who changes settings',
  clockReally: 'true time',
  clockShown: 'time on the display',
  complaint: 'what the homeowner says',
  cups: 'catch cups',
  cycleSeconds: 'longest cycle',
  days: 'watering days',
  daysPerWeek: 'days a week',
  decoder: 'decoder',
  decoderMark: 'mark on the decoder',
  decoderReadings: 'decoder readings',
  depletion: 'share of soil water that may be used',
  device: 'timer',
  display: 'display on arrival',
  done: 'work done',
  drip: 'drip line',
  dripAnyTime: 'drip at any time',
  dryBeforeMowing: 'lawn dry before mowing',
  dryFrom: 'lawn dry the evening before mowing, from',
  enabled: 'enabled',
  factoryBack: 'factory program came back',
  faults: 'faults',
  finishBeforeSunrise: 'minutes before sunrise to finish',
  finishBy: 'finish by',
  flow: 'flow test',
  flowLimitLpm: 'flow limit',
  flowLpm: 'flow',
  flowSensor: 'flow sensor',
  followUp: 'first watering to watch',
  group: 'group',
  head: 'head type',
  headCount: 'number of heads',
  headroomPercent: 'no overlaps up to',
  hundredMonth: 'month that 100 % stands for',
  intake: 'soil intake rate',
  keyIn: 'key-in card',
  ladders: 'dead-station checks',
  linkedTo: 'linked to station',
  liveTerminals: 'terminals with a wire',
  masterValve: 'master valve',
  minutesSpent: 'time on site',
  mode: 'watering',
  modules: 'modules',
  monthlyPercent: 'monthly percents',
  name: 'name',
  needsPump: 'needs the pump',
  next: 'planned visits',
  noWaterWindows: 'no-water hours',
  notBefore: 'not before',
  note: 'note',
  obeysRainSensor: 'rain sensor',
  offDaysOfMonth: 'no-water dates',
  oftenADay: 'several waterings a day',
  overhead: 'sprays overhead',
  overruled: 'own values',
  panel: 'panel lines checked',
  percentDrivenBy: 'who sets the percent',
  percentRange: 'percent range',
  photos: 'photos',
  plantFactor: 'plant factor',
  plants: 'plants',
  power: 'power',
  programs: 'programs',
  pump: 'pump',
  pumpRunsOn: 'pump keeps running between stations',
  rain: 'when it rains',
  rainShare: 'share of rain that counts',
  rate: 'application rate',
  rootMetres: 'root depth',
  rules: 'watering rules',
  runOff: 'run-off test',
  runs: 'run times',
  savedInside: 'settings saved in the timer',
  school: 'how minutes are worked out',
  season: 'through the year',
  seasonalPercent: 'seasonal percent',
  sensor: 'rain sensor',
  sensors: 'sensors',
  sightings: 'sightings',
  signs: 'signs on the display',
  slopePercent: 'slope',
  slowValveSeconds: 'slowest valve closes in',
  soakSeconds: 'shortest soak',
  soil: 'soil',
  starts: 'start times',
  stationDelaySeconds: 'station delay',
  stationsAtOnce: 'stations at once',
  surroundings: 'sun',
  switched: 'switched for the test',
  tankRefillMinutes: 'tank refill time',
  tariff: 'water price',
  tests: 'station tests',
  thumbMinutes: 'minutes by rule of thumb',
  totals: 'program totals',
  transformer: 'transformer',
  twoWire: 'two-wire',
  underCover: 'under cover',
  undone: 'not done at the last visit',
  uniformity: 'uniformity',
  unknownPhases: 'intervals not read',
  visit: 'visit',
  walked: 'walk',
  walkSeconds: 'run time on the walk',
  wateringResumes: 'watering resumes',
  waterings: 'waterings a week',
  weeklyMinutes: 'weekly minutes',
  weeklySeconds: 'need in a week',
  wish: 'preferences',
});

/** Name of a fact, as part of a sentence. */
export const factName = (field: string): string =>
  field in NAMES ? NAMES[field as FactName] : say`another setting`;

const VALUES: Partial<Record<FactName, Readonly<Record<string, string>>>> = {
  head: HEAD_WORDS,
  plants: PLANT_WORDS,
  surroundings: SUN_WORDS,
  soil: SOIL_WORDS,
  school: SCHOOL_WORDS,
  season: SEASON_WORDS,
  rain: RAIN_WORDS,
  power: POWER_WORDS,
  changers: CHANGER_WORDS,
  walked: wordsOf({ seen: 'walked', skipped: 'skipped' }),
  mode: wordsOf({ run: 'on', off: 'off' }),
  sensor: wordsOf({ active: 'active', bypass: 'bypassed', none: 'none fitted' }),
  percentDrivenBy: wordsOf({
    person: 'someone at the timer',
    sensor: 'a weather sensor',
    service: 'an online service',
  }),
  starts: wordsOf({
    one: 'one',
    repeated: 'repeated',
    'timer-soak': 'split by the timer',
    any: 'any',
  }),
  days: wordsOf({ weekdays: 'weekdays', interval: 'interval', any: 'any' }),
  programs: wordsOf({ one: 'one', any: 'any', 'by-need': 'by need' }),
};

const UNITS: Partial<Record<FactName, (value: number) => string>> = {
  areaSquareMetres: (value) => `${value} m²`,
  flowLimitLpm: (value) => `${value} L/min`,
  flowLpm: (value) => `${value} L/min`,
  hundredMonth: monthName,
  rate: (value) => `${value} mm/h`,
  intake: (value) => `${value} mm/h`,
  allowance: (value) => `${value} mm`,
  available: (value) => `${value} mm/m`,
  rootMetres: (value) => `${value} m`,
};

function numberWords(field: string, value: number): string {
  const own = UNITS[field as FactName];
  if (own) return own(value);
  if (field.endsWith('Seconds')) return lengthWords(value);
  if (field.endsWith('Minutes') || field === 'minutesSpent') return lengthWords(value * 60);
  return field.endsWith('Percent') ? `${value} %` : String(value);
}

const TIME = /^\d\d:\d\d(?::\d\d)?$/u;

/**
 * A value as text.
 *
 * @returns null if it has parts that would not read well in one line
 */
export function factValue(field: string, value: unknown, clock: ClockStyle): string | null {
  if (value === undefined || value === null) return say`none`;
  if (typeof value === 'boolean') return value ? say`yes` : say`no`;
  if (typeof value === 'number') return numberWords(field, value);
  if (typeof value === 'string')
    return (
      VALUES[field as FactName]?.[value] ?? (TIME.test(value) ? startWords(value, clock) : value)
    );
  if (field === 'noWaterWindows')
    // Safe cast: this field holds windows.
    return listed((value as NoWaterWindow[]).map((window) => windowWords(window, { clock })));
  if (field === 'rules') return allowedWords(value, { on: 0, clock });
  if (!Array.isArray(value)) return null;
  const parts = value.map((one) => (typeof one === 'object' ? null : factValue(field, one, clock)));
  return field === 'photos' || parts.includes(null) ? null : parts.join(', ');
}
