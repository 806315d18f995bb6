import type { Source } from './figures.ts';
import type { Lacking, Step } from './schools.ts';

export const SOURCE_WORDS: Record<Source, string> = {
  overruled: 'your own number',
  measured: 'measured here',
  noted: 'noted here',
  table: 'starting value of the table',
  office: 'table of the office',
  weather: 'weather of the place',
  assumed: 'assumed',
};

export const LACKING_WORDS: Record<Lacking, string> = {
  head: 'the head type',
  plants: 'the plants',
  rate: 'how fast it puts water down (cups, or flow and area)',
  climate: 'the weather of the place',
};

export const STEP_WORDS: Record<Step['what'], string> = {
  'thumb-minutes': 'Minutes a watering',
  'weekly-minutes': 'Minutes a week in high summer',
  waterings: 'Waterings a week',
  sun: 'Sun',
  soil: 'Soil',
  plants: 'Plants',
  heads: 'Heads for the area',
  month: 'Month of 100 %',
  eto: 'Reference evapotranspiration',
  'plant-factor': 'Plant factor',
  surroundings: 'Sun, shade, heat',
  'rain-share': 'Share of rain that counts',
  rain: 'Rain that counts',
  'net-need': 'Net need',
  rate: 'Precipitation rate',
  uniformity: 'Uniformity',
  multiplier: 'Longer for the dry places',
};
