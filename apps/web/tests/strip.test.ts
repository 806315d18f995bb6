import { describe, expect, test } from '@jest/globals';
import { emptyPlan, epochDayOf, nightsFrom, TIMER_KINDS, type Plan } from '@water-clock/core';
import {
  blockedSpans,
  blocksOf,
  draggedStart,
  stripGeometry,
} from '../src/shared/charts/stripGeometry.ts';
import { placedLabels } from '../src/shared/charts/placeLabels.ts';
import { labelsOf } from '../src/shared/charts/StripLabels.tsx';
import { sunOf } from '../src/shared/charts/sun.ts';
import { civilSecond } from '../src/app/platform/zone.ts';
import { keepingSame } from '../src/data/workers/keepingSame.ts';

const kind = TIMER_KINDS[2];
if (!kind) throw new Error('no kinds');
const DAY = epochDayOf({ year: 2027, month: 6, day: 9 });
const plan: Plan = {
  ...emptyPlan(kind),
  programs: [
    {
      letter: 'A',
      starts: ['23:00'],
      runs: [
        { station: 1, seconds: 3600 },
        { station: 2, seconds: 3600 },
      ],
      days: { rule: 'daily' },
    },
    {
      letter: 'B',
      starts: ['00:30', '14:30'],
      runs: [{ station: 3, seconds: 5400 }],
      days: { rule: 'daily' },
    },
  ],
};
/** Without the scale's binary fractions. */
const pixel = (x: number) => Math.round(x * 1e6) / 1e6;
// One pixel a minute.
const size = { width: 1440, rowHeight: 30, head: 20 };

describe('the strip', () => {
  const [night] = nightsFrom(plan, DAY, 1);
  if (!night) throw new Error('no night');
  const geometry = stripGeometry(night, ['A', 'B'], null, size);

  test('puts runs that are open at once beside each other, in lanes that are free again', () => {
    const [both] = nightsFrom(
      {
        ...plan,
        timer: { ...kind, stationsAtOnce: 2 },
        programs: [
          {
            letter: 'A',
            starts: ['23:00'],
            runs: [
              { station: 1, seconds: 3600 },
              { station: 2, seconds: 600 },
              { station: 3, seconds: 600 },
            ],
            days: { rule: 'daily' },
          },
        ],
      },
      DAY,
      1,
    );
    if (!both) throw new Error('no night');
    const [cycle] = stripGeometry(both, ['A'], null, size).cycles;
    const top = cycle?.y ?? 0;
    const half = pixel((cycle?.height ?? 0) / 2);
    const lanes = cycle?.runs.map(({ station, y, height }) => [
      station,
      pixel(y - top),
      pixel(height),
    ]);
    expect(lanes).toEqual([
      [1, 0, half],
      [2, half, half],
      // Opens when 2 has closed, in its place.
      [3, half, half],
    ]);
  });

  test('puts every run at its minute from 15:00 on, cut at the edges of the night', () => {
    const shown = geometry.cycles.map(({ letter, x, width, runs }) => [
      letter,
      pixel(x),
      pixel(width),
      runs.map((run) => [run.station, pixel(run.x), pixel(run.width)]),
    ]);
    expect(shown).toEqual([
      ['B', 0, 60, [[3, 0, 60]]],
      [
        'A',
        480,
        120,
        [
          [1, 480, 60],
          [2, 540, 60],
        ],
      ],
      ['B', 570, 90, [[3, 570, 90]]],
      ['B', 1410, 30, [[3, 1410, 30]]],
    ]);
  });

  test('marks an overlap over the rows of both, and shows what really runs where that differs', () => {
    expect(
      geometry.overlaps.map((overlapShape) => ({
        ...overlapShape,
        x: pixel(overlapShape.x),
        width: pixel(overlapShape.width),
      })),
    ).toEqual([{ x: 570, width: 30, y: 20, height: 60, seconds: 1800, letters: 'AB' }]);
    expect(geometry.cycles.map(({ overlapped }) => overlapped)).toEqual([false, true, true, false]);
    // B waits from 0:30 until A ends at 1:00.
    expect(geometry.really?.runs.map(({ letter, x }) => [letter, pixel(x)])).toContainEqual([
      'B',
      600,
    ]);
    const clear: Plan = { ...plan, programs: plan.programs.slice(0, 1) };
    const [quiet] = nightsFrom(clear, DAY, 1);
    expect(quiet && stripGeometry(quiet, ['A'], null, size).really).toBeNull();
  });
});

test('blocked times become stretches, once for each part of the night, joined where they adjoin', () => {
  const [night] = nightsFrom(plan, DAY, 1);
  if (!night) throw new Error('no night');
  const { scale } = stripGeometry(night, ['A', 'B'], null, size);
  // 23:00, 23:15 and 0:30, and 14:00 at the very end; a pixel is a minute from 15:00 on.
  const spans = blockedSpans(night, [1800, 50_400, 82_800, 83_700], 15, scale);
  expect(spans.map(({ x, width }) => [pixel(x), pixel(width)])).toEqual([
    [472.5, 30],
    [562.5, 15],
    [1372.5, 15],
  ]);
});

test('a drag snaps to the step and goes round midnight', () => {
  expect(draggedStart(5 * 3600, 10, 60, 15)).toBe(5 * 3600 + 15 * 60);
  expect(draggedStart(5 * 3600, 7, 60, 15)).toBe(5 * 3600);
  expect(draggedStart(5 * 3600 + 120, 0, 60, 15)).toBe(5 * 3600);
  expect(draggedStart(23 * 3600, 120, 60, 15)).toBe(3600);
  expect(draggedStart(0, -15, 60, 15)).toBe(23 * 3600 + 45 * 60);
});

