/** The pseudo-language: letters with accents, two fifths longer, in brackets. Text without them has escaped the catalogues. */
import type { Translator } from '@water-clock/core';
import { byIntl } from './byIntl.ts';
import { PSEUDO } from './pseudoName.ts';

const MARKED: Readonly<Record<string, string>> = {
  ...{ a: 'á', e: 'é', i: 'í', o: 'ó', u: 'ú', A: 'Á', E: 'É', I: 'Í', O: 'Ó', U: 'Ú' },
};
const LONGER = 0.4;

function marked(text: string): string {
  const room = '·'.repeat(Math.ceil(text.replaceAll(/\{\d+\}/gu, '').length * LONGER));
  return `⟦${text.replaceAll(/[aeiouAEIOU]/gu, (letter) => MARKED[letter] ?? letter)}${room}⟧`;
}

const { number: _number, ...rest } = byIntl('en');

export const pseudoTranslator: Translator = {
  ...rest,
  language: PSEUDO,
  say: (message, values) => {
    const [, one = '', other = ''] =
      /^\{0, plural, one \{(.*)\} other \{(.*)\}\}$/u.exec(message) ?? [];
    const text = other === '' ? message : values[0] === 1 ? one : other;
    return marked(text)
      .replace('#', other === '' ? '#' : String(values[0]))
      .replaceAll(/\{(\d+)\}/gu, (_, i: string) => String(values[Number(i)] ?? ''));
  },
};
