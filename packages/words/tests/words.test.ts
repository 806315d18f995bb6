/** The catalogues: up to date, complete, and with the same values in each message; and the translators. */
import { describe, expect, test } from '@jest/globals';
import {
  dateWords,
  daysWords,
  EMPTY_SURVEY,
  emptyPlan,
  faultSentence,
  homeownerPage,
  doorCard,
  language,
  listed,
  monthName,
  NO_OFFICE,
  parseDate,
  plural,
  readPlan,
  readTask,
  readTimerKind,
  restoreWords,
  say,
  sayAs,
  sayText,
  SHIPPED_KINDS,
  SHIPPED_TASKS,
  withTranslator,
  spokenTask,
  timeWords,
  type Fault,
  type Outcome,
  type PageSources,
  type Translator,
} from '@water-clock/core';
import { IntlMessageFormat } from 'intl-messageformat';
import { named, namesIn, numbered, renumbered } from '../../../scripts/words/placeholders.mjs';
import { oldWordsIn } from '../../../scripts/words/oldWords.mjs';
import { rewordCode, rewordedText } from '../../../scripts/words/reword.mjs';
import { messages, readCatalogue } from '../../../scripts/words.mjs';
import { PSEUDO, translatorOf } from '../src/index.ts';

const speaker = async (name: string): Promise<Translator> => {
  const found = await translatorOf(name);
  if (!found) throw new Error(`nobody speaks ${name}`);
  return found;
};
const DAY = parseDate('2027-06-09') ?? 0;

describe('the catalogues', () => {
  const english = readCatalogue('en');
  const spanish = readCatalogue('es');

  test('English has every message of the code, and nothing else: run npm run words', () => {
    expect([...english.keys()].sort()).toEqual([...messages().keys()].sort());
  });

  test('Spanish has every message, none fuzzy, each with the same values, and each can be said', () => {
    const values = (text: string) => [...new Set(text.match(/\{\d+(?=[,}])/gu) ?? [])].sort();
    const lacking = [...english.keys()].filter((message) => !spanish.get(message)?.text);
    expect(lacking).toEqual([]);
    const fuzzy = [...spanish].filter(([, { isFuzzy }]) => isFuzzy).map(([message]) => message);
    expect(fuzzy).toEqual([]);
    const numbers = { 0: 2, 1: 2, 2: 2, 3: 2, 4: 2, 5: 2, 6: 2 };
    const broken = [...spanish].filter(
      ([message, { text }]) =>
        String(values(text)) !== String(values(message)) ||
        String(new IntlMessageFormat(text, 'es').format(numbers)) === '',
    );
    expect(broken).toEqual([]);
  });

  test('no message uses a word that the glossary has given up', () => {
    expect(oldWordsIn(english.keys())).toEqual([]);
    expect(
      oldWordsIn(['Hours without water', 'Frozen as found', 'noteds', '{noted} by {0}']),
    ).toEqual([
      '“Hours without water” says “hours without water”; say “no-water hours”',
      '“Frozen as found” says “frozen”; say “saved”',
    ]);
  });

  test('values have names for translators, and numbers in what the application loads', () => {
    for (const [text, names] of [
      ['{program} starts at {start}, as {A} shows it', ['program', 'start']],
      ['{count, plural, one {station} other {# stations}}', ['count']],
    ] as const) {
      expect(namesIn(text)).toEqual(names);
      expect(named(numbered(text, names), names)).toBe(text);
    }
    const spanish = 'a las {start} empieza {program}';
    expect(numbered(spanish, ['program', 'start'])).toBe('a las {1} empieza {0}');
    // Rewording that reorders values in English reorders the translation too.
    expect(renumbered('At {1}: {0}', ['At {1}: {0}', 'a las {1} empieza {0}'])).toEqual([
      'At {0}: {1}',
      'a las {0} empieza {1}',
    ]);
    const digits = [...readCatalogue('en').keys()].filter((key) => /\{(?!\d+[,}])\w+\}/u.test(key));
    expect(digits.filter((key) => !key.includes('{A}') && !key.startsWith('{0, plural'))).toEqual(
      [],
    );
  });

  test('a message is reworded in its template, its table and its plural, with its values in their places', async () => {
    const source = `say\`${'Station ${n} of ${all}'} \`; wordsOf({ a: 'Off' }); plural(n, '# box', '# boxes'); sayAs('switch')\`Off\`;`;
    const pairs = new Map([
      ['Station {0} of {1}', 'All {1}, of them {0}'],
      ['Off', "It's off"],
      ['{0, plural, one {# box} other {# boxes}}', '{0, plural, one {1 timer} other {# timers}}'],
      ['switch\u0004Off', 'Away'],
    ]);
    expect(rewordedText(source, pairs)).toBe(
      `say\`${'All ${all}, of them ${n}'} \`; wordsOf({ a: "It's off" }); plural(n, '1 timer', '# timers'); sayAs('switch')\`Away\`;`,
    );
    const nested = 'say`Of ${n}: ${one ? say`it` : say`them`}`;';
    const both = new Map([
      ['Of {0}: {1}', '{1} of {0}'],
      ['them', 'all'],
    ]);
    expect(rewordedText(nested, both)).toBe('say`${one ? say`it` : say`all`} of ${n}`;');
    await expect(rewordCode(new Map([['Station {0}', 'Station']]))).rejects.toThrow(/values/);
  });
});

