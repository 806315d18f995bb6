/** The homeowner's page. */
import { describe, expect, test } from '@jest/globals';
import {
  brokenWeekdays,
  doorCard,
  emptyPlan,
  EMPTY_SURVEY,
  forbiddenWeekdays,
  formatDate,
  homeownerPage,
  NO_OFFICE,
  plantsFields,
  readOffice,
  restoreWords,
  SHIPPED_KINDS,
  simulate,
  startWords,
  type PageSources,
  type Plan,
  type Program,
  type Survey,
  type TimerKind,
} from '@water-clock/core';
import { gardenFrom, randomFrom, TODAY } from './faultyTimers.ts';

const DAY = 86_400;
const { plan } = gardenFrom(randomFrom(11));
const KIND = SHIPPED_KINDS[0]?.kind;
if (!KIND) throw new Error('no kinds');
const A: Program = {
  letter: 'A',
  starts: ['04:00'],
  runs: [{ station: 1, seconds: 1200 }],
  days: { rule: 'daily' },
};
const MONDAYS = { rule: 'weekdays', weekdays: ['mon'] } as const;
const plain: Plan = { ...emptyPlan(KIND.timer), stations: [{ number: 1 }], programs: [A] };

describe('the homeowner’s page', () => {
  const pageOf = (plan: Plan, survey = EMPTY_SURVEY, more: Partial<TimerKind> | null = null) =>
    homeownerPage({
      plan,
      survey,
      kind: more && { ...KIND, ...more },
      house: 'A house',
      ...{ houseNumber: null, language: 'en' as const },
      company: 'A company',
      office: { ...NO_OFFICE, phone: '555 0199', hours: 'mornings' },
      allowed: null,
      today: TODAY,
      clock: '12',
    });

  test('tells every start and every station of it, and the picture is what runs', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const { plan: garden } = gardenFrom(randomFrom(seed));
      const page = pageOf(garden);
      garden.programs.forEach(({ letter, starts, runs }) => {
        const told = page.programs.find((pageProgram) => pageProgram.letter === letter);
        for (const start of starts) expect(told?.when).toContain(startWords(start, '12'));
        expect(told?.stations.map(({ number }) => number)).toEqual(
          runs.map(({ station }) => station),
        );
      });
      const began = simulate(garden, TODAY - 8, 16)
        .cycles.filter(
          ({ began: one }) => one !== null && one >= TODAY * DAY && one < (TODAY + 7) * DAY,
        )
        .map(({ began: one, due }) => `${due.letter} ${one ?? 0}`);
      const drawn = page.week.runs.map(
        ({ day, from, program }) => `${program} ${(TODAY + day) * DAY + from}`,
      );
      expect(drawn.sort()).toEqual(began.sort());
    }
  });

  test('says how to reach the office, and how this house is paused for rain', () => {
    const text = (rain: Survey['rain']) =>
      JSON.stringify(pageOf(plan, rain ? { ...EMPTY_SURVEY, rain } : EMPTY_SURVEY).sections);
    expect(text('sensor')).toContain('When to call A company, 555 0199, mornings');
    expect(new Set([text('delay'), text('switch-off')]).size).toBe(2);
    // A battery timer has no mains behind its cover.
    const battery = pageOf(plan, { ...EMPTY_SURVEY, device: { power: 'battery' } });
    expect(JSON.stringify(battery)).not.toMatch(/mains voltage/);
    expect(text(undefined)).toMatch(/mains voltage/);
  });

  test('tells how it waters also while it is off or delayed; the week has the delay', () => {
    const off: Plan = { ...plan, settings: { ...plan.settings, mode: 'off' } };
    expect(pageOf(off).week).toEqual(pageOf(plan).week);
    expect(pageOf(off).words.week).toMatch(/once the timer is switched on/);
    const delayed = (days: number): Plan => ({
      ...plain,
      settings: { wateringResumes: formatDate(TODAY + days) },
    });
    expect(pageOf(delayed(3)).week.runs.map(({ day }) => day)).toEqual([3, 4, 5, 6]);
    expect(pageOf(delayed(30)).week.runs).toEqual([]);
    expect(pageOf(delayed(30)).programs).toEqual(pageOf(plain).programs);
  });

  test('what an office says of itself is read strictly', () => {
    expect(readOffice({ ...NO_OFFICE, phone: '555 0100' })).toMatchObject({ ok: true });
    for (const wrong of [
      { ...NO_OFFICE, phone: '' },
      { ...NO_OFFICE, fax: '1' },
      { ...NO_OFFICE, version: 2 },
      7,
    ])
      expect(readOffice(wrong).ok).toBe(false);
  });

  test('tells why it waters as it does, where there is a reason to', () => {
    const why = (more: Partial<Plan>, survey: Survey = EMPTY_SURVEY) =>
      pageOf({ ...plain, ...more }, survey).sections.flatMap(({ lines }) => lines);
    expect(why({})).not.toEqual(
      expect.arrayContaining([
        expect.stringMatching(/short runs|Drip lines|is new|Nothing waters/),
      ]),
    );
    const stations = [{ number: 1, cycleSeconds: 300, soakSeconds: 600 }];
    expect(why({ stations, timer: { ...plain.timer, cycleSoak: 'station' } }).join(' ')).toMatch(
      /in several short runs/,
    );
    // This timer does not split runs, whatever is noted.
    expect(why({ stations }).join(' ')).not.toMatch(/short runs/);
    expect(why({ programs: [{ ...A, starts: ['02:00', '04:00'] }] }).join(' ')).toMatch(
      /in several short runs/,
    );
    const both = [{ number: 1 }, { number: 2, overhead: false }];
    const drip = (seconds: number) =>
      why({
        stations: both,
        programs: [{ ...A, runs: [...A.runs, { station: 2, seconds }] }],
      }).join(' ');
    expect(drip(2400)).toMatch(/Drip lines run longer/);
    expect(drip(600)).not.toMatch(/Drip lines/);
    const often = { times: 3, from: '09:00', to: '16:00' };
    const seeded = (more: object): Survey => ({
      stations: [{ number: 1, oftenADay: { ...often, ...more } }],
    });
    // It tells how often the programs water it, not how often they should.
    expect(why({}, seeded({})).join(' ')).not.toMatch(/times a day/);
    const twice = { programs: [{ ...A, starts: ['04:00', '14:00'] }] };
    expect(why(twice, seeded({}))).toContain('Station 1 is new and waters 2 times a day.');
    expect(why(twice, seeded({ until: formatDate(TODAY + 10) })).join(' ')).toMatch(
      /waters 2 times a day until \w{3} \d+ \w+\./,
    );
    const windows = [{ from: '09:00', to: '18:00' }];
    const timer = { ...plain.timer, inWindow: 'pause' as const };
    expect(why({ settings: { noWaterWindows: windows }, timer }).join(' ')).toMatch(
      /Nothing waters from 9:00 am to 6:00 pm/,
    );
    // A pause for no-water hours is not a soak.
    const paused = [{ from: '04:10', to: '05:00' }];
    expect(why({ settings: { noWaterWindows: paused }, timer }).join(' ')).not.toMatch(
      /short runs/,
    );
    expect(why({ settings: { noWaterWindows: windows } }).join(' ')).not.toMatch(/Nothing waters/);
    expect(why({ programs: [{ ...A, starts: ['10:00'] }] }).join(' ')).not.toMatch(/at night/);
  });

  test('a program by hours has no times of day; one start that always ends alike says when', () => {
    const hours: Program = {
      ...A,
      starts: [],
      days: { rule: 'hours', everyHours: 36, first: `${formatDate(TODAY)}T06:00` },
    };
    expect(pageOf({ ...plain, programs: [hours] }).programs[0]).toMatchObject({
      when: expect.stringMatching(/^every 36 h from Tue 15 June/),
      over: null,
    });
    expect(pageOf(plain).programs[0]).toMatchObject({ over: 'Ends at 4:20 am.' });
    expect(
      pageOf({ ...plain, programs: [{ ...A, starts: ['04:00', '05:00'] }] }).programs[0]?.over,
    ).toBe('Ends at 4:20 am and 5:20 am.');
    // On Mondays A waits for B: its end is not the same on all its days.
    const B: Program = { ...A, letter: 'B', starts: ['03:50'], days: MONDAYS };
    const queueing = { ...plain.timer, onOverlap: 'queue' } as const;
    expect(
      pageOf({ ...plain, timer: queueing, programs: [A, B] }).programs.map(({ over }) => over),
    ).toEqual([null, 'Ends at 4:10 am.']);
  });

  test('without a sensor rain is waited out by the delay; how a kind is restored is told, where it can be', () => {
    const text = (settings: Plan['settings'], restore?: string) =>
      JSON.stringify(
        pageOf({ ...plain, settings }, EMPTY_SURVEY, restore === undefined ? null : { restore }),
      );
    expect(text({ sensor: 'none' })).toMatch(/rain delay/i);
    expect(text({ sensor: 'active' })).not.toBe(text({ sensor: 'none' }));
    expect(text({}, 'Hold the key for 5 s.')).toContain('Hold the key for 5 s. We can talk you');
    expect(text({}, 'None: note it on paper.')).not.toContain('saved inside');
  });
});

