import type { BenchKey } from '@water-clock/core';
import { say } from '@water-clock/core';

/** Labels on the bench's keys. */
export const KEY_WORDS: Readonly<Record<BenchKey, string>> = {
  'page-back': say`page back`,
  'page-on': say`page on`,
  less: '−',
  more: '+',
  program: say`program`,
  'by-hand': say`manual`,
  store: say`enter`,
  rest: say`off`,
};