describe('a speaker', () => {
  test('says what English says, in its own words, dates, lists and numbers', async () => {
    const es = await speaker('es');
    withTranslator(es, () => {
      expect(say`Station ${3} is in no program and never waters.`).toBe(
        'La estación 3 no está en ningún programa y nunca riega.',
      );
      expect([plural(1, '# day', '# days'), plural(3, '# day', '# days')]).toEqual([
        '1 día',
        '3 días',
      ]);
      expect(dateWords(DAY, DAY)).toBe('mié, 9 de junio');
      expect(dateWords(DAY, null)).toBe('mié, 9 de junio de 2027');
      expect(listed(['a', 'b', 'c'])).toBe('a, b y c');
      expect(listed(['a', 'b'], 'or')).toBe('a o b');
      expect(monthName(9)).toBe('septiembre');
      expect(timeWords(17.5 * 3600, '12')).toBe('5:30 pm');
      expect(say`${1.5} min`).toBe('1,5 min');
      expect(daysWords({ rule: 'weekdays', weekdays: ['mon', 'thu'] })).toBe('lun jue');
      expect(language()).toBe('es');
    });
    expect(say`Station ${3}`).toBe('Station 3');
    expect(language()).toBe('en');
  });

  test('a name with marks of the message form in it stays as it is', async () => {
    const es = await speaker('es');
    withTranslator(es, () => {
      expect(say`Station ${"{0} '# <b>"}`).toBe("Estación {0} '# <b>");
      expect(sayText("An office’s own line, with {A} and '")).toBe(
        "An office’s own line, with {A} and '",
      );
    });
  });

  test('a word in a context has a translation of its own, or that without the context', () => {
    const words = new Map([
      ['switch\u0004off', 'apagado'],
      ['off', 'quitado'],
    ]);
    const made = {
      ...{ language: 'es', list: () => '', date: () => '' },
      say: (message: string) => words.get(message) ?? message,
    };
    withTranslator(made, () => {
      expect([sayAs('switch')`off`, sayAs('label')`off`, say`off`]).toEqual([
        ...['apagado', 'quitado', 'quitado'],
      ]);
    });
    expect(sayAs('switch')`off`).toBe('off');
  });

  test('whoever speaks stops when the work ends, also where it fails', async () => {
    const es = await speaker('es');
    expect(() =>
      withTranslator(es, () => {
        throw new Error('no');
      }),
    ).toThrow('no');
    expect(language()).toBe('en');
    expect(await translatorOf('xx')).toBeNull();
  });

  test('the pseudo-language marks every message, and makes it two fifths longer', async () => {
    const pseudo = await speaker(PSEUDO);
    withTranslator(pseudo, () => {
      expect(say`No watering yet`).toMatch(/^⟦Nó wátéríng yét·{6}⟧$/u);
      expect(say`Station ${3}`).toBe('⟦Státíón 3···⟧'.replace('···', '····'));
      expect(plural(2, '# day', '# days')).toMatch(/^⟦2 dáys·+⟧$/u);
    });
  });
});