describe('what the page says of rain, and of what holds watering back', () => {
  const pageOf = (settings: Plan['settings'], survey: Partial<Survey> = {}) =>
    homeownerPage({
      plan: { ...plain, settings },
      survey: { ...EMPTY_SURVEY, ...survey },
      kind: { ...KIND, rainDelay: { unit: 'hours', allowed: [24, 48, 72], ends: 'minute' } },
      house: 'A house',
      ...{ houseNumber: null, language: 'en' as const },
      company: 'A company',
      office: NO_OFFICE,
      allowed: null,
      today: TODAY,
      clock: '12',
    });
  const rain = (...given: Parameters<typeof pageOf>) =>
    pageOf(...given)
      .sections.find(({ heading }) => heading.startsWith('When it rains'))
      ?.lines.join(' ') ?? '';
  const fitted = { device: { sensors: [{ kind: 'rain' as const }] } };

  test('a sensor that nobody saw is not claimed, whatever was agreed', () => {
    for (const way of [undefined, 'sensor', 'delay'] as const)
      expect(rain({}, way ? { rain: way } : {})).not.toMatch(/sensor stops/);
    expect(rain({ sensor: 'none' })).toMatch(/no rain sensor.*24, 48 or 72 hours/);
    expect(rain({}, fitted)).toMatch(/There is nothing to do\. The rain sensor/);
    expect(rain({}, { ...fitted, rain: 'switch-off' })).toMatch(/switch the timer off/);
    expect(rain({ sensor: 'bypass' }, fitted)).toMatch(/bypassed at the timer.*rain delay/);
    expect(rain({}, { device: { sensors: [{ kind: 'soil' }] } })).toMatch(/The soil sensor stops/);
    // Other sensors are not a rain sensor, but show that someone looked.
    expect(rain({}, { device: { sensors: [{ kind: 'flow' }] } })).toMatch(/no rain sensor/);
  });

  test('off, a rain delay and percents by month are told as they are', () => {
    expect(pageOf({}).held).toEqual([]);
    expect(pageOf({ mode: 'off', wateringResumes: `${formatDate(TODAY + 2)}T06:44` }).held).toEqual(
      [
        expect.stringMatching(/switched off/),
        expect.stringMatching(/Nothing waters before Thu 17 June, 6:44 am\./),
      ],
    );
    expect(pageOf({ wateringResumes: formatDate(TODAY) }).held).toEqual([]);
    const seasonal = { ...plain.timer.seasonal, scope: 'timer' as const, byMonth: true };
    const byMonth = { ...plain.timer, seasonal };
    const monthly = Array.from({ length: 12 }, (_, i) => (i === 5 ? 0 : 100 - 10 * (i % 3)));
    const page = homeownerPage({
      plan: { ...plain, timer: byMonth, settings: { monthlyPercent: monthly } },
      survey: EMPTY_SURVEY,
      kind: null,
      house: 'A house',
      ...{ houseNumber: null, language: 'en' as const },
      company: 'A company',
      office: NO_OFFICE,
      allowed: {
        house: { houseNumber: '1', supply: 'mains' },
        rules: {
          format: 'water-clock-rules',
          version: 1,
          name: 'R',
          editions: [
            { from: '2020-01-01', clauses: [{ weekdays: ['mon'] }] },
            { from: '2027-08-01', clauses: [{ noWatering: true }] },
            { from: '2027-09-01', clauses: [{ weekdays: ['mon'] }] },
          ],
        },
      },
      today: TODAY,
      clock: '12',
    });
    expect(page.percent).toBeNull();
    expect(page.months.map(({ percent }) => percent)).toEqual([
      '100 %',
      '90 %',
      '80 %',
      '100 %',
      '90 %',
      'off',
      '100 %',
      // Banned from August 1 to its end.
      'off',
      '80 %',
      '100 %',
      '90 %',
      '80 %',
    ]);
    const allowed = page.sections.find(({ heading }) => heading.startsWith('When watering is'));
    expect(allowed?.lines.join(' ')).toMatch(
      /only on Mon.*From Sun 1 August: no watering by timer\. Your timer is still set to water then\. Switch it off before that day\.$/,
    );
  });
});

