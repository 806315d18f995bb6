/** Who says the messages of the product in which language. English needs nobody: it stands in the code. */
import type { Translator } from '@water-clock/core';
import { PSEUDO } from './pseudoName.ts';

export { PSEUDO } from './pseudoName.ts';

/** What each language is called in itself. */
export const LANGUAGE_NAMES = { en: 'English', es: 'Español' } as const;

const speakers = new Map<string, Promise<Translator | null>>();

async function make(language: string): Promise<Translator | null> {
  if (language === PSEUDO) return (await import('./pseudo.ts')).pseudoTranslator;
  if (language === 'es') {
    const { translatorWith } = await import('./translatorWith.ts');
    const { default: catalogue } = await import('./catalogues/compiled/es.json', {
      with: { type: 'json' },
    });
    return translatorWith(language, catalogue);
  }
  return null;
}

/** The speaker of a language, loaded once; null: English, or a language that the product does not have. */
export function translatorOf(language: string): Promise<Translator | null> {
  const known = speakers.get(language) ?? make(language);
  speakers.set(language, known);
  return known;
}
