/** A year of watering: litres and money, and each run as a calendar event. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  costOfYear,
  EMPTY_SURVEY,
  formatDate,
  simulate,
  waterUsage,
  wateringEvents,
  WEEKDAYS,
  type Plan,
  type Survey,
  type Tariff,
  type WateringEvent,
} from '@water-clock/core';
import { priceOf } from '../src/garden/usage.ts';
import { weekdayIndexOf, type Weekday } from '../src/time/calendar.ts';
import { anyPlan } from './randomPlans.ts';
import { gardenFrom, randomFrom, TODAY } from './faultyTimers.ts';

const DAY = 86_400;

describe('water and money', () => {
  test('litres are those of every run of a year, one by one', () => {
    for (const seed of [1, 2, 3, 5, 8]) {
      const { plan: garden } = gardenFrom(randomFrom(seed));
      const survey: Survey = {
        stations: garden.stations.map(({ number }) => ({
          number,
          flow: { by: 'timer', litresPerMinute: 4 + number },
        })),
      };
      // Slow and obvious; if programs overlap a queue still gives all of it.
      const queue: Plan = { ...garden, timer: { ...garden.timer, onOverlap: 'queue' } };
      let litres = 0;
      for (const { station, on, off } of simulate(queue, TODAY, 365).runs)
        litres += ((off - on) / 60) * (4 + station);
      const usage = waterUsage(garden, survey, TODAY);
      expect(Math.abs(usage.litresAYear - litres) / litres).toBeLessThan(0.01);
      expect(usage.unknown).toEqual([]);
      expect(waterUsage(garden, EMPTY_SURVEY, TODAY)).toMatchObject({ litresAYear: 0 });
      expect(waterUsage(garden, EMPTY_SURVEY, TODAY).unknown.length).toBeGreaterThan(0);
    }
  });

  test('a station without a flow is named where it waters, and costs nothing; one that is off is not', () => {
    const { plan: garden } = gardenFrom(randomFrom(2));
    const watered = garden.programs[0]?.runs[0]?.station;
    const one = garden.stations.find(({ number }) => number === watered);
    if (!one) throw new Error('no station');
    const others = garden.stations.filter((station) => station !== one);
    const area = { areaSquareMetres: 40, head: 'fixed-spray' } as const;
    const survey: Survey = { stations: [{ number: one.number, ...area }] };
    const usage = waterUsage(garden, survey, TODAY);
    expect(usage.unknown).not.toContain(one.number);
    expect(usage.unknown.length).toBeGreaterThan(0);
    // Known from a table only; not measured.
    expect(usage.uncertainLitres / usage.litresAYear).toBeCloseTo(0.35, 6);
    expect(costOfYear(usage, tariff)).toBeGreaterThan(0);
    const off = { ...garden, stations: [one, ...others.map((s) => ({ ...s, enabled: false }))] };
    expect(waterUsage(off, survey, TODAY)).toMatchObject({
      unknown: [],
      litresAYear: usage.litresAYear,
    });
    // Without an area its rate gives no litres.
    const pitch: Survey = { stations: [{ number: one.number, head: 'fixed-spray' }] };
    expect(waterUsage(garden, pitch, TODAY).unknown).toContain(one.number);
  });

  test('the peak week is a week of the calendar, Monday to Sunday', () => {
    const { plan: garden } = gardenFrom(randomFrom(2));
    const [first, second] = garden.stations;
    if (!first || !second) throw new Error('two stations');
    const of = (letter: string, station: number, seconds: number, weekdays: Weekday[]) => ({
      letter,
      starts: ['05:00'],
      runs: [{ station, seconds }],
      days: { rule: 'weekdays' as const, weekdays },
    });
    const plan: Plan = {
      ...garden,
      settings: {},
      programs: [
        of('A', first.number, 2880, ['mon', 'wed', 'fri']),
        of('B', second.number, 1800, ['tue', 'sat']),
      ],
    };
    const flow = (litresPerMinute: number) => ({ by: 'timer' as const, litresPerMinute });
    const survey: Survey = {
      stations: [
        { number: first.number, flow: flow(36) },
        { number: second.number, flow: flow(905 / 30) },
      ],
    };
    const { peakWeek } = waterUsage(plan, survey, TODAY);
    // A 1,728 L three times and B 905 L twice, however many Mondays a month has.
    expect(peakWeek?.litres).toBeCloseTo(6994, 6);
    expect(peakWeek && weekdayIndexOf(peakWeek.monday)).toBe(0);
    expect(peakWeek && peakWeek.monday >= TODAY && peakWeek.monday < TODAY + 7).toBe(true);
    expect(waterUsage(plan, EMPTY_SURVEY, TODAY).peakWeek).toBeNull();
    expect(waterUsage({ ...plan, settings: { mode: 'off' } }, survey, TODAY).peakWeek).toBeNull();
  });

  const tariff: Tariff = {
    currency: 'Kr',
    periodDays: 73,
    steps: [
      { upToLitres: 10_000, perCubicMetre: 1 },
      { upToLitres: 25_000, perCubicMetre: 2 },
      { perCubicMetre: 5 },
    ],
    houseLitres: 8000,
  };

  test('the price of a period is that of each litre by its own step', () => {
    for (const litres of [0, 1, 9999, 10_000, 10_001, 24_999, 25_000, 61_234]) {
      let slow = 0;
      for (let litre = 1; litre <= litres; litre++)
        slow += litre <= 10_000 ? 0.001 : litre <= 25_000 ? 0.002 : 0.005;
      expect(priceOf(litres, tariff)).toBeCloseTo(slow, 6);
    }
  });

  test('a year is five bills with the garden less five without it', () => {
    const weekly = 7 * 300;
    const usage = {
      stations: [
        {
          station: 1,
          litresPerMinute: 1,
          source: 'measured' as const,
          weeklyByMonth: new Array<number>(12).fill(weekly),
        },
      ],
      unknown: [],
      litresAYear: 0,
      uncertainLitres: 0,
      peakWeek: null,
    };
    const bill = priceOf(8000 + 73 * 300, tariff) - priceOf(8000, tariff);
    expect(costOfYear(usage, tariff)).toBeCloseTo(5 * bill, 6);
    // A period cut off by the year counts in proportion.
    const { houseLitres: _house, ...alone } = tariff;
    const longer = { ...alone, periodDays: 250, steps: [{ perCubicMetre: 3 }] };
    expect(costOfYear(usage, longer)).toBeCloseTo((365 * 300 * 3) / 1000, 6);
  });
});

describe('watering as events', () => {
  /** Slow and obvious: every date of the span, checked by the wording of the rule. */
  function expanded(
    { station, program, on, seconds, rule }: WateringEvent,
    until: number,
  ): string[] {
    const text = (moment: number) => `${station} ${program} ${moment} ${moment + seconds}`;
    if (!rule) return on < until ? [text(on)] : [];
    const found: string[] = [];
    for (let day = Math.floor(on / DAY), n = 0; day * DAY < until; day++, n++) {
      const weekday = WEEKDAYS[(((day + 3) % 7) + 7) % 7] ?? 'mon';
      const moment = on + n * DAY;
      if (
        n % rule.everyDays === 0 &&
        (rule.weekdays?.includes(weekday) ?? true) &&
        (rule.monthDays?.includes(Number(formatDate(day).slice(8))) ?? true) &&
        moment < until
      )
        found.push(text(moment));
    }
    return found;
  }

  const agrees = (plan: Plan, days: number) => {
    const until = (TODAY + days) * DAY;
    const told = wateringEvents(plan, TODAY, days + 1).flatMap((event) => expanded(event, until));
    const runs = simulate(plan, TODAY, days + 1)
      .runs.filter(({ on }) => on < until)
      .map(({ station, letter, on, off }) => `${station} ${letter} ${on} ${off}`);
    expect(told.sort()).toEqual(runs.sort());
    return runs.length;
  };

  test('are every run of two years, in gardens as technicians leave them', () => {
    let byRule = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const { plan: garden } = gardenFrom(randomFrom(seed));
      expect(agrees(garden, 730)).toBeGreaterThan(100);
      if (wateringEvents(garden, TODAY).some(({ rule }) => rule)) byRule += 1;
    }
    expect(byRule).toBeGreaterThan(10);
  });

  test('and in plans of every kind', () => {
    fc.assert(
      fc.property(anyPlan, (plan) => {
        agrees(plan, 60);
      }),
      { numRuns: 150, seed: 61 },
    );
  });
});
