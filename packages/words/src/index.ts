/** Who says the messages of the product in which language. English needs nobody: it stands in the code. */
import type { Speaker } from '@water-clock/core';
import { PSEUDO } from './pseudoName.ts';

export { PSEUDO } from './pseudoName.ts';

/** What each language is called in itself. */
export const LANGUAGE_NAMES = { en: 'English', es: 'Español' } as const;

const speakers = new Map<string, Promise<Speaker | null>>();

async function make(language: string): Promise<Speaker | null> {
  if (language === PSEUDO) return (await import('./pseudo.ts')).pseudoSpeaker;
  if (language === 'es') {
    const { speakerWith } = await import('./speakerWith.ts');
    const { default: catalogue } = await import('./catalogues/compiled/es.json', {
      with: { type: 'json' },
    });
    return speakerWith(language, catalogue);
  }
  return null;
}

/** The speaker of a language, loaded once; null: English, or a language that the product does not have. */
export function speakerOf(language: string): Promise<Speaker | null> {
  const known = speakers.get(language) ?? make(language);
  speakers.set(language, known);
  return known;
}