describe('civil time and the sun, whatever the zone of the machine', () => {
  test('the hour of a place', () => {
    const instant = new Date('2027-01-31T23:30:00Z');
    const day = epochDayOf({ year: 2027, month: 2, day: 1 }) * 86_400;
    expect(civilSecond(instant, 'Pacific/Kiritimati')).toBe(day + 13.5 * 3600);
    expect(civilSecond(instant, 'Australia/Adelaide')).toBe(day + 10 * 3600);
    expect(civilSecond(instant, 'Pacific/Pago_Pago')).toBe(day - 11.5 * 3600);
  });

  test('at the equator the sun sets and rises about six, on the right dates, at any longitude', () => {
    for (const [longitude, timeZone] of [
      [0, 'Etc/GMT'],
      [150, 'Etc/GMT-10'],
      [-150, 'Etc/GMT+10'],
      [179.9, 'Etc/GMT-12'],
    ] as const) {
      const sun = sunOf({ day: DAY }, { latitude: 0, longitude, timeZone });
      expect(Math.abs((sun?.sunset ?? 0) - (DAY * 86_400 + 18 * 3600))).toBeLessThan(1800);
      expect(Math.abs((sun?.sunrise ?? 0) - ((DAY + 1) * 86_400 + 6 * 3600))).toBeLessThan(1800);
    }
  });

  test('no place, no sun; no sunset in a polar summer', () => {
    expect(
      sunOf({ day: DAY }, { latitude: null, longitude: null, timeZone: 'Etc/GMT' }),
    ).toBeNull();
    const polar = sunOf({ day: DAY }, { latitude: 80, longitude: 15, timeZone: 'Etc/GMT-2' });
    expect(polar).toEqual({ sunset: null, sunrise: null });
  });
});

describe('nights that come again with each key', () => {
  const before = nightsFrom(plan, DAY, 3);

  test('are the same objects where nothing on them has changed, in another order of work too', () => {
    const again = structuredClone(nightsFrom(plan, DAY + 1, 3));
    const kept = keepingSame(before, again);
    expect(kept.map((night) => before.indexOf(night))).toEqual([1, 2, -1]);
  });

  // One change each, in the cycles, in the runs inside them, or only in what really happens.
  const [a, b] = plan.programs;
  if (!a || !b) throw new Error('no programs');
  const changes: [string, Plan][] = [
    ['a start', { ...plan, programs: [{ ...a, starts: ['22:45'] }, b] }],
    [
      'two runs exchanged',
      {
        ...plan,
        programs: [
          {
            ...a,
            runs: [
              { station: 1, seconds: 3000 },
              { station: 2, seconds: 4200 },
            ],
          },
          b,
        ],
      },
    ],
    ['the answer to an overlap', { ...plan, timer: { ...kind, onOverlap: 'drop' } }],
    ['the timer switched off', { ...plan, settings: { mode: 'off' } }],
  ];
  test.each(changes)('are new ones after %s', (_name, changed) => {
    const fresh = nightsFrom(changed, DAY, 3);
    expect(keepingSame(before, fresh)).toEqual(fresh);
    for (const night of keepingSame(before, fresh)) expect(before).not.toContain(night);
  });

  test('a cycle whose valves are left out is drawn as one block, where it stands', () => {
    const [night] = before;
    if (!night) throw new Error('no night');
    const bare = {
      ...night,
      condensed: true,
      intended: night.intended.map((cycle) => ({ ...cycle, runs: [] })),
    };
    const { cycles, really } = stripGeometry(bare, ['A', 'B'], null, size);
    for (const cycle of cycles) {
      const { x, y, width, height } = cycle;
      expect(blocksOf(cycle)).toEqual([{ station: 0, x, y, width, height }]);
    }
    expect(cycles.length).toBe(night.intended.length);
    expect(really).toBeNull();
  });
});

describe('the words on the strip', () => {
  const label = (key: string, words: string, ...xs: number[]) => ({
    key,
    words,
    places: xs.map((x) => ({ x, y: 20, anchor: 'start' as const })),
  });

  test('stand at the first place that is free; without one they are left out, never printed over each other', () => {
    const placed = placedLabels(
      [
        label('first', '0123456789', 0),
        label('next', '0123456789', 40, 90),
        label('none', '0123456789', 50, 100, 300),
      ],
      250,
    );
    expect(placed.map(({ key, x }) => [key, x])).toEqual([
      ['first', 0],
      ['next', 90],
    ]);
  });

  test('on a night of six starts close together no two meet', () => {
    const starts = ['23:00', '23:20', '23:40', '00:00', '00:20', '00:40'];
    const [crowded] = nightsFrom(
      {
        ...plan,
        programs: ['A', 'B'].map((letter) => ({
          letter,
          starts,
          runs: [{ station: 1, seconds: 300 }],
          days: { rule: 'daily' },
        })),
      },
      DAY,
      1,
    );
    if (!crowded) throw new Error('no night');
    const geometry = stripGeometry(crowded, ['A', 'B'], null, {
      width: 700,
      rowHeight: 40,
      head: 34,
    });
    const labels = labelsOf(geometry, {
      night: crowded,
      sun: null,
      clock: '12',
      ruledOut: [{ from: crowded.from, to: crowded.to }],
      mowing: ['wed', 'thu'],
      change: null,
      marks: [],
    });
    const placed = placedLabels(labels, 700);
    expect(placed.length).toBeGreaterThan(2);
    const boxes = placed.map(({ x, y, anchor, words }) => {
      const width = words.length * 7;
      const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
      return { left, right: left + width, top: y - 10, bottom: y };
    });
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(
          false,
        );
  });
});
