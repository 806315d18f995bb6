/** The strict reader against the published schema, on documents broken in thousands of ways. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import {
  faultLine,
  attempt,
  check,
  emptyPlan,
  notFitting,
  TIMER_KINDS,
  simulate,
  pathText,
  readPlan,
  readPlanText,
  writePlan,
  type Plan,
} from '@water-clock/core';
import { cases, enough } from './cases.ts';

const spec = new URL('../../../docs/spec/', import.meta.url);
const json = (name: string) => JSON.parse(readFileSync(new URL(name, spec), 'utf8')) as unknown;
const examples = readdirSync(new URL('examples/', spec))
  .filter((name) => name.endsWith('.plan.json'))
  .map((name) => json(`examples/${name}`) as Plan);
const bySchema = new Ajv2020({ strict: false, validateFormats: false }).compile(
  json('plan.schema.json') as object,
);

type Json = unknown;
/** Every place in a JSON value, including the root. */
function places(value: Json, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [path];
  return [
    path,
    ...Object.entries(value).flatMap(([key, child]) =>
      places(child, [...path, Array.isArray(value) ? Number(key) : key]),
    ),
  ];
}

function replaced(value: Json, path: (string | number)[], change: (old: Json) => Json): Json {
  const [key, ...rest] = path;
  if (key === undefined) return change(value);
  const copy = structuredClone(value) as Record<string | number, Json>;
  const result = replaced(copy[key], rest, change);
  if (result !== undefined) copy[key] = result;
  else if (Array.isArray(copy)) copy.splice(Number(key), 1);
  else delete copy[key];
  return copy;
}

const junk = fc.constantFrom<Json>(
  undefined,
  null,
  true,
  false,
  0,
  -1,
  1,
  1.5,
  60,
  501,
  86_401,
  1e300,
  '',
  'A',
  'a',
  '05:00',
  '24:00',
  '5:00',
  '2027-02-29',
  '2027-02-28',
  '2028-02-29T05:00',
  'mon',
  'daily',
  'queue',
  [],
  [1],
  ['mon', 'mon'],
  ['fri'],
  {},
  { rule: 'daily' },
  { rule: 'weekdays' },
  { rule: 'odd', extra: 1 },
  [{ number: 1 }],
);

/** A small change of the same kind, as people make by mistake. */
function nudged(old: Json, by: number): Json {
  if (typeof old === 'number') return old + ([-1, 1, 60][by % 4] ?? old);
  if (typeof old === 'boolean') return !old;
  if (typeof old === 'string') return old.replace(/\d/, String(by % 10));
  if (!Array.isArray(old)) return old;
  const list: readonly Json[] = old;
  return by % 2 ? list.slice(0, -1) : [...list, ...list.slice(-1)];
}

test('agrees with the schema on mutated documents, and is stricter only by its own rules', () => {
  const counts = { accepted: 0, refused: 0, byRulesAlone: 0 };
  fc.assert(
    fc.property(
      fc.constantFrom(...examples),
      fc.array(fc.tuple(fc.nat(), junk, fc.nat({ max: 19 })), { minLength: 1, maxLength: 2 }),
      (example, mutations) => {
        let document: Json = example;
        for (const [where, value, kind] of mutations) {
          const all = places(document);
          const path = all[where % all.length] ?? [];
          document = replaced(document, path, (old) => {
            if (kind > 4) return nudged(old, kind);
            if (kind > 0) return value;
            const isObject = typeof old === 'object' && old !== null && !Array.isArray(old);
            return isObject ? { ...old, surprise: value ?? null } : value;
          });
        }
        const read = readPlan(document);
        const sound = bySchema(document);
        if (read.ok) {
          counts.accepted++;
          expect(sound).toBe(true);
          expect(read.value).toEqual(document);
          // Every valid document is answered, or refused by path, by each question.
          const { value } = read;
          for (const question of [() => check(value, 21_000), () => simulate(value, 21_000, 2)]) {
            const answer = attempt<unknown>(question);
            if (!answer.ok) expect(answer.faults).toMatchObject([{ code: 'too-much-work' }]);
          }
        } else {
          counts.refused++;
          expect(read.faults.length).toBeGreaterThan(0);
          for (const fault of read.faults) expect(faultLine(fault)).toMatch(/^[\w.[\]]+: .{10,}/);
          if (sound) {
            counts.byRulesAlone++;
            // What a schema cannot express: calendar dates, and rules between fields.
            const codes = read.faults.map(({ code }) => code);
            const own = [
              'malformed',
              'repeated',
              'unknown-station',
              'beyond-timer',
              'starts-with-hours-rule',
              'no-free-second',
              'not-one-of',
            ];
            expect(own).toEqual(expect.arrayContaining(codes));
          }
        }
      },
    ),
    { seed: 42, numRuns: cases(1500) },
  );
  expect(counts.accepted).toBeGreaterThan(enough(125));
  expect(counts.refused).toBeGreaterThan(enough(750));
  expect(counts.byRulesAlone).toBeGreaterThan(enough(12));
});

test('every example goes out and in again without loss, also from a store that forgets the order of fields', () => {
  const shuffled = (value: Json): Json =>
    typeof value !== 'object' || value === null
      ? value
      : Array.isArray(value)
        ? value.map(shuffled)
        : Object.fromEntries(
            Object.entries(value)
              .reverse()
              .map(([k, v]) => [k, shuffled(v)]),
          );
  for (const example of examples) {
    const read = readPlan(shuffled(example));
    expect(read).toEqual({ ok: true, value: example });
    expect(read.ok && readPlanText(writePlan(read.value))).toEqual(read);
    expect(read.ok && writePlan(read.value)).toBe(writePlan(example));
  }
});

