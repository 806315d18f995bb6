import type { BenchKey } from '@water-clock/core';

/** What stands on the keys of the bench. */
export const KEY_WORDS: Readonly<Record<BenchKey, string>> = {
  'page-back': 'page back',
  'page-on': 'page on',
  less: '−',
  more: '+',
  program: 'program',
  'by-hand': 'by hand',
  store: 'store',
  rest: 'rest',
};