test('a restore by phone is told in the panel’s own words, without a time that it cannot show', () => {
  const timer = {
    ...plain.timer,
    dialect: { programLabels: 'numbers', clockStyle: '24' } as const,
  };
  const kind = { restore: 'Keeps one set.', restoreSteps: ['Open the page of program {A}.'] };
  const said = restoreWords({ ...plain, timer }, kind, '12');
  expect(said).toContain('Open the page of program 1.');
  expect(said.join(' ')).toContain('first start time of program 1. It should say 4:00.');
  const without = restoreWords({ ...plain, timer, programs: [] }, kind, '12').join(' ');
  expect(without).not.toMatch(/must say|0:00|12:00/);
  expect(restoreWords(plain, { restore: 'None: nothing is kept.' }, '12')).toEqual([]);
  expect(restoreWords(plain, null, '12')).toEqual([]);
});

test('the card for the box has what the panel hides', () => {
  const card = doorCard({
    plan: {
      ...plain,
      timer: { ...plain.timer, seasonal: { ...plain.timer.seasonal, scope: 'timer' } },
      stations: [
        { number: 1, name: 'Front lawn' },
        { number: 2, enabled: false },
      ],
      programs: [{ ...A, starts: ['05:00', '04:00'] }],
    },
    survey: EMPTY_SURVEY,
    kind: {
      ...KIND,
      hides: 'Program C.',
      reach: [
        { setting: 'days', line: 'Second page.' },
        { setting: 'clock', line: 'First page.' },
      ],
    },
    house: 'A house',
    ...{ houseNumber: null, language: 'en' as const },
    company: 'A company',
    office: { ...NO_OFFICE, phone: '555 0199' },
    allowed: null,
    today: TODAY,
    clock: '24',
    author: 'Tamsin Orrowby',
  });
  expect(card).toMatchObject({
    programs: [
      { label: 'A', starts: ['4:00', '5:00'], days: 'every day', lines: ['ends 4:20, 5:20'] },
    ],
    stations: [
      { number: 1, name: 'Front lawn', runs: 'A 20 min' },
      { number: 2, runs: 'off' },
    ],
    percents: [{ name: 'Percent', percent: '100 %' }],
    phone: '555 0199',
    date: '15 June 2027',
    author: 'Tamsin Orrowby',
    // In panel order.
    reach: [
      { setting: 'Date and time', line: 'First page.' },
      { setting: 'Watering days', line: 'Second page.' },
    ],
    hides: 'Hidden: Program C.',
  });
});

