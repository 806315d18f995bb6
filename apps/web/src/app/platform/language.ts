/** The language of this page: the person's, else the device's. It is spoken before anything is drawn, and another one loads the page again. */
import {
  language as spokenLanguage,
  LANGUAGES,
  setTranslator,
  type Language,
} from '@water-clock/core';
import { PSEUDO, translatorOf } from '@water-clock/words';
import type { UserPreferences } from '../../data/api/userPreferences.ts';

/** What the person chose, else what the device speaks, else English. Tests may ask for the pseudo-language by the address. */
export function languageOf(liked: UserPreferences): Language | typeof PSEUDO {
  if (new URLSearchParams(location.search).get('language') === PSEUDO) return PSEUDO;
  const device = navigator.language.split('-')[0];
  return liked.language ?? LANGUAGES.find((one) => one === device) ?? 'en';
}

/** Speaks a language from now on. The library's own words follow. */
export async function speak(language: string): Promise<void> {
  const speaker = await translatorOf(language);
  setTranslator(speaker);
  document.documentElement.lang = language;
  if (language === 'es') {
    const [{ default: dayjs }] = await Promise.all([import('dayjs'), import('dayjs/locale/es.js')]);
    dayjs.locale('es');
  }
}

/** Whether the page speaks what it should; a choice made on another device comes with the session. */
export const isSpoken = (liked: UserPreferences): boolean => languageOf(liked) === spokenLanguage();
