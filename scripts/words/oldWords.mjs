/** Words that messages no longer use, as listed in docs/glossary.md. */
import fs from 'node:fs';
import path from 'node:path';
import { ROOT } from '../setup.mjs';

const SECTION = '## Words we no longer use';
const ROW = /^\| (?<old>[^|]+?) \| (?<now>[^|]+?) \|$/gmu;

/** @returns {{ old: string, now: string }[]} each word, and its replacement */
function oldWords() {
  const text = fs.readFileSync(path.join(ROOT, 'docs/glossary.md'), 'utf8');
  const [, section = ''] = text.split(SECTION);
  return [...section.matchAll(ROW)]
    .map(({ groups }) => ({ old: groups.old, now: groups.now }))
    .filter(({ old }) => old !== 'not' && !/^-+$/u.test(old));
}

/**
 * Where messages use them: whole words, in any case.
 *
 * @param {Iterable<string>} messages with values as `{0}` or by name
 * @returns {string[]} a line for each
 */
export function oldWordsIn(messages, words = oldWords()) {
  const patterns = words.map(({ old, now }) => ({
    old,
    now,
    pattern: new RegExp(
      `(?<![\\p{L}{])${old.replaceAll(/[.*+?^$()|[\]\\]/gu, '\\$&')}(?![\\p{L}}])`,
      'iu',
    ),
  }));
  return [...messages].flatMap((message) =>
    patterns
      .filter(({ pattern }) => pattern.test(message))
      .map(({ old, now }) => `“${message}” says “${old}”; say “${now}”`),
  );
}