test('every kind of timer to begin with makes a sound plan, under a name of its own', () => {
  expect(new Set(TIMER_KINDS.map(({ name }) => name)).size).toBe(TIMER_KINDS.length);
  expect(TIMER_KINDS.length).toBeGreaterThanOrEqual(8);
  for (const kind of TIMER_KINDS) {
    const plan = emptyPlan(kind);
    expect(readPlan(plan)).toEqual({ ok: true, value: plan });
    // A plan at a kind's limits fits that kind.
    expect(notFitting(plan, kind)).toEqual([]);
  }
});

describe('each rule between fields is told by its path', () => {
  const [base] = examples;
  if (!base) throw new Error('no examples');
  const sound: Plan = {
    ...base,
    settings: {},
    stations: [{ number: 1 }, { number: 2 }],
    programs: [{ letter: 'A', starts: ['05:00'], runs: [], days: null }],
  };
  const [program] = sound.programs;
  const table: [string, unknown, string, string][] = [
    ['no object', 7, 'wrong-type', 'document'],
    ['another format', { ...sound, format: 'water-clock-brief' }, 'not-one-of', 'format'],
    ['version 2', { ...sound, version: 2, news: 1 }, 'wrong-version', 'version'],
    [
      'a station beyond the timer',
      { ...sound, stations: [{ number: 99 }] },
      'beyond-timer',
      'stations[0].number',
    ],
    [
      'a station twice',
      { ...sound, stations: [{ number: 1 }, { number: 1 }] },
      'repeated',
      'stations[1].number',
    ],
    [
      'a program beyond the timer',
      { ...sound, programs: [{ ...program, letter: 'Z' }] },
      'beyond-timer',
      'programs[0].letter',
    ],
    [
      'a program twice',
      { ...sound, programs: [program, program] },
      'repeated',
      'programs[1].letter',
    ],
    [
      'a run of an unlisted station',
      { ...sound, programs: [{ ...program, runs: [{ station: 3, seconds: 1 }] }] },
      'unknown-station',
      'programs[0].runs[0].station',
    ],
    [
      'a run twice',
      {
        ...sound,
        programs: [
          {
            ...program,
            runs: [
              { station: 1, seconds: 1 },
              { station: 1, seconds: 2 },
            ],
          },
        ],
      },
      'repeated',
      'programs[0].runs[1].station',
    ],
    [
      'hours with starts',
      {
        ...sound,
        programs: [
          { ...program, days: { rule: 'hours', everyHours: 5, first: '2027-01-01T05:00' } },
        ],
      },
      'starts-with-hours-rule',
      'programs[0].starts',
    ],
    [
      'a week all windows',
      { ...sound, settings: { noWaterWindows: [{ from: '08:00', to: '08:00' }] } },
      'no-free-second',
      'settings.noWaterWindows',
    ],
    [
      'a week all windows with its own',
      {
        ...sound,
        settings: { noWaterWindows: [{ from: '06:00', to: '20:00' }] },
        programs: [{ ...program, noWaterWindows: [{ from: '20:00', to: '06:00' }] }],
      },
      'no-free-second',
      'programs[0].noWaterWindows',
    ],
    [
      '29 February of no leap year',
      { ...sound, settings: { wateringResumes: '2027-02-29' } },
      'malformed',
      'settings.wateringResumes',
    ],
  ];
  test.each(table)('%s', (_name, document, code, path) => {
    const read = readPlan(document);
    expect(read.ok ? [] : read.faults.map((fault) => [fault.code, pathText(fault.path)])).toEqual([
      [code, path],
    ]);
  });

  const absurd = (more: Partial<Plan['timer']>, settings: Plan['settings'] = {}): Plan => ({
    ...sound,
    timer: { ...sound.timer, cycleSoak: 'station', ...more },
    settings,
    stations: [{ number: 1, cycleSeconds: 1, soakSeconds: 86_400 }],
    programs: [
      {
        letter: 'A',
        starts: ['05:00'],
        runs: [{ station: 1, seconds: 86_400 }],
        days: { rule: 'weekdays', weekdays: ['mon'] },
      },
    ],
  });
  const longest = (plan: Plan) => {
    const checked = attempt(() => check(plan, 21_000));
    return checked.ok ? checked.value.programs[0]?.cycleSeconds?.longest : checked.faults;
  };

  test('a day in pieces of a second with a day of soak each is worked out, not lived through', () => {
    expect(longest(absurd({}))).toBe(86_399 * 86_401 + 1);
  });

  test('and where an hour of the week is left for it, it is worked out or refused by path, in time', () => {
    const windows = [{ from: '05:00', to: '04:00', weekdays: ['mon'] }] as const;
    const others = [
      { from: '04:00', to: '04:00', weekdays: ['tue', 'wed', 'thu', 'fri', 'sat', 'sun'] },
    ] as const;
    const plan = absurd({ inWindow: 'pause' }, { noWaterWindows: [...windows, ...others] });
    expect(readPlan(plan).ok).toBe(true);
    const answer = longest(plan);
    // A cycle each week; refused by the runs that take too much work.
    if (typeof answer === 'number') expect(answer).toBeGreaterThan(86_399 * 7 * 86_400);
    else expect(answer).toEqual([{ code: 'too-much-work', path: ['programs', 0, 'runs'] }]);
  });
});
