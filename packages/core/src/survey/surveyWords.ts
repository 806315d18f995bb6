/** Names of survey facts, short enough for a button. */
import type { HeadType, Plants, SoilType, Surroundings } from '../water/tables.ts';
import type {
  FittedTimer,
  TimerSensor,
  Defect,
  Urgency,
  RainWay,
  School,
  SeasonWay,
} from './survey.ts';
import { wordsOf } from '../language/say.ts';

export const HEAD_WORDS: Record<HeadType, string> = wordsOf({
  'fixed-spray': 'Fixed spray',
  'rotating-stream': 'Rotating streams',
  'gear-rotor': 'Gear-driven rotor',
  'impact-rotor': 'Impact rotor',
  bubbler: 'Bubbler',
  drip: 'Drip',
  'micro-spray': 'Micro-spray',
});

export const PLANT_WORDS: Record<Plants, string> = wordsOf({
  'cool-season-lawn': 'Cool-season lawn',
  'warm-season-lawn': 'Warm-season lawn',
  'annual-flowers': 'Annual flowers',
  'trees-and-shrubs': 'Trees, shrubs',
  'trees-and-shrubs-wet': 'Shrubs, wet climate',
  'desert-adapted': 'Desert-adapted',
  'vegetables-and-fruit': 'Vegetables, fruit',
  'new-seed-or-turf': 'New seed or turf',
});

export const SUN_WORDS: Record<Surroundings, string> = wordsOf({
  'deep-shade': 'Deep shade',
  'part-shade': 'Part shade',
  'full-sun': 'Full sun',
  'hot-wall': 'Hot wall',
});

export const SOIL_WORDS: Record<SoilType, string> = wordsOf({
  sand: 'Sand',
  'sandy-loam': 'Sandy loam',
  loam: 'Loam',
  'clay-loam': 'Clay loam',
  clay: 'Clay',
});

export const DEFECT_WORDS: Record<Defect, string> = wordsOf({
  'broken-head': 'broken head',
  'clogged-head': 'clogged head',
  'tilted-head': 'tilted head',
  'sunken-head': 'sunken or buried head',
  overspray: 'overspray on paths',
  leak: 'leak',
  pooling: 'standing water',
  'low-pressure': 'low pressure',
  'high-pressure': 'high pressure, mist',
  'valve-stuck-closed': 'valve does not open',
  'valve-stuck-open': 'valve does not close',
  'valve-slow-to-close': 'valve slow to close',
  'open-circuit': 'open circuit',
  'short-circuit': 'short circuit',
  'common-broken': 'broken common wire',
  solenoid: 'bad solenoid (ohms or amps in the note)',
  decoder: 'decoder does not answer',
});

export const URGENCY_WORDS: Record<Urgency, string> = wordsOf({
  'can-wait': 'can wait',
  soon: 'soon',
  'at-once': 'now',
});

export const SCHOOL_WORDS: Record<School, string> = wordsOf({
  thumb: 'Rule of thumb',
  weekly: 'Weekly minutes',
  balance: 'Water balance',
});

export const SEASON_WORDS: Record<SeasonWay, string> = wordsOf({
  percent: 'by percent, with fixed days',
  days: 'by days, with fixed minutes',
  never: 'not at all',
});

export const RAIN_WORDS: Record<RainWay, string> = wordsOf({
  sensor: 'a sensor',
  delay: 'the rain delay',
  'switch-off': 'switching the timer off',
});

export const POWER_WORDS: Record<NonNullable<FittedTimer['power']>, string> = wordsOf({
  mains: 'mains, transformer inside',
  adapter: 'plug-in adapter',
  battery: 'battery only',
});

export const SENSOR_WORDS: Record<TimerSensor['kind'], string> = wordsOf({
  rain: 'rain sensor',
  freeze: 'freeze sensor',
  flow: 'flow sensor',
  soil: 'soil sensor',
});

export const CHANGER_WORDS: Record<NonNullable<FittedTimer['changers']>[number], string> = wordsOf({
  homeowner: 'the homeowner',
  'weather-sensor': 'a weather sensor',
  'online-service': 'an online service',
  'other-technician': 'another technician',
});
