/** Water sources as text. */
import type { Supply } from './site.ts';
import { wordsOf } from '../language/say.ts';

export const SUPPLY_WORDS: Record<Supply, string> = wordsOf({
  mains: 'town water',
  bore: 'a bore',
  pump: 'a pump from open water',
  tank: 'a tank',
});
