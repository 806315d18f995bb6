/** Helpers of the pages: requests, time zones, files, a kind from answers, curves, and worker answers. */
import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { parseDate, readTimerKind, TIMER_KINDS, type Plan, formatMoment } from '@water-clock/core';
import { RefusedError, request, UnreachableError } from '../src/data/api/request.ts';
import { confirming } from '../src/data/api/confirming.ts';
import { curveGeometry } from '../src/shared/charts/curveGeometry.ts';
import { kindOfAnswers, USUAL_ANSWERS, type Answers } from '../src/office/library/kindQuestions.ts';
import { datesText, endsOf, ruleWords, spansWords, weekWords } from '../src/visit/planner/facts.ts';
import { csvText, rowsOf } from '../src/app/platform/csv.ts';
import { civilSecond, isZone } from '../src/app/platform/zone.ts';
import { supposedNight } from '../src/visit/timer/supposed.ts';
import { keepingSame } from '../src/data/workers/keepingSame.ts';
import { answerOf } from '../src/data/workers/timerAnswer.ts';
import type { TimerQuestion } from '../src/data/workers/timerQuestion.ts';

const ON = parseDate('2027-06-07') ?? 0;
const [kind] = TIMER_KINDS;
if (!kind) throw new Error('there is a first kind');
const plan: Plan = {
  format: 'water-clock-plan',
  version: 1,
  timer: { ...kind, stationCount: 4 },
  settings: {},
  stations: [1, 2].map((number) => ({ number })),
  programs: [
    {
      letter: 'B',
      starts: ['05:00'],
      runs: [{ station: 2, seconds: 600 }],
      days: { rule: 'interval', everyDays: 3, firstDate: '2027-06-01' },
    },
    {
      letter: 'A',
      starts: ['03:00', '23:50'],
      runs: [{ station: 1, seconds: 1200 }],
      days: { rule: 'weekdays', weekdays: ['mon', 'thu'] },
    },
  ],
};

describe('a request', () => {
  afterEach(() => {
    jest.restoreAllMocks();
  });
  const answering = (status: number, body?: unknown) =>
    jest.spyOn(globalThis, 'fetch').mockResolvedValue(
      new Response(body === undefined ? null : JSON.stringify(body), {
        status,
        headers: { 'water-clock-api': '1' },
      }),
    );

  test('gives the answer, or nothing where there is none', async () => {
    const fetched = answering(200, { id: 7 });
    await expect(request('POST', '/api/x', { a: 1 })).resolves.toEqual({ id: 7 });
    expect(fetched.mock.calls[0]?.[1]).toMatchObject({
      method: 'POST',
      body: '{"a":1}',
      keepalive: true,
      headers: { 'content-type': 'application/json' },
    });
    answering(204);
    await expect(request('DELETE', '/api/x')).resolves.toBeUndefined();
  });

  test('that is too large to outlive the page is not asked to', async () => {
    const fetched = answering(200, {});
    await request('POST', '/api/x', { text: 'x'.repeat(70_000) });
    expect(fetched.mock.calls[0]?.[1]?.keepalive).toBe(false);
  });

  test('that is refused says why, with code, faults and body', async () => {
    const faults = [{ code: 'malformed', path: 'plan.starts', message: 'no time' }];
    answering(422, { code: 'not-accepted', message: 'no', faults, version: 4 });
    const refused = await request('POST', '/api/x', {}).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(RefusedError);
    expect(refused).toMatchObject({
      status: 422,
      code: 'not-accepted',
      message: 'no',
      faults,
      body: { version: 4 },
    });
    answering(400, 'rubbish');
    await expect(request('GET', '/api/x')).rejects.toMatchObject({
      code: 'failed',
      message: 'the server answered 400',
    });
  });

  test.each<[string, Response]>([
    ['the page of a guest network', new Response('<html>Sign in</html>', { status: 200 })],
    ['JSON of another server', new Response('{"version":2}', { status: 200 })],
    ['an empty answer of a proxy', new Response(null, { status: 204 })],
    ['a refusal of a proxy', new Response('{"code":"not-accepted"}', { status: 403 })],
    ['a limit of a proxy', new Response('', { status: 429 })],
    [
      'the first half of an answer',
      new Response('{"versi', { status: 200, headers: { 'water-clock-api': '1' } }),
    ],
  ])('that gets %s in place of an answer got none', async (_what, response) => {
    jest.spyOn(globalThis, 'fetch').mockResolvedValue(response);
    await expect(request('POST', '/api/x', {})).rejects.toBeInstanceOf(UnreachableError);
  });

  test('that wants the password is sent again once it was given, and asks once for several', async () => {
    const stale = () =>
      new Response('{"code":"confirm-needed","message":"confirm first"}', {
        status: 403,
        headers: { 'water-clock-api': '1' },
      });
    const good = () =>
      new Response('{"id":7}', { status: 200, headers: { 'water-clock-api': '1' } });
    let isGiven = false;
    const fetched = jest
      .spyOn(globalThis, 'fetch')
      .mockImplementation(() => Promise.resolve(isGiven ? good() : stale()));
    // Without a page that can ask it stays a refusal.
    await expect(request('GET', '/api/mails')).rejects.toMatchObject({ code: 'confirm-needed' });
    const ask = jest.fn(() => {
      isGiven = true;
      return Promise.resolve(true);
    });
    confirming.askedBy(ask);
    fetched.mockClear();
    const both = await Promise.all([
      request('GET', '/api/mails'),
      request('POST', '/api/x', { id: 1 }),
    ]);
    expect(both).toEqual([{ id: 7 }, { id: 7 }]);
    expect(ask).toHaveBeenCalledTimes(1);
    expect(fetched).toHaveBeenCalledTimes(4);
    // Who cancels gets the refusal, and is asked again the next time.
    isGiven = false;
    const no = jest.fn(() => Promise.resolve(false));
    confirming.askedBy(no);
    for (const times of [1, 2]) {
      await expect(request('GET', '/api/mails')).rejects.toMatchObject({ code: 'confirm-needed' });
      expect(no).toHaveBeenCalledTimes(times);
    }
    confirming.askedBy(null);
  });

  test('that finds no server, or one that broke down, can be tried again', async () => {
    answering(502, {});
    await expect(request('GET', '/api/x')).rejects.toBeInstanceOf(UnreachableError);
    jest.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('offline'));
    await expect(request('GET', '/api/x')).rejects.toThrow('the server cannot be reached');
  });
});

