/** A translator with a catalogue: i18next, with ICU messages. A message missing from the catalogue is returned in English. */
import type { MessageValue, Translator } from '@water-clock/core';
import { createInstance } from 'i18next';
import ICU from 'i18next-icu';
import { byIntl } from './byIntl.ts';

export function translatorWith(
  language: string,
  catalogue: Readonly<Record<string, string>>,
): Translator {
  const i18n = createInstance();
  const { number, ...rest } = byIntl(language);
  // The casts are for a library whose types only describe its own module format.
  void i18n.use(new (ICU as unknown as new () => never)()).init({
    lng: language,
    fallbackLng: false,
    resources: { [language]: { translation: catalogue } },
    keySeparator: false,
    nsSeparator: false,
    initAsync: false,
    showSupportNotice: false,
    interpolation: { escapeValue: false },
  } as object);
  const said = (value: MessageValue) => (typeof value === 'number' ? number(value) : (value ?? ''));
  return {
    ...rest,
    say: (message, values) => {
      const isPlural = message.includes(', plural,');
      const named = Object.fromEntries(
        values.map((value, i) => [String(i), isPlural ? value : said(value)]),
      );
      // A value may end as the sentence does, such as `p. m.`
      return i18n.t(message, named).replaceAll(/(?<!\.)\.\.(?!\.)/gu, '.');
    },
  };
}