describe('what stays with the homeowner, in Spanish', () => {
  const KINDS = SHIPPED_KINDS.map(({ kind }) => kind);
  const sourcesOf = (kind: (typeof KINDS)[number]): PageSources => ({
    plan: {
      ...emptyPlan(kind.timer),
      stations: [{ number: 1, name: 'Césped' }],
      programs: [
        {
          ...{ letter: 'A', starts: ['04:00'], runs: [{ station: 1, seconds: 1200 }] },
          days: { rule: 'weekdays', weekdays: ['mon', 'wed'] },
        },
      ],
    },
    ...{ survey: EMPTY_SURVEY, kind, house: 'Casa del Membrillo', houseNumber: '7' },
    ...{ company: 'Riegos Brindle', office: { ...NO_OFFICE, phone: '555 0100' } },
    ...{ allowed: null, today: DAY, clock: '24', language: 'es' },
  });

  /** Texts of a document, without its field names. */
  const textsIn = (value: unknown): string =>
    typeof value === 'string'
      ? value
      : typeof value === 'object' && value !== null
        ? Object.values(value).map(textsIn).join('\n')
        : '';

  /** English messages that are the same in Spanish, and what is not a word. */
  const ALIKE = new Set(
    [...readCatalogue('es')].flatMap(([message, { text }]) => (message === text ? [message] : [])),
  );

  test.each(KINDS.map((kind) => [kind.timer.name, kind] as const))(
    'of a %s, page, card and telephone say nothing in English',
    async (_name, kind) => {
      const es = await speaker('es');
      const escaped: string[] = [];
      const marking: Translator = {
        ...es,
        say: (message, values) => {
          if (es.say(message, values) === message && !ALIKE.has(message)) escaped.push(message);
          return es.say(message, values);
        },
      };
      const told = withTranslator(marking, () => {
        const sources = sourcesOf(kind);
        const card = doorCard({ ...sources, author: 'TO' });
        return textsIn([homeownerPage(sources), card, restoreWords(sources.plan, kind, '24')]);
      });
      expect(escaped.filter((message) => /[a-z]{3}/u.test(message))).toEqual([]);
      expect(told).toMatch(/Su riego: Casa del Membrillo, n\.º 7/u);
      expect(told).not.toMatch(/\b(the|and|waters|start|station|when|every)\b/u);
    },
  );
});

describe('what is printed, in the language of tests', () => {
  /** What stands outside the marks of messages. */
  function outside(text: string): string {
    let depth = 0;
    return [...text]
      .filter((letter) => {
        if (letter === '⟦') depth++;
        const isOut = depth === 0;
        if (letter === '⟧') depth--;
        return isOut;
      })
      .join('');
  }
  const textsIn = (value: unknown): string[] =>
    typeof value === 'string'
      ? [value]
      : typeof value === 'object' && value !== null
        ? Object.values(value).flatMap(textsIn)
        : [];
  /** Names of the site and the office; what a display shows; dates and units, which are the language's own. */
  const DATA =
    /Quince|Brindle|Lawn|Roses|Hedge|Strip|\bmin\b|https?:\S*|\b(TO|am|pm|[A-Z]{2,}|Mon|Tue|Wed|Thu|Fri|Sat|Sun|Jan(uary)?|Feb(ruary)?|Mar(ch)?|Apr(il)?|May|June?|July?|Aug(ust)?|Sep(tember)?|Oct(ober)?|Nov(ember)?|Dec(ember)?)\b/gu;
  const RULES = [
    { rule: 'weekdays', weekdays: ['mon', 'wed'] },
    { rule: 'interval', everyDays: 3, firstDate: '2027-06-01' },
    { rule: 'odd' },
    { rule: 'even' },
  ] as const;

  test.each(SHIPPED_KINDS.map(({ kind }) => [kind.timer.name, kind] as const))(
    'of a %s, no text on the page and the card for the box is without a message',
    async (_name, kind) => {
      const pseudo = await speaker(PSEUDO);
      const names = ['Lawn', 'Roses', 'Hedge', 'Strip'].slice(0, kind.timer.stationCount);
      const letters = ['A', 'B', 'C', 'D'].slice(0, kind.timer.programCount);
      const plan = {
        ...emptyPlan(kind.timer),
        stations: names.map((name, i) => ({
          number: i + 1,
          name,
          ...(i === 1 ? { enabled: false } : {}),
        })),
        programs: letters.map((letter, i) => ({
          ...{ letter, starts: ['04:00'], runs: [{ station: 1, seconds: 1200 }] },
          days: RULES[i] ?? RULES[0],
        })),
      };
      const sources: PageSources = {
        ...{ plan, survey: EMPTY_SURVEY, kind, house: 'Quince', houseNumber: '7' },
        ...{ company: 'Brindle', office: { ...NO_OFFICE, phone: '555 0100' } },
        ...{ allowed: null, today: DAY, clock: '12', language: 'en' },
      };
      const told = withTranslator(pseudo, () => {
        const page = homeownerPage(sources);
        const { language: _language, ...card } = {
          language: '',
          ...doorCard({ ...sources, author: 'TO' }),
        };
        return textsIn([page, card, restoreWords(plan, kind, '12')]);
      });
      const escaped = told.filter((text) => /\p{L}{3}/u.test(outside(text).replaceAll(DATA, '')));
      expect([...new Set(escaped)]).toEqual([]);
    },
  );
});

