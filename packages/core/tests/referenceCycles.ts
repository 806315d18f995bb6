/** The slow truth about overlaps: nominal cycles of some weeks, each compared with the next, date by date and second by second. */
import {
  civilOf,
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type Plan,
  type Program,
} from '@water-clock/core';
import { LAST_DAY } from '../src/time/calendar.ts';
import { dayOf, TickingCycle } from './tickingCycle.ts';
import { complete, fires, percentIn, referenceNominal, resumesOf, timesOf } from './reference.ts';

interface Cycle {
  readonly letter: string;
  readonly start: string;
  readonly day: number;
  readonly begins: number;
  readonly ends: number;
}

interface Firing {
  readonly program: Program;
  readonly start: string;
  readonly second: number;
  readonly day: number;
}

const firingsOf = new WeakMap<Plan, Map<string, Firing[]>>();

/** Every start that fires on some dates, in order; cached, since headroom asks again at every step. */
function firings(plan: Plan, on: number, days: number): Firing[] {
  const known = firingsOf.get(plan) ?? new Map<string, Firing[]>();
  firingsOf.set(plan, known);
  const key = `${on}/${days}`;
  let all = known.get(key);
  if (all) return all;
  known.set(key, (all = []));
  for (let day = on; day < on + days && day <= LAST_DAY; day++)
    for (const program of complete(plan))
      for (const start of timesOf(program)) {
        const second = parseTime(start) ?? 0;
        const isDelayed = day * SECONDS_PER_DAY + second < resumesOf(plan);
        if (fires(plan, program, day, second) && !isDelayed)
          all.push({ program, start, second, day });
      }
  return all;
}

/** Every nominal cycle due on some dates. `percent`, if given, replaces every other percent. */
export function referenceCycles(plan: Plan, on: number, days: number, percent?: number): Cycle[] {
  const known = new Map<string, { begins: number; ends: number } | null>();
  return firings(plan, on, days).flatMap(({ program, start, second, day }) => {
    const at = percent ?? percentIn(plan, program, civilOf(day).month);
    const midnight = day * SECONDS_PER_DAY;
    // Windows depend on the weekday, so dates of one weekday are alike; without windows all are.
    const windows = plan.timer.inWindow === 'ignore' ? '' : `${start}${weekdayIndexOf(day)}`;
    const key = `${program.letter}${windows}/${at}`;
    let nominal = known.get(key);
    if (nominal === undefined) {
      const cycle = referenceNominal(plan, program, at, midnight + second);
      const due = midnight + second;
      nominal = cycle && { begins: cycle.begins - due, ends: cycle.ends - due };
      known.set(key, nominal);
    }
    if (!nominal) return [];
    const begins = midnight + second + nominal.begins;
    const ends = midnight + second + nominal.ends;
    return [{ letter: program.letter, start, day, begins, ends }];
  });
}

/** One event as a line: `A05:00@day B06:00@day shared`. */
const eventLine = (a: Cycle, b: Cycle) =>
  `${a.letter}${a.start}@${a.day} ${b.letter}${b.start}@${b.day} ${Math.min(a.ends, b.ends) - b.begins}`;

/** First of two: begins earlier; lower letter; earlier start; earlier date. */
const inOrder = (a: Cycle, b: Cycle) =>
  a.begins - b.begins ||
  a.letter.localeCompare(b.letter) ||
  a.start.localeCompare(b.start) ||
  a.day - b.day;

/**
 * Sections 5 and 7 date by date: the earliest overlap for each pair of start names among cycles due from `on` for `days` days, as sorted
 * lines.
 */
export function referenceOverlaps(
  plan: Plan,
  on: number,
  days: number,
  percent?: number,
): string[] {
  return overlapsAmong(referenceCycles(plan, on, days, percent));
}

/** The earliest overlap for each pair of start names, as sorted lines. */
export function overlapsAmong(unordered: readonly Cycle[]): string[] {
  const cycles = [...unordered].sort(inOrder);
  const found = new Map<string, readonly [Cycle, Cycle]>();
  cycles.forEach((a, i) => {
    for (let k = i + 1; k < cycles.length; k++) {
      const b = cycles[k];
      if (!b || b.begins >= a.ends) break;
      const pair = [a, b]
        .map(({ letter, start }) => `${letter}${start}`)
        .sort()
        .join();
      const known = found.get(pair);
      const earlier =
        !known ||
        a.begins - known[0].begins ||
        b.begins - known[1].begins ||
        a.day - known[0].day ||
        b.day - known[1].day;
      if (earlier === true || earlier < 0) found.set(pair, [a, b]);
    }
  });
  return [...found.values()].map(([a, b]) => eventLine(a, b)).sort();
}

/** The percents of section 7, Headroom, ascending. */
export function referenceSteps({ seasonal }: Plan['timer']): number[] {
  const { scope, lowestPercent, highestPercent, stepPercent } = seasonal;
  const [lowest, highest, step] =
    scope === 'none' ? [1, 300, 1] : [lowestPercent, highestPercent, stepPercent];
  const steps: number[] = [];
  for (let percent = lowest; percent <= highest; percent += step) steps.push(percent);
  return steps;
}

/**
 * Section 5 in its plainest form: steps through every second of `days` days with each nominal cycle ticking alone, and notes each pair of
 * starts running at the same second. For plans without windows.
 *
 * @returns lines `A05:00 B06:00`, sorted
 */
export function referencePairsBySecond(
  plan: Plan,
  on: number,
  days: number,
  percent?: number,
): string[] {
  const pairs = new Set<string>();
  const firing = complete(plan);
  let running: { name: string; cycle: TickingCycle }[] = [];
  for (let now = on * SECONDS_PER_DAY; now < (on + days) * SECONDS_PER_DAY; now++) {
    for (const { cycle } of running) cycle.close(now);
    running = running.filter(({ cycle }) => !cycle.finished);
    const day = dayOf(now);
    const second = now % SECONDS_PER_DAY;
    if (second % 60 === 0)
      for (const program of firing)
        for (const start of timesOf(program)) {
          if (parseTime(start) !== second || !fires(plan, program, day, second)) continue;
          if (now < resumesOf(plan)) continue;
          const at = percent ?? percentIn(plan, program, civilOf(day).month);
          const cycle = new TickingCycle(plan, program, at, now);
          if (!cycle.finished) running.push({ name: `${program.letter}${start}`, cycle });
        }
    for (const { cycle } of running) cycle.open(now, false);
    for (const [i, a] of running.entries())
      for (const b of running.slice(i + 1)) pairs.add([a.name, b.name].sort().join(' '));
  }
  return [...pairs].sort();
}