test('the hour at a place, on both sides of a change of the clocks', () => {
  const at = (instant: string, zone: string) => civilSecond(new Date(instant), zone) % 86_400;
  expect(at('2027-03-28T00:59:00Z', 'Europe/Lisbon')).toBe(59 * 60);
  expect(at('2027-03-28T01:00:00Z', 'Europe/Lisbon')).toBe(2 * 3600);
  expect(at('2027-01-01T00:00:00Z', 'Asia/Kolkata')).toBe(5.5 * 3600);
  expect(civilSecond(new Date('2026-12-31T23:30:00Z'), 'Asia/Tokyo')).toBe(
    (parseDate('2027-01-01') ?? 0) * 86_400 + 8.5 * 3600,
  );
  expect([isZone('Europe/Lisbon'), isZone('Moon/Crater')]).toEqual([true, false]);
});

describe('rows of a file', () => {
  test('separators are found, a byte order mark and empty lines are dropped, too many are seen', async () => {
    await expect(rowsOf('\uFEFFa;b\n1;2\n\n3;4\n', 10)).resolves.toEqual([
      ['a', 'b'],
      ['1', '2'],
      ['3', '4'],
    ]);
    await expect(rowsOf('a\tb\n1\t"x\ty"\n', 10)).resolves.toEqual([
      ['a', 'b'],
      ['1', 'x\ty'],
    ]);
    await expect(rowsOf(`h\n${'1\n'.repeat(20)}`, 5)).resolves.toHaveLength(7);
  });

  test('what a spreadsheet would take for a formula is made harmless', () => {
    expect(csvText([['name'], ['=1+1'], ['a,b']])).toBe('name\r\n"\'=1+1"\r\n"a,b"\r\n');
  });
});

describe('a kind of timer from answers', () => {
  const variants: readonly Partial<Answers>[] = [
    {},
    { percent: 'none', runStep: 'seconds' },
    { percent: 'program', days: ['hours'] },
    { percent: 'months', runStep: 'fives', clock: 'weekday' },
    { days: [], soak: 'station', atOnce: 3, overlap: 'drop', dryHours: 'pause' },
  ];
  test.each(variants)('%j is a kind that the product’s own reader takes', (answers) => {
    const made = kindOfAnswers({ ...USUAL_ANSWERS, name: ' Our box ', ...answers });
    const read = readTimerKind(JSON.parse(JSON.stringify(made)));
    expect(read.ok ? read.value.timer.name : read.faults).toBe('Our box');
    expect(made.timer.dayRules).toContain('daily');
  });

  test('what is answered is what it can do', () => {
    const { timer } = kindOfAnswers({
      ...USUAL_ANSWERS,
      name: 'x',
      days: ['parity'],
      percent: 'none',
      longestRunMinutes: 99,
    });
    expect(timer.dayRules).toEqual(['daily', 'odd', 'even']);
    expect(timer.seasonal).toMatchObject({
      scope: 'none',
      lowestPercent: 100,
      highestPercent: 100,
    });
    expect(timer.longestRunSeconds).toBe(5940);
  });
});

test('what a plan comes to, in the planner’s table', () => {
  const [b, a] = plan.programs;
  if (!a || !b) throw new Error('two programs');
  expect(endsOf(plan, a)).toEqual([3 * 3600 + 1200, 600]);
  expect(spansWords(plan, a, '24')).toEqual(['3:00 – 3:20', '23:50 – 0:10']);
  expect(datesText(plan)).toBe('A 2, B 2.3');
  // A: 20 min × 2 starts × 2 days; B: 10 min × 7 ÷ 3.
  expect(weekWords(plan)).toBe('1 h 43 min');
  expect(ruleWords(b.days, '24', 'day-month')).toBe('every 3 days');
  expect(
    ruleWords(
      { rule: 'interval', everyDays: 1, firstDate: '2027-06-01', blockedWeekdays: ['sun'] },
      '24',
      'day-month',
    ),
  ).toBe('every day, not Sun');
  const hourly: Plan = {
    ...plan,
    programs: [
      { ...b, starts: [], days: { rule: 'hours', everyHours: 12, first: '2027-06-01T06:00' } },
    ],
  };
  expect(weekWords(hourly)).toBe('2 h 20 min');
});

