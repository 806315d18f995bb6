/** Seeded briefs made from plans known to keep them: the planner's plan may not cost more. */
import { WEEKDAYS, type Brief, type Plan, type Timer } from '@water-clock/core';
import { readBrief } from '../src/brief/readBrief.ts';
import { costOf, type Cost } from '../src/planner/cost.ts';
import { breachOf } from '../src/planner/verify.ts';
import { datesOfProgram } from '../src/plan/starts.ts';
import { formatTime } from '../src/time/calendar.ts';
import { PLAIN_TIMER } from './plannerBriefs.ts';

export interface Planted {
  readonly brief: Brief;
  readonly plan: Plan;
  readonly cost: Cost;
}

/** Pseudo-random integers from 0 to below a limit. */
export function chanceFrom(seed: number): (below: number) => number {
  let state = (seed * 7919 + 17) >>> 0;
  const next = (below: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 4_294_967_296) * below);
  };
  // The first numbers of neighbouring seeds are similar.
  for (let i = 0; i < 5; i++) next(2);
  return next;
}

const EVENING = 21 * 60;
/** Room for a cycle at the headroom, as a multiple of its own length. */
const WIDEST = 1.3;

function timerFrom(among: <T>(...list: readonly [T, ...T[]]) => T): Timer {
  return {
    ...PLAIN_TIMER,
    name: 'Planted',
    stationCount: among(6, 12, 18, 24),
    programCount: among(2, 3, 4),
    startsPerProgram: among(2, 3, 4, 6),
    startStepMinutes: among(1, 5, 15),
    dayRules: among<Timer['dayRules']>(
      ['weekdays'],
      ['weekdays', 'interval'],
      ['daily', 'weekdays', 'interval', 'odd', 'even'],
    ),
    seasonal: {
      ...PLAIN_TIMER.seasonal,
      scope: among('timer', 'program', 'none'),
      roundToSeconds: among(1, 60),
      rounding: 'nearest',
    },
    cycleSoak: among('none', 'none', 'station'),
    inWindow: 'ignore',
  };
}

/** @returns null if the seed's plan breaks a hard rule of its own brief */
export function plantedFrom(seed: number): Planted | null {
  const chance = chanceFrom(seed);
  const among = <T>(...list: readonly [T, ...T[]]): T => list[chance(list.length)] ?? list[0];
  const timer = timerFrom(among);
  const isShort = chance(2) === 0;
  const allowed = chance(2) === 0 ? [...WEEKDAYS] : WEEKDAYS.filter(() => chance(3) > 0);
  const used = 1 + chance(timer.programCount);
  const numbers = Array.from({ length: timer.stationCount }, (_, i) => i + 1);
  const owners = numbers.map((_, i) => (i < used ? i : chance(used)));
  // One cycle after another from the evening on, each with room for its headroom.
  let minute = EVENING + chance(60);
  const programs = Array.from({ length: used }, (_, p): Plan['programs'][number] => {
    const some = allowed.filter(() => chance(2) === 0);
    const weekdays = some.length > 0 ? some : allowed.slice(0, 1);
    const runs = numbers
      .filter((_, i) => owners[i] === p)
      .map((station) => ({ station, seconds: 60 * (2 + chance(14)) }));
    const length =
      Math.ceil((runs.reduce((sum, { seconds }) => sum + seconds, 0) * WIDEST) / 60) + 2;
    const starts = Array.from({ length: 1 + chance(Math.min(3, timer.startsPerProgram)) }, () => {
      const at = Math.ceil(minute / timer.startStepMinutes) * timer.startStepMinutes;
      minute = at + length;
      return formatTime((at % 1440) * 60);
    });
    const isCounted = allowed.length === 7 && timer.dayRules.includes('interval');
    return {
      letter: 'ABCD'[p] ?? 'A',
      starts: starts.sort(),
      runs,
      days:
        isCounted && chance(3) === 0
          ? { rule: 'interval', everyDays: 2 + chance(4), firstDate: '2027-01-03' }
          : { rule: 'weekdays', weekdays },
    };
  });
  if (minute > EVENING + 23 * 60) return null;
  const bare: Plan = {
    format: 'water-clock-plan',
    version: 1,
    timer,
    settings: {},
    stations: numbers.map((number) => ({ number })),
    programs,
  };
  const stations = numbers.map((number, i): Brief['stations'][number] => {
    const program = programs[owners[i] ?? 0];
    if (!program) throw new Error('no program');
    const seconds = program.runs.find(({ station }) => station === number)?.seconds ?? 0;
    const { mean } = datesOfProgram(bare, program);
    // Some want more than the planted plan gives, and can take no longer run.
    const wanted = isShort && chance(2) === 0 ? 1 + chance(10) / 10 : 1;
    const least = Math.max(1, Math.floor(mean) - chance(2));
    return {
      number,
      weeklySeconds: Math.round(seconds * mean * program.starts.length * wanted),
      ...(chance(2) === 0 ? { group: among('lawn', 'beds', 'drip') } : {}),
      ...(chance(3) === 0 ? { days: { least, most: Math.min(7, Math.ceil(mean) + 1) } } : {}),
      ...(chance(3) === 0 ? { cycleSeconds: seconds, soakSeconds: 600 } : {}),
    };
  });
  const finish = among(minute, minute + 30, EVENING + 600);
  const read = readBrief({
    format: 'water-clock-brief',
    version: 1,
    timer,
    settings: {},
    stations,
    rules: allowed.length < 7 ? { weekdays: allowed } : {},
    wish: {
      notBefore: '21:00',
      finishBy: formatTime(((Math.ceil(finish / 15) * 15) % 1440) * 60),
      headroomPercent: among(100, 120, 130),
      ...(chance(4) === 0 ? { daysPerWeek: { least: 1, most: 4 } } : {}),
    },
  });
  if (!read.ok) return null;
  const plan: Plan = {
    ...bare,
    stations: stations.map(({ weeklySeconds: _w, group: _g, days: _d, ...station }) => station),
  };
  if (breachOf(read.value, plan)) return null;
  return { brief: read.value, plan, cost: costOf(read.value, plan) };
}
