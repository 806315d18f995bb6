/**
 * The slow truth: what a timer does, second by second, and whether cycles overlap, date by date. Written from
 * docs/spec/timing-rules.md alone and as plainly as possible; it shares nothing with the engine but calendar arithmetic
 * (tested by itself) and the types.
 */
import {
  civilOf,
  parseDate,
  parseMoment,
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type Plan,
  type Program,
} from '@water-clock/core';
import { LAST_DAY } from '../src/time/calendar.ts';
import { dayOf, enabled, heldBack, TickingCycle, weekdayOf } from './tickingCycle.ts';

/** A cycle by itself: what it occupies, and its runs, for a start due at a moment; null where a window takes it or nothing runs. */
export function referenceNominal(
  plan: Plan,
  program: Program,
  percent: number,
  due: number,
): { begins: number; ends: number; runs: TickingCycle['runs'] } | null {
  let begins = due;
  while (heldBack(plan, program, begins)) {
    if (plan.timer.inWindow === 'cut') return null;
    begins += 60 - (begins % 60);
  }
  const cycle = new TickingCycle(plan, program, percent, begins);
  if (cycle.finished) return null;
  let held = false;
  for (let now = begins; !cycle.finished; now++) {
    if (now % 60 === 0) held = heldBack(plan, program, now);
    cycle.close(now);
    if (held && plan.timer.inWindow === 'cut' && !cycle.finished) cycle.stop(now);
    cycle.open(now, held);
  }
  return { begins, ends: cycle.ended, runs: cycle.runs };
}

export function percentIn(plan: Plan, program: Program, month: number): number {
  const { scope, byMonth } = plan.timer.seasonal;
  if (scope === 'none') return 100;
  if (scope === 'program') return program.seasonalPercent ?? 100;
  const monthly = byMonth ? plan.settings.monthlyPercent : undefined;
  return monthly?.[month - 1] ?? plan.settings.seasonalPercent ?? 100;
}

/** Section 2, the day rule and its blocked weekdays, for one date and second of the day. */
function keepsRule(plan: Plan, { days }: Program, day: number, second: number): boolean {
  if (days === null) return false;
  const weekday = weekdayOf(day);
  if ('blockedWeekdays' in days && days.blockedWeekdays?.includes(weekday)) return false;
  const dayOfMonth = civilOf(day).day;
  switch (days.rule) {
    case 'daily':
      return true;
    case 'weekdays':
      return days.weekdays.includes(weekday);
    case 'interval':
      return Math.abs(day - (parseDate(days.firstDate) ?? 0)) % days.everyDays === 0;
    case 'hours': {
      const first = parseMoment(days.first) ?? 0;
      return Math.abs(day * SECONDS_PER_DAY + second - first) % (days.everyHours * 3600) === 0;
    }
    case 'odd':
      return dayOfMonth % 2 === 1 && !(dayOfMonth === 31 && plan.timer.oddDaysSkip31);
    case 'even':
      return dayOfMonth % 2 === 0;
  }
}

/** Times of day at which a program can start: its own, or with an `hours` rule every hour at the minute of the first. */
function timesOf({ starts, days }: Program): string[] {
  if (days?.rule !== 'hours') return [...starts];
  return Array.from({ length: 24 }, (_, hour) => {
    return `${String(hour).padStart(2, '0')}${days.first.slice(13)}`;
  });
}

const completeOf = new WeakMap<Plan, Program[]>();

function complete(plan: Plan): Program[] {
  const known = completeOf.get(plan);
  if (known) return [...known];
  const found = plan.programs.filter((program) => {
    const times = timesOf(program);
    // Within 3,000 days every rule of the tests shows whether any date keeps it.
    const keeps = (day: number) =>
      times.some((time) => keepsRule(plan, program, day, parseTime(time) ?? 0));
    return (
      times.length > 0 &&
      program.runs.some((run) => run.seconds > 0 && enabled(plan, run.station)) &&
      Array.from({ length: 3000 }, (_, day) => day).some(keeps)
    );
  });
  completeOf.set(plan, found);
  return [...found];
}

/** Section 2, for one date and time. */
function fires(plan: Plan, program: Program, day: number, second: number): boolean {
  const resumes = plan.settings.wateringResumes;
  const delayed =
    resumes !== undefined && day * SECONDS_PER_DAY + second < (parseMoment(resumes) ?? 0);
  const off = plan.settings.offDaysOfMonth?.includes(civilOf(day).day) ?? false;
  return keepsRule(plan, program, day, second) && !delayed && !off;
}

interface Entry {
  program: string;
  start: string;
  due: number;
  outcome: 'ran' | 'cut' | 'lost';
  began: number | null;
  cycle: TickingCycle | null;
  percent: number;
  of: Program;
}

