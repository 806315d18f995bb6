/** A running cycle, moment by moment (timing-rules.md sections 4 to 6): what is open, what waits, and what may open next. */
import { assertDefined } from '../document/assertDefined.ts';
import type { ClockSecond } from '../time/calendar.ts';
import type { WeekWindows } from '../time/windows.ts';
import { sharesAt, type CycleModel, type CycleRun } from './cycleModel.ts';

/** What one station waters in a cycle. Seconds; flows in thousandths of a litre a minute. */
export interface Share {
  readonly station: number;
  readonly flow: number;
  /** Longest cycle. */
  readonly piece: number;
  readonly soak: number;
  /** Water left, without the current run. */
  left: number;
  /** End of its soak. */
  ready: ClockSecond;
}

interface Valve {
  /** Index into the shares. */
  readonly row: number;
  /** Seconds of the current run left at `since`. */
  left: number;
  /** Since when the run continues; null: a window has stopped it. */
  since: ClockSecond | null;
  /** Since when its valve is powered; null: it is not. */
  current: ClockSecond | null;
}

/** A running cycle as plain data. */
export interface RunningState {
  readonly shares: readonly Share[];
  readonly valves: readonly Valve[];
  readonly last: number;
  readonly wait: ClockSecond;
  readonly atOnce: number;
  readonly delaySeconds: number;
}

/** Windows for a cycle whose moments are not on the timer's clock. */
export interface Held {
  readonly windows: WeekWindows;
  /** Seconds by which the timer's clock is ahead of the moments. */
  readonly ahead: number;
}

export class RunningCycle {
  private readonly shares: Share[];
  private valves: Valve[];
  private last: number;
  /** Nothing opens earlier: the delay after its last closing. */
  private wait: ClockSecond;
  private readonly atOnce: number;
  private readonly delaySeconds: number;

  constructor({ shares, valves, last, wait, atOnce, delaySeconds }: RunningState) {
    this.shares = shares.map((share) => ({ ...share }));
    this.valves = valves.map((valve) => ({ ...valve }));
    this.last = last;
    this.wait = wait;
    this.atOnce = atOnce;
    this.delaySeconds = delaySeconds;
  }

  /** @param at its beginning */
  static of(
    model: Pick<CycleModel, 'atOnce' | 'delaySeconds'>,
    shares: readonly Omit<Share, 'ready'>[],
    at: ClockSecond,
  ): RunningCycle {
    return new RunningCycle({
      shares: shares.map((share) => ({ ...share, ready: at })),
      valves: [],
      last: -1,
      wait: at,
      atOnce: model.atOnce,
      delaySeconds: model.delaySeconds,
    });
  }

  state(): RunningState {
    const { shares, valves, last, wait, atOnce, delaySeconds } = this;
    return {
      shares: shares.map((share) => ({ ...share })),
      valves: valves.map((valve) => ({ ...valve })),
      ...{ last, wait, atOnce, delaySeconds },
    };
  }

  get size(): number {
    return this.shares.length;
  }

  get isDone(): boolean {
    return this.valves.length === 0 && this.shares.every(({ left }) => left === 0);
  }

  get stations(): readonly number[] {
    return this.shares.map(({ station }) => station);
  }

  /**
   * Adds the runs in progress, whether or not their valves are powered.
   *
   * @returns whether one belongs to the station
   */
  addTo(sum: { open: number; flow: number }, station: number): boolean {
    let isOpen = false;
    for (const { row, since } of this.valves) {
      if (since === null) continue;
      const share = assertDefined(this.shares[row], 'shares[row]');
      isOpen ||= share.station === station;
      sum.open++;
      sum.flow += share.flow;
    }
    return isOpen;
  }

  /** Powered valves: since when, and the seconds left of their runs. */
  wetAt(t: ClockSecond): { station: number; on: ClockSecond; left: number }[] {
    return this.valves.flatMap(({ row, left, since, current }) => {
      if (current === null || since === null) return [];
      return [
        {
          station: assertDefined(this.shares[row], 'shares[row]').station,
          on: current,
          left: left - (t - since),
        },
      ];
    });
  }

  private unplug(valve: Valve, t: ClockSecond, tell: (run: CycleRun) => void): void {
    if (valve.current !== null && valve.current < t)
      tell({
        station: assertDefined(this.shares[valve.row], 'shares[valve.row]').station,
        on: valve.current,
        off: t,
      });
    valve.current = null;
  }