test('curves begin at nothing, reach the highest value, and keep the months in order', () => {
  const rising = Array.from({ length: 12 }, (_, i) => i * 10);
  const { shapes, ticks, months, bottom } = curveGeometry(
    [
      { name: 'need', values: rising },
      { name: 'given', values: [] },
    ],
    600,
    240,
  );
  const [need, given] = shapes;
  const ys = need?.points.map(({ y }) => y) ?? [];
  expect([...ys].sort((a, b) => b - a)).toEqual(ys);
  expect(ys[0]).toBe(bottom);
  expect(given?.points.every(({ y, value }) => y === bottom && value === 0)).toBe(true);
  expect(months.map(({ x }) => x)).toEqual([...months.map(({ x }) => x)].sort((a, b) => a - b));
  expect(ticks[0]?.value).toBe(0);
  expect(ticks.at(-1)?.value).toBeGreaterThanOrEqual(100);
  expect(need?.path).toMatch(/^M/);
});

describe('what the worker answers', () => {
  const question: TimerQuestion = {
    plan,
    on: ON,
    firstNight: ON,
    nights: 3,
    farNight: null,
    yearFrom: null,
    whatIf: { percent: null, ahead: 0, acts: [], factory: null },
    changes: [],
    brief: {
      format: 'water-clock-brief',
      version: 1,
      timer: plan.timer,
      stations: [1, 2].map((number) => ({ number, weeklySeconds: 60 })),
    },
    supply: { litresPerMinute: null, flows: new Map(), pump: null },
    unknown: [],
    coming: [],
    anyPhase: [],
  };

  test('verdict and nights; a station whose need is not known is not called too wet', () => {
    const answer = answerOf(question);
    expect(answer.nights.map(({ day }) => day)).toEqual([ON, ON + 1, ON + 2]);
    expect([answer.farNight, answer.year]).toEqual([null, null]);
    const tooMuch = (unknown: readonly number[]) =>
      answerOf({ ...question, unknown })
        .check.findings.filter(({ code }) => code === 'too-much')
        .map(({ where }) => where.station);
    expect(tooMuch([])).toEqual([1, 2]);
    expect(tooMuch([2])).toEqual([1]);
  });

  test('another percent is seen on the nights, and leaves the verdict as it is', () => {
    const half = answerOf({ ...question, whatIf: { ...question.whatIf, percent: 50 } });
    const seconds = (nights: typeof half.nights) =>
      nights.flatMap(({ runs }) => runs).reduce((sum, { on, off }) => sum + off - on, 0);
    expect(seconds(half.nights)).toBe(seconds(answerOf(question).nights) / 2);
    expect(half.check.verdict).toBe(answerOf(question).check.verdict);
  });

  test('a power cut that is supposed is seen on its night, with the percent that is looked at', () => {
    // A stopped clock would fire all later starts late.
    const kept = { ...plan, timer: { ...plan.timer, powerLoss: { clock: 'kept' as const } } };
    const whatIf = { ...question.whatIf, percent: 50 };
    const { nights } = answerOf({ ...question, plan: kept, whatIf });
    const night = nights.find(({ runs }) => runs.length > 0);
    const [first] = night?.runs ?? [];
    if (!night || !first) throw new Error('no run');
    const acts = [
      [
        { do: 'powerOff', at: formatMoment(first.on + 10) },
        { do: 'powerOn', at: formatMoment(first.on + 20) },
      ],
    ] as const;
    const cut = supposedNight(night, kept, { ...whatIf, acts });
    expect(cut?.runs[0]).toMatchObject({ on: first.on, off: first.on + 10 });
    expect(cut?.served[0]?.outcome).toBe('cut');
    expect(cut?.intended).toEqual(night.intended);
    expect(supposedNight(night, kept, whatIf)).toEqual(night);
  });

  test('a year and a night far off where they are asked for', () => {
    const { year, farNight } = answerOf({ ...question, yearFrom: ON, farNight: ON + 90 });
    expect(year).toHaveLength(366);
    expect(farNight?.day).toBe(ON + 90);
  });

  test('nights that are as they were stay the same objects', () => {
    const before = answerOf(question).nights;
    const again = keepingSame(before, answerOf(question).nights);
    again.forEach((night, i) => expect(night).toBe(before[i]));
    const [b, a] = plan.programs;
    if (!a || !b) throw new Error('two programs');
    const moved = { ...plan, programs: [{ ...b, starts: ['05:05'] }, a] };
    const after = keepingSame(before, answerOf({ ...question, plan: moved }).nights);
    const changed = after.filter((night, i) => night !== before[i]);
    expect(changed.length).toBeGreaterThan(0);
    expect(changed.length).toBeLessThan(3);
  });
});
