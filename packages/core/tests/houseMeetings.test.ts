/** Two timers on one supply, against the slow reference: every second of half a year is examined. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  crowdSentence,
  emptyPlan,
  epochDayOf,
  houseCrowds,
  houseHeadline,
  houseMeetings,
  houseTone,
  meetingSentence,
  occupiedWeek,
  parseTime,
  TIMER_KINDS,
  WEEKDAYS,
  weekdayIndexOf,
  type HouseMeeting,
  type HouseTimer,
  type Plan,
} from '@water-clock/core';
import { cases } from './cases.ts';
import { anyPlan, weeklyPlan } from './randomPlans.ts';
import { percentIn, referenceNominal } from './reference.ts';
import { referenceCycles } from './referenceCycles.ts';
import { assertDefined } from '../src/document/assertDefined.ts';
import { civilOf, SECONDS_PER_DAY } from '../src/time/calendar.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const DAYS = 190;

/** A station's flow identifies it, so a wrong station is a wrong flow. */
const flowsOf = ({ stations }: Plan, base: number) =>
  new Map(stations.map(({ number }) => [number, base + number]));
const house = (a: Plan, b: Plan): HouseTimer[] => [
  { id: 'a', plan: a, flows: flowsOf(a, 10) },
  { id: 'b', plan: b, flows: flowsOf(b, 100) },
];

type Cycle = ReturnType<typeof referenceCycles>[number];

/** Flow by second while both cycles run. */
function referencePeak([x, a]: [HouseTimer, Cycle], [y, b]: [HouseTimer, Cycle]): number {
  const flowing = (timer: HouseTimer, { letter, day, begins }: Cycle) => {
    const program = timer.plan.programs.find((one) => one.letter === letter);
    if (!program) return [];
    const percent = percentIn(timer.plan, program, civilOf(day).month);
    return referenceNominal(timer.plan, program, percent, begins)?.runs ?? [];
  };
  const [own, others] = [flowing(x, a), flowing(y, b)];
  let most = 0;
  for (let now = Math.max(a.begins, b.begins); now < Math.min(a.ends, b.ends); now++) {
    const at = (timer: HouseTimer, runs: typeof own) =>
      runs
        .filter(({ on, off }) => on <= now && now < off)
        .reduce((sum, { station }) => sum + (timer.flows.get(station) ?? 0), 0);
    most = Math.max(most, at(x, own) + at(y, others));
  }
  return most;
}

interface Known {
  next: string;
  begins: number;
  most: number;
}

/** For each pair of starts the first event, and the highest flow of all. */
function reference(timers: readonly HouseTimer[]): Map<string, Known> {
  const [x, y] = timers;
  const found = new Map<string, Known>();
  if (!x || !y) return found;
  const [own, others] = [referenceCycles(x.plan, ON, DAYS), referenceCycles(y.plan, ON, DAYS)];
  const alignments = new Map<string, number>();
  for (const a of own)
    for (const b of others) {
      if (a.begins >= b.ends || b.begins >= a.ends) continue;
      const begins = Math.max(a.begins, b.begins);
      const key = `${a.letter}${a.start}+${b.letter}${b.start}`;
      // The same alignment has the same flow.
      const alike = `${key} ${a.begins - b.begins} ${a.ends - a.begins} ${b.ends - b.begins} ${civilOf(a.day).month} ${civilOf(b.day).month} ${weekdayIndexOf(a.day)}`;
      let most = alignments.get(alike);
      if (most === undefined) alignments.set(alike, (most = referencePeak([x, a], [y, b])));
      const known = found.get(key);
      const next = `${a.day} ${b.day} ${Math.min(a.ends, b.ends) - begins}`;
      if (!known) found.set(key, { next, begins, most });
      else {
        known.most = Math.max(known.most, most);
        if (begins < known.begins) Object.assign(known, { next, begins });
      }
    }
  return found;
}

function told(meetings: readonly HouseMeeting[]): Map<string, Known> {
  return new Map(
    meetings.map(({ next, worst }) => {
      const [a, b] =
        next.first.timer === 'a' ? [next.first, next.second] : [next.second, next.first];
      return [
        `${a.letter}${a.start}+${b.letter}${b.start}`,
        {
          next: `${a.day} ${b.day} ${next.sharedSeconds}`,
          begins: next.second.begins,
          most: worst.flow.litresPerMinute,
        },
      ];
    }),
  );
}

