/** The language of the page: the person's, otherwise the device's. It is set before anything is drawn; changing it reloads the page. */
import {
  language as spokenLanguage,
  LANGUAGES,
  setTranslator,
  type Language,
} from '@water-clock/core';
import { PSEUDO, translatorOf } from '@water-clock/words';
import type { UserPreferences } from '../../data/api/userPreferences.ts';

/** The person's choice, otherwise the device's language, otherwise English. Tests can ask for the pseudo-language in the address. */
export function languageOf(liked: UserPreferences): Language | typeof PSEUDO {
  if (new URLSearchParams(location.search).get('language') === PSEUDO) return PSEUDO;
  const device = navigator.language.split('-')[0];
  return liked.language ?? LANGUAGES.find((one) => one === device) ?? 'en';
}

/** Sets the language, including that of the component library. */
export async function speak(language: string): Promise<void> {
  const speaker = await translatorOf(language);
  setTranslator(speaker);
  document.documentElement.lang = language;
  if (language === 'es') {
    const [{ default: dayjs }] = await Promise.all([import('dayjs'), import('dayjs/locale/es.js')]);
    dayjs.locale('es');
  }
}

/** Whether the page is in the right language; a choice made on another device arrives with the session. */
export const isSpoken = (liked: UserPreferences): boolean => languageOf(liked) === spokenLanguage();
