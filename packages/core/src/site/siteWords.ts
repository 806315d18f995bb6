import type { Supply } from './site.ts';

export const SUPPLY_WORDS: Record<Supply, string> = {
  mains: 'the mains',
  bore: 'a bore',
  pump: 'a pump from open water',
  tank: 'a tank',
};
