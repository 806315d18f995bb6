/** Where a figure comes from, and what is missing, as messages. */
import type { Source } from './figures.ts';
import type { Lacking, Step } from './schools.ts';
import { wordsOf } from '../language/say.ts';

export const SOURCE_WORDS: Record<Source, string> = wordsOf({
  overruled: 'your own value',
  measured: 'measured here',
  noted: 'recorded here',
  table: 'default from our table',
  office: 'the office’s table',
  weather: 'local weather',
  rules: 'the local rules',
  programs: 'the programs as set',
  assumed: 'assumed',
});

export const LACKING_WORDS: Record<Lacking, string> = wordsOf({
  head: 'the head type',
  plants: 'the plants',
  waterings: 'the waterings a week',
  rate: 'its precipitation rate (from cups, or from flow and area)',
  climate: 'the local weather',
});

export const STEP_WORDS: Record<Step['what'], string> = wordsOf({
  'thumb-minutes': 'Minutes per watering',
  'weekly-minutes': 'Minutes a week in midsummer',
  waterings: 'Waterings a week',
  sun: 'Sun',
  soil: 'Soil',
  plants: 'Plants',
  heads: 'Heads per area',
  month: '100 % stands for',
  eto: 'Reference evapotranspiration',
  'plant-factor': 'Plant factor',
  surroundings: 'Sun, shade, heat',
  'rain-share': 'Share of rain that counts',
  rain: 'Rain that counts',
  'net-need': 'Net need',
  rate: 'Precipitation rate',
  uniformity: 'Uniformity',
  multiplier: 'Scheduling multiplier for dry spots',
});
