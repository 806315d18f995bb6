/** Translators of the product's messages. English needs none: it is in the code. */
import type { Translator } from '@water-clock/core';
import { PSEUDO } from './pseudoName.ts';

export { PSEUDO } from './pseudoName.ts';

/** Each language's name for itself. */
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

/** The translator of a language, loaded once; null: English, or an unknown language. */
export function translatorOf(language: string): Promise<Translator | null> {
  const known = speakers.get(language) ?? make(language);
  speakers.set(language, known);
  return known;
}