describe('page and card agree', () => {
  const sourcesOf = (given: Plan, more: Partial<PageSources> = {}): PageSources => ({
    plan: given,
    survey: EMPTY_SURVEY,
    kind: null,
    house: 'A house',
    houseNumber: null,
    language: 'en',
    company: 'A company',
    office: NO_OFFICE,
    allowed: null,
    today: TODAY,
    clock: '12',
    ...more,
  });
  const cardOf = (given: Plan, more: Partial<PageSources> = {}) =>
    doorCard({ ...sourcesOf(given, more), author: 'Tamsin Orrowby' });
  const seasonal = { ...plain.timer.seasonal, scope: 'timer', byMonth: true } as const;

  test('minutes are those set, with this month’s beside them where the percent changes them', () => {
    const timer = { ...plain.timer, seasonal };
    const minutes = (settings: Plan['settings']) => {
      const { programs, words } = homeownerPage(sourcesOf({ ...plain, timer, settings }));
      const { length, adjusted } = programs[0]?.stations[0] ?? {};
      return [words.asSet, length, words.thisMonth, adjusted];
    };
    expect(minutes({})).toEqual(['As set', '20 min', 'With seasonal percent', null]);
    expect(minutes({ seasonalPercent: 80 })).toEqual([
      'As set',
      '20 min',
      'With seasonal percent',
      '16 min',
    ]);
    // June holds 50 %, the other months 100 %.
    const monthlyPercent = Array.from({ length: 12 }, (_, i) => (i === 5 ? 50 : 100));
    expect(minutes({ monthlyPercent })).toEqual(['As set', '20 min', 'In June', '10 min']);
  });

  test('paper for a year names no end that is true in one month only', () => {
    const monthlyPercent = Array.from({ length: 12 }, (_, i) => (i === 5 ? 50 : 100));
    const byMonth = {
      ...plain,
      timer: { ...plain.timer, seasonal },
      settings: { monthlyPercent },
    };
    expect(homeownerPage(sourcesOf(byMonth)).programs[0]?.over).toBeNull();
    expect(cardOf(byMonth).programs[0]?.lines).toEqual([]);
    expect(cardOf(plain).programs[0]?.lines).toEqual(['ends 4:20 am']);
    // Moved by a sensor, it ends at another time each day.
    const timer = { ...plain.timer, seasonal: { ...seasonal, byMonth: false } };
    const driven = {
      percentDrivenBy: 'sensor',
      percentRange: { lowest: 50, highest: 120 },
    } as const;
    expect(cardOf({ ...plain, timer, settings: driven }).programs[0]?.lines).toEqual([]);
  });

  test('an end that changes only after the simulated weeks is not told', () => {
    const every = (everyDays: number, later: number) =>
      ({ rule: 'interval', everyDays, firstDate: formatDate(TODAY + later) }) as const;
    const timer = { ...plain.timer, onOverlap: 'queue' } as const;
    // Every 9 and every 10 days: A and B first meet in 81 days.
    const B: Program = { ...A, letter: 'B', starts: ['04:10'], days: every(10, 1) };
    const meeting = { ...plain, timer, programs: [{ ...A, days: every(9, 0) }, B] };
    expect(cardOf(meeting).programs.map(({ lines }) => lines)).toEqual([[], []]);
    const apart = {
      ...meeting,
      programs: [
        { ...A, days: every(9, 0) },
        { ...B, starts: ['05:00'] },
      ],
    };
    expect(cardOf(apart).programs.map(({ lines }) => lines)).toEqual([
      ['ends 4:20 am'],
      ['ends 5:20 am'],
    ]);
    // No-water hours on Sundays meet a program by interval later.
    const windows = [{ from: '04:10', to: '04:30', weekdays: ['sun'] }] as const;
    const paused = { ...plain.timer, inWindow: 'pause' } as const;
    const sundays = { ...plain, timer: paused, settings: { noWaterWindows: windows } };
    expect(
      cardOf({ ...sundays, programs: [{ ...A, days: every(30, 0) }] }).programs[0]?.lines,
    ).toEqual([]);
  });

  test('the card has cycle and soak, delay, no-water hours and the exceptions of stations', () => {
    const timer = {
      ...plain.timer,
      cycleSoak: 'station',
      inWindow: 'pause',
      longestStationDelaySeconds: 600,
    } as const;
    const card = cardOf({
      ...plain,
      timer,
      settings: {
        stationDelaySeconds: 60,
        noWaterWindows: [{ from: '10:00', to: '16:00', weekdays: ['mon'] }],
        offDaysOfMonth: [1, 2, 3],
      },
      stations: [
        { number: 1, cycleSeconds: 300, soakSeconds: 1200 },
        { number: 2, pump: false, obeysRainSensor: false, flowSensor: true },
      ],
    });
    expect(card.stations.map(({ runs }) => runs)).toEqual([
      'A 20 min; cycle 5 min, soak 20 min',
      'no pump; ignores rain sensor; flow sensor',
    ]);
    expect(card.other).toEqual([
      'Station delay 1 min',
      'No-water hours: 10:00 am to 4:00 pm on Mon',
      'No-water dates: 1 to 3',
    ]);
  });

  test('both say what breaks the rules, and nothing where the rules are kept', () => {
    const allowed = {
      house: { houseNumber: '1', supply: 'mains' },
      rules: {
        format: 'water-clock-rules',
        version: 1,
        name: 'R',
        editions: [{ from: '2020-01-01', clauses: [{ weekdays: ['mon'] }] }],
      },
    } as const;
    expect(homeownerPage(sourcesOf(plain, { allowed })).breaches).toEqual([
      'Station 1 waters on Tue 15 June (A, 4:00 am). The rules do not allow that day.',
    ]);
    expect(cardOf(plain, { allowed }).breaches).toHaveLength(1);
    const kept = { ...plain, programs: [{ ...A, days: MONDAYS }] };
    expect(homeownerPage(sourcesOf(kept, { allowed })).breaches).toEqual([]);
    expect(cardOf(kept, { allowed }).breaches).toEqual([]);
  });
});

