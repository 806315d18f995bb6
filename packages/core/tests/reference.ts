/**
 * The slow truth: what a timer does, second by second, and whether cycles overlap, date by date. Written from
 * docs/spec/timing-rules.md alone and as plainly as possible; it shares nothing with the engine but calendar arithmetic
 * (tested by itself) and the types.
 */
import {
  civilOf,
  LAST_DAY,
  parseMoment,
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type Plan,
  type Program,
} from '@water-clock/core';

const enabled = (plan: Plan, station: number) =>
  plan.stations.some((one) => one.number === station && one.enabled !== false);

/** Section 3, by trying every multiple. */
export function referenceAdjusted(
  seconds: number,
  percent: number,
  { roundToSeconds: unit, rounding }: Plan['timer']['seasonal'],
): number {
  if (seconds === 0 || percent === 0) return 0;
  const wanted = seconds * percent;
  let multiple = 0;
  while ((multiple + 1) * unit * 100 <= wanted) multiple++;
  const below = wanted - multiple * unit * 100;
  const above = (multiple + 1) * unit * 100 - wanted;
  if (rounding === 'up' && below > 0) multiple++;
  if (rounding === 'nearest' && above <= below) multiple++;
  return Math.max(1, multiple) * unit;
}

/** Section 4, one second at a time. */
class TickingCycle {
  readonly runs: { station: number; on: number; off: number }[] = [];
  finished: boolean;
  ended = 0;
  private readonly stations: {
    number: number;
    left: number;
    piece: number;
    soak: number;
    ready: number;
  }[] = [];
  private last = 0;
  private open: { number: number; since: number; until: number } | null = null;
  private waitUntil: number;

  constructor(plan: Plan, program: Program, percent: number, began: number) {
    for (const { station, seconds } of program.runs) {
      const left = referenceAdjusted(seconds, percent, plan.timer.seasonal);
      if (!enabled(plan, station) || left === 0) continue;
      const found = plan.stations.find((one) => one.number === station);
      const source =
        plan.timer.cycleSoak === 'station'
          ? found
          : plan.timer.cycleSoak === 'program'
            ? program
            : {};
      const { cycleSeconds, soakSeconds }: { cycleSeconds?: number; soakSeconds?: number } =
        source ?? {};
      const split = cycleSeconds !== undefined && soakSeconds !== undefined;
      this.stations.push({
        number: station,
        left,
        piece: split ? cycleSeconds : left,
        soak: split ? soakSeconds : 0,
        ready: began,
      });
    }
    this.finished = this.stations.length === 0;
    this.waitUntil = began;
    this.delay = plan.settings.stationDelaySeconds ?? 0;
  }
  private readonly delay: number;

  close(now: number): void {
    if (!this.open || this.open.until !== now) return;
    this.runs.push({ station: this.open.number, on: this.open.since, off: now });
    const station = this.stations.find((one) => one.number === this.open?.number);
    if (station) station.ready = now + station.soak;
    this.open = null;
    this.waitUntil = now + this.delay;
    if (this.stations.every((one) => one.left === 0)) this.stop(now);
  }

  openNext(now: number): void {
    if (this.open || this.finished || now < this.waitUntil) return;
    const waiting = this.stations.filter((one) => one.left > 0 && one.ready <= now);
    const inOrder = waiting.sort((a, b) => a.number - b.number);
    const next = inOrder.find((one) => one.number > this.last) ?? inOrder[0];
    if (!next) return;
    const piece = Math.min(next.piece, next.left);
    next.left -= piece;
    this.last = next.number;
    this.open = { number: next.number, since: now, until: now + piece };
  }

  stop(now: number): void {
    if (this.open && this.open.since < now)
      this.runs.push({ station: this.open.number, on: this.open.since, off: now });
    this.open = null;
    this.finished = true;
    this.ended = now;
  }
}