describe('two timers', () => {
  test('of weekly programs meet as the reference says: when first, how long, and with how much water', () => {
    fc.assert(
      fc.property(weeklyPlan, weeklyPlan, (a, b) => {
        const timers = house(a, b).map((timer) => ({
          ...timer,
          plan: { ...timer.plan, settings: { ...timer.plan.settings, mode: 'run' as const } },
        }));
        const [met, due] = [told(houseMeetings(timers, ON)), reference(timers)];
        expect([...met.keys()].sort()).toEqual([...due.keys()].sort());
        // In a month the reference does not reach, that month's percent may open more at once.
        const isWhole = [a, b].every(({ timer }) => !timer.seasonal.byMonth);
        for (const [key, known] of due) {
          const { most = 0, ...when } = met.get(key) ?? {};
          const { most: least, ...wanted } = known;
          expect([key, when]).toEqual([key, wanted]);
          if (isWhole) expect([key, most]).toEqual([key, least]);
          else expect(most).toBeGreaterThanOrEqual(least);
        }
      }),
      { seed: 66, numRuns: cases(10) },
    );
  });

  test('of any programs meet as soon as the reference says, and never where it sees nothing that is told as soon', () => {
    fc.assert(
      fc.property(anyPlan, anyPlan, (a, b) => {
        const timers = house(a, b).map((timer) => ({
          ...timer,
          plan: { ...timer.plan, settings: { ...timer.plan.settings, mode: 'run' as const } },
        }));
        const [met, due] = [told(houseMeetings(timers, ON)), reference(timers)];
        for (const [key, { next, most }] of due) {
          expect([key, met.get(key)?.next]).toEqual([key, next]);
          expect(met.get(key)?.most).toBeGreaterThanOrEqual(most);
        }
        // What is reported and not seen comes later than the reference looked.
        const end = (ON + DAYS - 9) * SECONDS_PER_DAY;
        for (const [key, { begins }] of met) expect(due.has(key) || begins > end).toBe(true);
      }),
      { seed: 66, numRuns: cases(10) },
    );
  });

  test('keep clear of each other through the windows of the week', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        const running = { ...plan, settings: { ...plan.settings, mode: 'run' as const } };
        const windows = occupiedWeek(running, ON);
        for (const { begins, ends } of referenceCycles(running, ON, 60))
          for (const at of [begins, Math.floor((begins + ends) / 2), ends - 1]) {
            const day = Math.floor(at / SECONDS_PER_DAY);
            const second = at - day * SECONDS_PER_DAY;
            const weekday = WEEKDAYS[weekdayIndexOf(day)];
            const isHeld = windows.some(({ from, to, weekdays }) => {
              const end = parseTime(to) || SECONDS_PER_DAY;
              return (
                weekdays?.some((one) => one === weekday) &&
                (parseTime(from) ?? 0) <= second &&
                second < end
              );
            });
            expect([at, isHeld]).toEqual([at, true]);
          }
      }),
      { seed: 67, numRuns: cases(20) },
    );
  });
});

describe('in words', () => {
  const kind = TIMER_KINDS[0];
  if (!kind) throw new Error('there is no kind');
  const plan = (start: string, minutes: number): Plan => ({
    ...emptyPlan(kind),
    stations: [{ number: 1 }],
    programs: [
      {
        letter: 'A',
        days: { rule: 'weekdays', weekdays: ['tue'] },
        starts: [start],
        runs: [{ station: 1, seconds: minutes * 60 }],
      },
    ],
  });
  const timers = (flow?: number): HouseTimer[] => [
    { id: 'g', plan: plan('04:00', 82), flows: new Map([[1, 25]]) },
    { id: 's', plan: plan('05:10', 40), flows: flow ? new Map([[1, flow]]) : new Map() },
  ];
  const speech = {
    ...({ on: ON, clock: '24', units: 'metric' } as const),
    names: new Map([
      ['g', 'Garage'],
      ['s', 'Shed'],
    ]),
  };

  test.each([
    [36, 40, 'too-much', /61 L\/min of 40 L\/min available\.$/],
    [10, 40, 'fits', /Together 35 L\/min of 40/],
    [undefined, 40, 'unknown', /at least 25 L\/min of/],
    [undefined, 20, 'too-much', /at least 25 L\/min of/],
    [36, null, 'unknown', /61 L\/min; supply not measured\.$/],
  ] as const)('a flow of %s at a supply of %s: %s', (flow, supply, tone, pattern) => {
    const meetings = houseMeetings(timers(flow), ON);
    expect(houseTone(meetings, supply)).toBe(tone);
    const [first] = meetings;
    const sentence = first ? meetingSentence(first, supply, speech) : '';
    expect(sentence).toMatch(pattern);
    expect(sentence).toMatch(
      /^Garage’s A meets Shed’s A: Tue 1 June from 5:10, 12 min, about 52 times a year\./,
    );
  });

  test('timers of which no flow is known', () => {
    const unknown = timers().map((timer) => ({ ...timer, flows: new Map<number, number>() }));
    const [first] = houseMeetings(unknown, ON);
    expect(first && meetingSentence(first, 40, speech)).toMatch(/Combined flow not known\.$/);
  });

  test('timers that never meet, or of which one is off', () => {
    const [garage, shed] = timers(36);
    if (!garage || !shed) throw new Error('there are two');
    const later = { ...shed, plan: plan('05:22', 40) };
    expect(houseMeetings([garage, later], ON)).toEqual([]);
    expect(houseHeadline(houseTone([], 40))).toMatch(/^No two timers/);
    const off = { ...shed, plan: { ...shed.plan, settings: { mode: 'off' as const } } };
    expect(houseMeetings([garage, off], ON)).toEqual([]);
    expect(occupiedWeek(off.plan, ON)).toEqual([]);
  });

  test('three at once are one group, with the water of all three', () => {
    const [garage, shed] = timers(10);
    if (!garage || !shed) throw new Error('there are two');
    const tap = { id: 't', plan: plan('05:15', 5), flows: new Map([[1, 12]]) };
    const three = [garage, shed, tap];
    const crowds = houseCrowds(three, ON);
    expect(crowds).toHaveLength(1);
    const names = new Map([...speech.names, ['t', 'Tap']]);
    expect(crowds.map((crowd) => crowdSentence(crowd, 40, { ...speech, names }))).toEqual([
      'Garage’s A, Shed’s A and Tap’s A run at once: Tue 1 June from 5:15, 5 min, 53 times in the coming year. Together 47 L/min of 40 L/min available.',
    ]);
    // Each pair fits, and the three together do not.
    const meetings = houseMeetings(three, ON);
    expect(houseTone(meetings, 40)).toBe('fits');
    expect(houseTone(meetings, 40, crowds)).toBe('too-much');
    expect(houseHeadline('fits', 3)).toMatch(/In the coming year/);
    expect(houseCrowds([garage, shed], ON)).toEqual([]);
  });
});