test('forbidden weekdays are those the rules exclude for a program that waters bound stations', () => {
  const rules = { weekdays: ['mon', 'wed'], dripExempt: true } as const;
  const days = { rule: 'weekdays', weekdays: ['mon', 'tue'] } as const;
  const drip = { ...plain, stations: [{ number: 1, overhead: false }] };
  expect(forbiddenWeekdays(plain, { ...A, days }, rules)).toEqual([
    ...['tue', 'thu', 'fri', 'sat', 'sun'],
  ]);
  expect(brokenWeekdays(plain, { ...A, days }, rules)).toEqual(['tue']);
  expect(
    brokenWeekdays(plain, { ...A, days: { rule: 'odd', blockedWeekdays: ['tue'] } }, rules),
  ).toEqual(['thu', 'fri', 'sat', 'sun']);
  expect(forbiddenWeekdays(drip, A, rules)).toEqual([]);
  expect(forbiddenWeekdays(plain, A, null)).toEqual([]);
});

test('new seed waters several times a day until a date; other plants end that', () => {
  const asked = { times: 3, from: '07:00', to: '17:00', until: formatDate(TODAY + 21) };
  const station = { number: 1 };
  expect(plantsFields(station, 'new-seed-or-turf', TODAY)).toEqual({
    plants: 'new-seed-or-turf',
    oftenADay: asked,
  });
  const own = { ...asked, times: 2 };
  const seeded = { number: 1, plants: 'new-seed-or-turf', oftenADay: own } as const;
  expect(plantsFields(seeded, 'new-seed-or-turf', TODAY).oftenADay).toBe(own);
  expect(plantsFields(seeded, 'warm-season-lawn', TODAY).oftenADay).toBeNull();
  expect(plantsFields(station, 'warm-season-lawn', TODAY)).toEqual({ plants: 'warm-season-lawn' });
});
