/** Briefs for the planner's tests and benchmarks: realistic size, all kinds of demands, seeded. */
import { WEEKDAYS, type Brief, type Timer } from '@water-clock/core';
import type { BriefStation } from '../src/brief/brief.ts';
import { readBrief } from '../src/brief/readBrief.ts';

/** Pseudo-random numbers, the same each time. */
function seeded(seed: number): (below: number) => number {
  let state = (seed * 2_654_435_761 + 12_345) >>> 0;
  return (below) => {
    state = (Math.imul(state ^ (state >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    const mixed = Math.imul(state ^ (state >>> 12), 0x297a2d39) >>> 0;
    return Math.floor((((mixed ^ (mixed >>> 15)) >>> 0) / 4_294_967_296) * below);
  };
}

/** A brief with a number of stations. */
export function realisticBrief(seed: number, count: number): Brief {
  const chance = seeded(seed * 101 + count);
  const among = <T>(...list: readonly [T, ...T[]]): T => list[chance(list.length)] ?? list[0];
  const groups = ['lawn', 'beds', 'shrubs', 'pots'] as const;
  const timer: Timer = {
    name: 'Bench timer',
    stationCount: count,
    programCount: 2 + chance(3),
    startsPerProgram: 2 + chance(3),
    startStepMinutes: among(1, 5, 15),
    runStepSeconds: 60,
    longestRunSeconds: 14_400,
    dayRules: among<Timer['dayRules']>(
      ['weekdays'],
      ['weekdays', 'interval'],
      ['daily', 'weekdays', 'interval', 'odd', 'even'],
    ),
    longestIntervalDays: 14,
    oddDaysSkip31: true,
    seasonal: {
      scope: among('timer', 'program', 'none'),
      lowestPercent: 10,
      highestPercent: 150,
      stepPercent: 10,
      byMonth: false,
      roundToSeconds: among(1, 60),
      rounding: among('nearest', 'down', 'up'),
    },
    cycleSoak: among('none', 'station', 'program'),
    longestStationDelaySeconds: 600,
    onOverlap: 'queue',
    inWindow: 'pause',
    stationsAtOnce: 1,
    followsDaylightSaving: false,
  };
  const stations = Array.from({ length: count }, (_, i): BriefStation => {
    const group = among(...groups);
    const least = 1 + chance(3);
    // A night has room for most of this.
    const weekly = Math.round((among(1200, 1800, 2700, 3600) * 12) / Math.max(12, count) / 60) * 60;
    return {
      number: i + 1,
      weeklySeconds: chance(12) === 0 ? 0 : weekly,
      group,
      ...(group === 'beds' ? { overhead: false } : {}),
      ...(chance(3) === 0 ? { days: { least, most: Math.min(7, least + 1 + chance(3)) } } : {}),
      ...(chance(4) === 0 ? { cycleSeconds: 300 + 60 * chance(8), soakSeconds: 1200 } : {}),
    };
  });
  const weekdays = WEEKDAYS.filter(() => chance(3) > 0);
  return {
    format: 'water-clock-brief',
    version: 1,
    timer,
    settings: { stationDelaySeconds: among(0, 0, 10) },
    stations,
    rules: {
      ...(chance(2) === 0 && weekdays.length > 2 ? { weekdays } : {}),
      ...(chance(2) === 0 ? { noWaterWindows: [{ from: '09:00', to: '18:00' }] } : {}),
      ...(chance(6) === 0 ? { mostDaysPerWeek: 3 } : {}),
      ...(chance(2) === 0 ? { dripExempt: true } : {}),
    },
    ...(chance(3) === 0 ? { mowing: { weekdays: ['fri'] } } : {}),
    wish: {
      headroomPercent: among(120, 130),
      ...(chance(4) === 0 ? { apart: [['lawn', 'pots']] } : {}),
    },
  };
}

const base = realisticBrief(3, 4);
/** A brief with one of everything the planner has a message for. */
export const SPOKEN_BRIEF: Brief = {
  ...base,
  timer: { ...base.timer, name: 'Demo timer', programCount: 3, startsPerProgram: 4 },
  settings: { offDaysOfMonth: [13, 31] },
  stations: [
    {
      number: 1,
      name: 'Front lawn',
      weeklySeconds: 3600,
      group: 'lawn',
      days: { least: 2, most: 3 },
      cycleSeconds: 420,
    },
    {
      number: 2,
      weeklySeconds: 1800,
      group: 'beds',
      days: { least: 1, most: 1 },
      oftenADay: { times: 3, from: '09:00', to: '16:00' },
    },
  ],
  rules: {
    weekdays: ['mon', 'wed', 'sat'],
    parity: 'odd',
    mostDaysPerWeek: 3,
    noWaterWindows: [{ from: '09:00', to: '18:00', weekdays: ['sun'] }],
  },
  mowing: { weekdays: ['fri'], dayBefore: true },
  wish: {
    daysPerWeek: { least: 2, most: 3 },
    headroomPercent: 130,
    notBefore: '21:00',
    finishBy: '07:00',
    apart: [['lawn', 'beds']],
  },
};

/** Three programs of three starts, by weekday or interval, without cycle and soak. */
export const PLAIN_TIMER: Brief['timer'] = {
  ...realisticBrief(1, 6).timer,
  programCount: 3,
  startsPerProgram: 3,
  startStepMinutes: 5,
  dayRules: ['weekdays', 'interval'],
  cycleSoak: 'none',
};

export type BriefFields = Partial<Omit<Brief, 'timer'>> & { timer?: Partial<Brief['timer']> };

/** A valid brief of stations 1, 2 and so on. */
export function briefOf(
  stations: readonly Omit<BriefStation, 'number'>[],
  fields: BriefFields = {},
): Brief {
  const read = readBrief({
    format: 'water-clock-brief',
    version: 1,
    stations: stations.map((station, i) => ({ number: i + 1, ...station })),
    ...fields,
    timer: { ...PLAIN_TIMER, ...fields.timer },
  });
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return read.value;
}
