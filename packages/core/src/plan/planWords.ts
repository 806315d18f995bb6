/** Programs and stations in messages. */
import { listed, type Speech } from '../words/words.ts';
import type { Dialect, Plan } from './plan.ts';
import type { Missing } from './program.ts';
import { say, wordsOf } from '../language/say.ts';

const MISSING_WORDS: Record<Missing, string> = wordsOf({
  starts: 'a start time',
  runs: 'a run time on an enabled station',
  days: 'watering days',
});

/** What an incomplete program lacks, and the consequence. */
export function missingSentence(letter: string, missing: readonly Missing[]): string {
  return say`${letter} never waters: it needs ${listed(missing.map((missing) => MISSING_WORDS[missing]))}.`;
}

/** `B` or `2`, as this timer names its programs. */
export const programLabel = (letter: string, { programLabels = 'letters' }: Dialect): string =>
  programLabels === 'numbers' ? String(letter.charCodeAt(0) - 64) : letter;
/** Whose timer it is, and the reader. */
export interface TimerSpeech extends Speech {
  readonly plan: Plan;
}

export const labelOf = (letter: string, { plan }: TimerSpeech) =>
  programLabel(letter, plan.timer.dialect ?? {});
/** `Back lawn (station 2)`, `station 5`; null: `something`. */
export function stationOrSomething(station: number | null, plan: Plan): string {
  if (station === null) return say`something`;
  const name = plan.stations.find(({ number }) => number === station)?.name;
  return name ? say`${name} (station ${station})` : say`station ${station}`;
}