/** A cycle by itself: its length in seconds. */
export function referenceCycleSeconds(plan: Plan, program: Program, percent: number): number {
  const cycle = new TickingCycle(plan, program, percent, 0);
  for (let now = 0; !cycle.finished; now++) {
    cycle.close(now);
    cycle.openNext(now);
  }
  return cycle.ended;
}

function percentIn(plan: Plan, program: Program, month: number): number {
  const { scope, byMonth } = plan.timer.seasonal;
  if (scope === 'none') return 100;
  if (scope === 'program') return program.seasonalPercent ?? 100;
  const monthly = byMonth ? plan.settings.monthlyPercent : undefined;
  return monthly?.[month - 1] ?? plan.settings.seasonalPercent ?? 100;
}

function complete(plan: Plan): Program[] {
  return plan.programs.filter(
    ({ starts, runs, days }) =>
      starts.length > 0 &&
      runs.some((run) => run.seconds > 0 && enabled(plan, run.station)) &&
      (days?.rule === 'daily' || (days?.rule === 'weekdays' && days.weekdays.length > 0)),
  );
}

/** Section 2, for one date. */
function fires(plan: Plan, program: Program, day: number, second: number): boolean {
  const weekday = WEEKDAYS[weekdayIndexOf(day)];
  const { days } = program;
  const onDay =
    days?.rule === 'daily' ||
    (days?.rule === 'weekdays' && weekday !== undefined && days.weekdays.includes(weekday));
  const resumes = plan.settings.wateringResumes;
  const delayed =
    resumes !== undefined && day * SECONDS_PER_DAY + second < (parseMoment(resumes) ?? 0);
  return onDay && !delayed;
}

/** Section 5, by living through every second. Moments are clock seconds. */
export function referenceSimulate(plan: Plan, from: number, days: number) {
  const programs = [...complete(plan)].sort((a, b) => a.letter.localeCompare(b.letter));
  type Entry = {
    program: string;
    start: string;
    due: number;
    outcome: 'ran' | 'cut' | 'lost';
    began: number | null;
    cycle: TickingCycle | null;
    percent: number;
    of: Program;
  };
  const entries: Entry[] = [];
  let active: Entry[] = [];
  const queue: Entry[] = [];
  const begin = (entry: Entry, now: number) => {
    entry.began = now;
    entry.cycle = new TickingCycle(plan, entry.of, entry.percent, now);
    active.push(entry);
  };
  const first = from * SECONDS_PER_DAY;
  const last = (from + days) * SECONDS_PER_DAY;
  for (let now = first; now < last || active.length > 0 || queue.length > 0; now++) {
    for (const { cycle } of active) cycle?.close(now);
    active = active.filter(({ cycle }) => !cycle?.finished);
    if (now < last && plan.settings.mode !== 'off' && now % 60 === 0)
      for (const program of programs)
        for (const start of program.starts) {
          const day = Math.floor(now / SECONDS_PER_DAY);
          const second = now % SECONDS_PER_DAY;
          if (parseTime(start) !== second || !fires(plan, program, day, second)) continue;
          const percent = percentIn(plan, program, civilOf(day).month);
          if (new TickingCycle(plan, program, percent, 0).finished) continue;
          const entry: Entry = {
            program: program.letter,
            start,
            due: now,
            outcome: 'ran',
            began: null,
            cycle: null,
            percent,
            of: program,
          };
          entries.push(entry);
          const busy = active.length > 0;
          if (plan.timer.onOverlap === 'queue') queue.push(entry);
          else if (plan.timer.onOverlap === 'drop' && busy) entry.outcome = 'lost';
          else {
            if (plan.timer.onOverlap === 'cut')
              for (const running of active.splice(0)) {
                running.cycle?.stop(now);
                running.outcome = 'cut';
              }
            begin(entry, now);
          }
        }
    const next = queue[0];
    if (next && active.length === 0) {
      queue.shift();
      begin(next, now);
    }
    for (const { cycle } of active) cycle?.openNext(now);
  }
  return entries.map(({ cycle, of: _of, percent: _percent, ...entry }) => ({
    ...entry,
    ended: cycle ? cycle.ended : null,
    runs: cycle ? cycle.runs : [],
  }));
}