  /** Ends the runs that are over at a moment. */
  close(t: ClockSecond, tell: (run: CycleRun) => void): void {
    this.valves = this.valves.filter((valve) => {
      if (valve.since === null || valve.since + valve.left > t) return true;
      this.unplug(valve, t, tell);
      const share = assertDefined(this.shares[valve.row], 'shares[valve.row]');
      share.ready = t + share.soak;
      this.wait = t + this.delaySeconds;
      return false;
    });
  }

  /** A window begins: open valves close and keep the rest of their runs. */
  pause(t: ClockSecond, tell: (run: CycleRun) => void): void {
    for (const valve of this.valves) {
      if (valve.since === null) continue;
      this.unplug(valve, t, tell);
      valve.left -= t - valve.since;
      valve.since = null;
    }
  }

  /** Ends the cycle; the rest is lost. */
  stop(t: ClockSecond, tell: (run: CycleRun) => void): void {
    for (const valve of this.valves) this.unplug(valve, t, tell);
    this.valves = [];
  }

  /**
   * Reopens valves that a window closed, if there is room. All cycles of one limit do so before any of them opens another valve
   * (timing-rules.md section 6).
   */
  resumeAt(t: ClockSecond, room: Room): void {
    for (const valve of this.valves)
      if (
        valve.since === null &&
        room.has(assertDefined(this.shares[valve.row], 'shares[valve.row]'))
      )
        valve.since = t;
  }

  /** Opens the stations that are due. A cycle waiting to reopen a valve opens nothing else. */
  openAt(t: ClockSecond, room: Room): void {
    if (this.valves.some(({ since }) => since === null)) return;
    while (t >= this.wait && this.valves.length < this.atOnce) {
      const row = this.choose(t, room);
      if (row < 0) return;
      const share = assertDefined(this.shares[row], 'shares[row]');
      const seconds = Math.min(share.piece, share.left);
      share.left -= seconds;
      this.last = row;
      this.valves.push({ row, left: seconds, since: t, current: null });
    }
  }

  /** Powers the valves that should be, after everything else at a moment. */
  power(t: ClockSecond, has: (station: number) => boolean, tell: (run: CycleRun) => void): void {
    for (const valve of this.valves) {
      const should =
        valve.since !== null &&
        has(assertDefined(this.shares[valve.row], 'shares[valve.row]').station);
      if (!should) this.unplug(valve, t, tell);
      else valve.current ??= t;
    }
  }

  /** The first row after the last one, wrapping to the lowest, that is ready and has room; −1: none. */
  private choose(t: ClockSecond, room: Room): number {
    for (let step = 1; step <= this.size; step++) {
      const row = (this.last + step) % this.size;
      const share = assertDefined(this.shares[row], 'shares[row]');
      if (share.left > 0 && share.ready <= t && room.has(share)) return row;
    }
    return -1;
  }

  /** The next moment at which anything can happen to it. */
  nextAfter(t: ClockSecond, held: Held | null): ClockSecond {
    let next = this.wait > t ? this.wait : Infinity;
    for (const { since, left } of this.valves)
      if (since !== null) next = Math.min(next, since + left);
    for (const { ready, left } of this.shares)
      if (ready > t && left > 0) next = Math.min(next, ready);
    if (!held) return next;
    const { windows, ahead } = held;
    const free = windows.nextFree(t + ahead) - ahead;
    return Math.min(next, free > t ? free : windows.nextWindow(t + ahead) - ahead);
  }
}

/** What may still open, over all cycles of one limit. */
export class Room {
  private readonly running: readonly RunningCycle[];
  private readonly most: number;
  /** Thousandths of a litre a minute. */
  private readonly flowLimit: number;

  constructor(running: readonly RunningCycle[], most: number, flowLimit: number) {
    this.running = running;
    this.most = most;
    this.flowLimit = flowLimit;
  }

  /** Whether a station may open. One held closed by a window keeps its cycle's turn but takes no room. */
  has({ station, flow }: Pick<Share, 'station' | 'flow'>): boolean {
    const sum = { open: 0, flow: 0 };
    for (const cycle of this.running) if (cycle.addTo(sum, station)) return false;
    return sum.open < this.most && (sum.open === 0 || sum.flow + flow <= this.flowLimit);
  }
}

/** What the stations of a program water at a percent. */
export function sharesOf(model: CycleModel, percent: number): Omit<Share, 'ready'>[] {
  const { count, stations, seconds, pieces, soaks, flows } = sharesAt(model, percent);
  return Array.from({ length: count }, (_, i) => ({
    station: assertDefined(stations[i], 'stations[i]'),
    flow: assertDefined(flows[i], 'flows[i]'),
    piece: assertDefined(pieces[i], 'pieces[i]'),
    soak: assertDefined(soaks[i], 'soaks[i]'),
    left: assertDefined(seconds[i], 'seconds[i]'),
  }));
}