/** Sections 5 and 6, by living through every second. Moments are clock seconds. */
export function referenceSimulate(plan: Plan, from: number, days: number) {
  const programs = complete(plan).sort((a, b) => a.letter.localeCompare(b.letter));
  const { onOverlap, inWindow } = plan.timer;
  const held = new Map<Program, boolean>();
  const isHeld = (program: Program) => held.get(program) ?? false;
  const entries: Entry[] = [];
  let active: Entry[] = [];
  let atWindowsEnd: Entry[] = [];
  const queue: Entry[] = [];
  const begin = (entry: Entry, now: number) => {
    entry.outcome = 'ran';
    entry.began = now;
    entry.cycle = new TickingCycle(plan, entry.of, entry.percent, now);
    active.push(entry);
  };
  const stop = (entry: Entry, now: number) => {
    entry.cycle?.stop(now);
    entry.outcome = 'cut';
    active = active.filter((one) => one !== entry);
  };
  const first = from * SECONDS_PER_DAY;
  const last = (from + days) * SECONDS_PER_DAY;
  for (let now = first; ; now++) {
    if (now >= last && active.length + queue.length + atWindowsEnd.length === 0) break;
    if (now % 60 === 0)
      for (const program of programs) held.set(program, heldBack(plan, program, now));
    for (const { cycle } of active) cycle?.close(now);
    active = active.filter(({ cycle }) => !cycle?.finished);
    if (inWindow === 'cut') for (const entry of active) if (isHeld(entry.of)) stop(entry, now);
    const coming = atWindowsEnd.filter((entry) => !isHeld(entry.of));
    atWindowsEnd = atWindowsEnd.filter((entry) => isHeld(entry.of));
    if (now < last && plan.settings.mode !== 'off' && now % 60 === 0) {
      const day = dayOf(now);
      const second = now % SECONDS_PER_DAY;
      for (const program of programs)
        for (const start of timesOf(program)) {
          if (parseTime(start) !== second || !fires(plan, program, day, second)) continue;
          const percent = percentIn(plan, program, civilOf(day).month);
          if (new TickingCycle(plan, program, percent, 0).finished) continue;
          const entry: Entry = {
            program: program.letter,
            start,
            due: now,
            outcome: 'lost',
            began: null,
            cycle: null,
            percent,
            of: program,
          };
          entries.push(entry);
          if (inWindow === 'pause' && isHeld(program)) atWindowsEnd.push(entry);
          else coming.push(entry);
        }
    }
    for (const entry of coming) {
      if (onOverlap === 'queue') {
        queue.push(entry);
        continue;
      }
      if (isHeld(entry.of) || (onOverlap === 'drop' && active.length > 0)) continue;
      if (onOverlap === 'cut') for (const running of [...active]) stop(running, now);
      begin(entry, now);
    }
    for (let next = queue[0]; next && active.length === 0; next = queue[0]) {
      if (isHeld(next.of) && inWindow === 'pause') break;
      queue.shift();
      if (!isHeld(next.of)) begin(next, now);
    }
    // What a window closes is closed before anything opens.
    for (const { cycle, of } of active) if (isHeld(of)) cycle?.hold(now);
    const all = active.flatMap(({ cycle }) => (cycle ? [cycle] : []));
    const most = Math.min(plan.timer.stationsAtOnce, plan.settings.stationsAtOnce ?? 99);
    for (const { cycle, of } of active)
      if (onOverlap === 'share') cycle?.open(now, isHeld(of), all, most);
      else cycle?.open(now, isHeld(of));
  }
  const byOn = (a: { on: number; station: number }, b: { on: number; station: number }) =>
    a.on - b.on || a.station - b.station;
  return entries.map(({ cycle, of: _of, percent: _percent, ...entry }) => ({
    ...entry,
    ended: cycle ? cycle.ended : null,
    runs: cycle ? [...cycle.runs].sort(byOn) : [],
  }));
}

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

/** Every start that fires on some dates, in their order; remembered, since headroom asks again at every step. */
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
        if (fires(plan, program, day, second)) all.push({ program, start, second, day });
      }
  return all;
}

/** Every nominal cycle due on some dates. `percent` takes the place of every other percent where given. */
export function referenceCycles(plan: Plan, on: number, days: number, percent?: number): Cycle[] {
  const known = new Map<string, { begins: number; ends: number } | null>();
  return firings(plan, on, days).flatMap(({ program, start, second, day }) => {
    const at = percent ?? percentIn(plan, program, civilOf(day).month);
    const midnight = day * SECONDS_PER_DAY;
    // Windows go by the weekday, so dates of one weekday are alike; without windows all are.
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
 * Sections 5 and 7 date by date: the earliest overlap for each pair of start names among cycles due from `on` for `days`
 * days, as lines, sorted.
 */
export function referenceOverlaps(
  plan: Plan,
  on: number,
  days: number,
  percent?: number,
): string[] {
  return overlapsAmong(referenceCycles(plan, on, days, percent));
}

/** The earliest overlap for each pair of start names, as lines, sorted. */
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

/** Section 7, Headroom, by trying each step from the lowest. */
export function referenceHeadroom(plan: Plan, on: number, days: number): number | null {
  let free: number | null = null;
  for (const percent of referenceSteps(plan.timer)) {
    if (referenceOverlaps(plan, on, days, percent).length > 0) return free;
    free = percent;
  }
  return free;
}

/**
 * Section 5 in its plainest form: lives through every second of `days` days, each nominal cycle ticking by itself, and
 * notes each pair of starts that is running at the same second. For plans without windows.
 *
 * @returns lines `A05:00 B06:00`, sorted.
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