describe('documents', () => {
  /** The same document many times, each with one value removed or changed. */
  function* spoiled(value: unknown): Generator<unknown> {
    if (typeof value !== 'object' || value === null) return;
    for (const key of Object.keys(value)) {
      // Safe cast: a list is an object with numeric keys.
      const fields = value as Record<string, unknown>;
      const copy = (one: unknown) =>
        Array.isArray(value)
          ? value.map((item: unknown, i) => (String(i) === key ? one : item))
          : { ...fields, [key]: one };
      if (!Array.isArray(value)) {
        const { [key]: _, ...rest } = fields;
        yield rest;
      }
      for (const one of [true, 'what?', -0.5, 1e9, [], {}]) yield copy(one);
      for (const inner of spoiled(fields[key])) yield copy(inner);
    }
  }
  const [kind] = SHIPPED_KINDS;
  const task = SHIPPED_TASKS.find(({ id }) => id === 'find-04-percent')?.task;
  const cases: readonly (readonly [string, unknown, (document: unknown) => Outcome<unknown>])[] = [
    ['a plan', task?.scene.plan, readPlan],
    ['a kind', kind?.kind, readTimerKind],
    ['a task', { ...task, scene: { ...task?.scene, plan: null }, card: undefined }, readTask],
  ];

  test.each(cases)('whatever is wrong with %s is said in Spanish', async (_, document, read) => {
    const es = await speaker('es');
    const said = new Set<string>();
    for (const one of spoiled(document)) {
      const outcome = withTranslator(es, () => read(one));
      const faults: readonly Fault[] = outcome.ok ? [] : outcome.faults;
      for (const fault of faults) said.add(withTranslator(es, () => faultSentence(fault)));
    }
    expect(said.size).toBeGreaterThan(20);
    // Values, field names and their allowed values stay as in the document.
    const english =
      /\b(the|of|its|list|to|or|expected|found|above|when|where|how|whose)\b(?! \d)/iu;
    const kept = (sentence: string) => sentence.replaceAll(/"[^"]*"|permitidos?: .*/gu, '');
    expect([...said].filter((sentence) => english.test(kept(sentence)))).toEqual([]);
  });

  test('a task that ships is Spanish to the last hint, one of an office as it was written', async () => {
    const es = await speaker('es');
    for (const { task: shipped } of SHIPPED_TASKS) {
      const own = withTranslator(es, () => spokenTask(shipped));
      const texts = (one: typeof shipped) => [one.title, one.says, ...one.hints];
      texts(shipped).forEach((text, i) => expect(texts(own)[i]).not.toBe(text));
    }
    const [first] = SHIPPED_TASKS;
    if (!first) throw new Error('no task ships');
    const office = { ...first.task, title: 'Box by the gate' };
    expect(withTranslator(es, () => spokenTask(office)).title).toBe('Box by the gate');
  });
});