/** Two programs that start between 4:00 and 5:00 on some weekdays. */
const nearPlan: fc.Arbitrary<Plan> = fc
  .array(
    fc.record({
      minute: fc.integer({ min: 0, max: 11 }),
      minutes: fc.integer({ min: 5, max: 60 }),
      weekdays: fc.uniqueArray(fc.constantFrom(...WEEKDAYS), { minLength: 1 }),
    }),
    { minLength: 1, maxLength: 2 },
  )
  .map((programs) => ({
    ...emptyPlan(assertDefined(TIMER_KINDS[2], 'TIMER_KINDS[2]')),
    programs: programs.map(({ minute, minutes, weekdays }, i) => ({
      letter: 'AB'.charAt(i),
      starts: [`04:${String(minute * 5).padStart(2, '0')}`],
      days: { rule: 'weekdays', weekdays },
      runs: [{ station: 1, seconds: minutes * 60 }],
    })),
  }));

test('three timers run at once when the reference says, cycle by cycle', () => {
  const DAYS_SEEN = 15;
  let groups = 0;
  fc.assert(
    fc.property(nearPlan, nearPlan, nearPlan, (...plans) => {
      const three = plans.map((one, i) => ({
        id: 'abc'.charAt(i),
        plan: { ...one, settings: { ...one.settings, mode: 'run' as const } },
        flows: new Map<number, number>(),
      }));
      const cycles = three.flatMap(({ id, plan }) =>
        referenceCycles(plan, ON - 1, DAYS_SEEN + 1)
          .filter(({ ends }) => ends > ON * SECONDS_PER_DAY)
          .map((cycle) => ({ id, ...cycle })),
      );
      const due = new Map<string, number>();
      for (const { begins } of [...cycles].sort((a, b) => a.begins - b.begins)) {
        const at = Math.max(begins, ON * SECONDS_PER_DAY);
        const running = cycles.filter((one) => one.begins <= at && at < one.ends);
        if (new Set(running.map(({ id }) => id)).size < 3) continue;
        const key = running.map(({ id, letter, start }) => `${id} ${letter} ${start}`);
        const name = key.sort().join();
        if (!due.has(name)) due.set(name, at);
      }
      const limit = (ON + DAYS_SEEN - 1) * SECONDS_PER_DAY;
      const told = new Map(
        houseCrowds(three, ON)
          .filter(({ from }) => from < limit)
          .map(({ cycles: group, from }) => [
            group
              .map(({ timer, letter, start }) => `${timer} ${letter} ${start}`)
              .sort()
              .join(),
            from,
          ]),
      );
      groups += due.size;
      expect(told).toEqual(new Map([...due].filter(([, at]) => at < limit)));
    }),
    { numRuns: cases(400) },
  );
  expect(groups).toBeGreaterThan(20);
});