/**
 * Sections 5 and 7 date by date: the earliest overlap for each pair of start names among cycles due from `on` for `days`
 * days, as lines `A05:00@day B06:00@day shared`, sorted. `percent` takes the place of every other percent where given.
 */
export function referenceOverlaps(
  plan: Plan,
  on: number,
  days: number,
  percent?: number,
): string[] {
  const lengths = new Map<string, number>();
  const cycles: { name: string; day: number; begins: number; ends: number }[] = [];
  for (let day = on; day < on + days && day <= LAST_DAY; day++)
    for (const program of complete(plan)) {
      const at = percent ?? percentIn(plan, program, civilOf(day).month);
      const key = `${program.letter}${at}`;
      const seconds = lengths.get(key) ?? referenceCycleSeconds(plan, program, at);
      lengths.set(key, seconds);
      for (const start of program.starts) {
        const second = parseTime(start) ?? 0;
        if (!fires(plan, program, day, second) || seconds === 0) continue;
        const begins = day * SECONDS_PER_DAY + second;
        cycles.push({ name: `${program.letter}${start}`, day, begins, ends: begins + seconds });
      }
    }
  cycles.sort((a, b) => a.begins - b.begins || (a.name < b.name ? -1 : 1));
  const found = new Map<string, string>();
  cycles.forEach((a, i) => {
    for (let k = i + 1; k < cycles.length; k++) {
      const b = cycles[k];
      if (!b || b.begins >= a.ends) break;
      const pair = [a.name, b.name].sort().join();
      const line = `${a.name}@${a.day} ${b.name}@${b.day} ${Math.min(a.ends, b.ends) - b.begins}`;
      if (!found.has(pair)) found.set(pair, line);
    }
  });
  return [...found.values()].sort();
}

/** Section 7, Headroom, by trying each step from the lowest. */
export function referenceHeadroom(plan: Plan, on: number, days: number): number | null {
  const { scope, lowestPercent, highestPercent, stepPercent } = plan.timer.seasonal;
  const [lowest, highest, step] =
    scope === 'none' ? [1, 300, 1] : [lowestPercent, highestPercent, stepPercent];
  let free: number | null = null;
  for (let percent = lowest; percent <= highest; percent += step) {
    if (referenceOverlaps(plan, on, days, percent).length > 0) return free;
    free = percent;
  }
  return free;
}

/**
 * Section 5 in its plainest form: lives through every second of `days` days, each nominal cycle ticking by itself, and
 * notes each pair of starts that is running at the same second. For plans whose percent is the same all year.
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
  let running: { name: string; cycle: TickingCycle }[] = [];
  for (let now = on * SECONDS_PER_DAY; now < (on + days) * SECONDS_PER_DAY; now++) {
    for (const { cycle } of running) cycle.close(now);
    running = running.filter(({ cycle }) => !cycle.finished);
    const day = Math.floor(now / SECONDS_PER_DAY);
    const second = now % SECONDS_PER_DAY;
    if (second % 60 === 0)
      for (const program of complete(plan))
        for (const start of program.starts) {
          if (parseTime(start) !== second || !fires(plan, program, day, second)) continue;
          const at = percent ?? percentIn(plan, program, civilOf(day).month);
          const cycle = new TickingCycle(plan, program, at, now);
          if (!cycle.finished) running.push({ name: `${program.letter}${start}`, cycle });
        }
    for (const { cycle } of running) cycle.openNext(now);
    for (const [i, a] of running.entries())
      for (const b of running.slice(i + 1)) pairs.add([a.name, b.name].sort().join(' '));
  }
  return [...pairs].sort();
}
