/** One cycle of the slow reference model: section 4 of timing-rules.md, one second at a time. */
import {
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type Plan,
  type Program,
} from '@water-clock/core';

export const enabled = (plan: Plan, station: number) =>
  plan.stations.some((one) => one.number === station && one.enabled !== false);
export const weekdayOf = (day: number) => WEEKDAYS[weekdayIndexOf(day)] ?? 'mon';
export const dayOf = (now: number) => Math.floor(now / SECONDS_PER_DAY);

/** Section 3, by trying every multiple. */
function referenceAdjusted(
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

/** Whether a second is inside a window that holds back a program's water (section 6). */
export function heldBack(plan: Plan, program: Program, now: number): boolean {
  if (plan.timer.inWindow === 'ignore') return false;
  const windows = [...(plan.settings.noWaterWindows ?? []), ...(program.noWaterWindows ?? [])];
  return windows.some(({ from, to, weekdays }) =>
    [dayOf(now), dayOf(now) - 1].some((day) => {
      if (weekdays && !weekdays.includes(weekdayOf(day))) return false;
      const begin = day * SECONDS_PER_DAY + (parseTime(from) ?? 0);
      const sameDay = day * SECONDS_PER_DAY + (parseTime(to) ?? 0);
      return begin <= now && now < (sameDay > begin ? sameDay : sameDay + SECONDS_PER_DAY);
    }),
  );
}

interface Valve {
  readonly number: number;
  remaining: number;
  /** Since when water has flowed without a break; null: held back by a window. */
  since: number | null;
}

/** Section 4, one second at a time. `tick` is called for every second from the start of the cycle. */
export class TickingCycle {
  readonly runs: { station: number; on: number; off: number }[] = [];
  finished: boolean;
  ended = 0;
  private readonly stations: {
    number: number;
    left: number;
    piece: number;
    soak: number;
    ready: number;
    flow: number;
  }[] = [];
  private last = 0;
  private valves: Valve[] = [];
  private waitUntil: number;
  private readonly delay: number;
  private readonly atOnce: number;
  private readonly flowLimit: number;

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
        flow: Math.round((found?.flowLpm ?? 0) * 1000),
      });
    }
    this.stations.sort((a, b) => a.number - b.number);
    this.finished = this.stations.length === 0;
    this.waitUntil = began;
    const { settings } = plan;
    this.delay = settings.stationDelaySeconds ?? 0;
    this.atOnce = Math.min(
      plan.timer.stationsAtOnce,
      settings.stationsAtOnce ?? 99,
      program.stationsAtOnce ?? 99,
    );
    this.flowLimit = Math.round((settings.flowLimitLpm ?? 1e9) * 1000);
  }

  /** A second has passed: what closes now. */
  close(now: number): void {
    let done = false;
    for (const valve of this.valves)
      if (valve.since !== null && valve.since !== now && --valve.remaining === 0) done = true;
    if (!done) return;
    for (const valve of [...this.valves]) {
      if (valve.since === null || valve.remaining > 0) continue;
      this.runs.push({ station: valve.number, on: valve.since, off: now });
      this.valves = this.valves.filter((one) => one !== valve);
      const station = this.stations.find((one) => one.number === valve.number);
      if (station) station.ready = now + station.soak;
      this.waitUntil = now + this.delay;
    }
    if (this.valves.length === 0 && this.stations.every((one) => one.left === 0)) this.stop(now);
  }

  /** Open stations, with their flows. */
  get openNow(): { number: number; flow: number }[] {
    return this.valves
      .filter(({ since }) => since !== null)
      .map(({ number }) => ({
        number,
        flow: this.stations.find((one) => one.number === number)?.flow ?? 0,
      }));
  }

  /** A window closes what is open. */
  hold(now: number): void {
    for (const valve of this.valves) {
      if (valve.since === null) continue;
      if (valve.since < now) this.runs.push({ station: valve.number, on: valve.since, off: now });
      valve.since = null;
    }
  }

  /** Whether a station may open next to everything open in the cycles that share one limit. */
  private fits(
    { number, flow }: { number: number; flow: number },
    beside: readonly TickingCycle[],
    most: number,
  ): boolean {
    const open = beside.flatMap((one) => one.openNow);
    const flowing = open.reduce((sum, one) => sum + one.flow, 0);
    return (
      open.length < most &&
      open.every((one) => one.number !== number) &&
      (open.length === 0 || flowing + flow <= this.flowLimit)
    );
  }

  /** Valves that a window closed reopen; all cycles do this before any opens something else. */
  resume(now: number, beside: readonly TickingCycle[] = [], most = Infinity): void {
    for (const valve of this.valves) {
      const flow = this.stations.find((one) => one.number === valve.number)?.flow ?? 0;
      if (valve.since !== null) continue;
      if (beside.length === 0 || this.fits({ number: valve.number, flow }, beside, most))
        valve.since = now;
    }
  }

  /** What opens now; `beside` are all cycles that share one limit. */
  open(now: number, held: boolean, beside: readonly TickingCycle[] = [], most = Infinity): void {
    if (this.finished) return;
    if (held) {
      this.hold(now);
      return;
    }
    if (beside.length === 0) this.resume(now);
    if (this.valves.some(({ since }) => since === null)) return;
    // While every possible valve is open there is nothing to choose.
    while (now >= this.waitUntil && this.valves.length < this.atOnce) {
      if (!this.stations.some((one) => one.left > 0 && one.ready <= now)) return;
      const isOpen = (number: number) => this.valves.some((valve) => valve.number === number);
      const flowing = this.stations
        .filter((one) => isOpen(one.number))
        .reduce((sum, one) => sum + one.flow, 0);
      const waiting = this.stations.filter(
        (one) =>
          one.left > 0 &&
          one.ready <= now &&
          !isOpen(one.number) &&
          (beside.length === 0 || this.fits(one, beside, most)) &&
          (this.valves.length === 0 || flowing + one.flow <= this.flowLimit),
      );
      const next = waiting.find((one) => one.number > this.last) ?? waiting[0];
      if (!next) return;
      const piece = Math.min(next.piece, next.left);
      next.left -= piece;
      this.last = next.number;
      this.valves.push({ number: next.number, remaining: piece, since: now });
    }
  }

  stop(now: number): void {
    for (const { number, since } of this.valves)
      if (since !== null && since < now) this.runs.push({ station: number, on: since, off: now });
    this.valves = [];
    this.finished = true;
    this.ended = now;
  }
}
