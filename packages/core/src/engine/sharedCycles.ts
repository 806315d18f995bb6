/**
 * Cycles of several programs side by side within one limit (timing-rules.md section 5, `share`): each goes by section 4, and together they open
 * no more stations, and no more flow, than the timer allows.
 */
import { sure } from '../document/sure.ts';
import type { ClockSecond } from '../time/calendar.ts';
import type { Plan } from '../plan/plan.ts';
import type { CycleModel, Shares } from './cycleModel.ts';
import { sharesAt } from './cycleModel.ts';
import type { Effort } from './effort.ts';
import type { ProgramCycles } from './nominal.ts';

/** A cycle that comes. */
export interface ComingCycle {
  readonly program: ProgramCycles;
  readonly percent: number;
  /** Windows of its program do not hold this moment. */
  readonly arrives: ClockSecond;
}

export interface SharedRun {
  readonly station: number;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
}

export interface SharedCycle {
  readonly outcome: 'ran' | 'cut';
  readonly ended: ClockSecond;
  readonly runs: readonly SharedRun[];
}

interface Valve {
  readonly row: number;
  /** Seconds of the piece that are left at `since`. */
  left: number;
  /** Since when it is open; null: a window holds it closed. */
  since: ClockSecond | null;
}

/** One of the cycles under way. */
class Running {
  /** Its place among those that come. */
  readonly index: number;
  readonly runs: SharedRun[] = [];
  valves: Valve[] = [];
  readonly program: ProgramCycles;
  readonly model: CycleModel;
  private readonly shares: Shares;
  private readonly left: Float64Array;
  private readonly ready: Float64Array;
  private last = -1;
  /** Nothing opens before: the delay after its last closing. */
  private wait: ClockSecond;

  constructor({ program, percent, arrives }: ComingCycle, index: number) {
    this.index = index;
    this.program = program;
    this.model = program.model;
    this.shares = sharesAt(program.model, percent);
    this.left = this.shares.seconds.slice(0, this.shares.count);
    this.ready = new Float64Array(this.shares.count).fill(arrives);
    this.wait = arrives;
  }

  get size(): number {
    return this.shares.count;
  }

  get isDone(): boolean {
    return this.valves.length === 0 && this.left.every((seconds) => seconds === 0);
  }

  stationOf(row: number): number {
    return sure(this.shares.stations[row]);
  }

  flowOf(row: number): number {
    return sure(this.shares.flows[row]);
  }

  isHeldAt(t: ClockSecond): boolean {
    const { windows } = this.program;
    return windows !== null && windows.nextFree(t) !== t;
  }

  private tell({ row, since }: Valve, off: ClockSecond): void {
    if (since !== null && since < off)
      this.runs.push({ station: this.stationOf(row), on: since, off });
  }

  /** Ends the pieces that are over at a moment. */
  close(t: ClockSecond): void {
    this.valves = this.valves.filter((valve) => {
      if (valve.since === null || valve.since + valve.left > t) return true;
      this.tell(valve, t);
      this.ready[valve.row] = t + sure(this.shares.soaks[valve.row]);
      this.wait = t + this.model.delaySeconds;
      return false;
    });
  }

  /** A window begins: what is open closes, and keeps what is left of its piece. */
  pause(t: ClockSecond): void {
    for (const valve of this.valves) {
      if (valve.since === null) continue;
      this.tell(valve, t);
      valve.left -= t - valve.since;
      valve.since = null;
    }
  }

  stop(t: ClockSecond): void {
    for (const valve of this.valves) this.tell(valve, t);
    this.valves = [];
  }

  /** Opens what it may at a moment. */
  open(t: ClockSecond, room: Room): void {
    for (const valve of this.valves)
      if (valve.since === null && room.has(this.stationOf(valve.row), this.flowOf(valve.row)))
        valve.since = t;
    // What a window broke off goes on before anything else.
    if (this.valves.some(({ since }) => since === null)) return;
    while (t >= this.wait && this.valves.length < this.model.atOnce) {
      const row = this.choose(t, room);
      if (row < 0) return;
      const left = sure(this.left[row]);
      const seconds = Math.min(sure(this.shares.pieces[row]), left);
      this.left[row] = left - seconds;
      this.last = row;
      this.valves.push({ row, left: seconds, since: t });
    }
  }

  /** The first row after the last one, round to the lowest, that is ready and has room; −1: none. */
  private choose(t: ClockSecond, room: Room): number {
    for (let step = 1; step <= this.size; step++) {
      const row = (this.last + step) % this.size;
      if (sure(this.left[row]) === 0 || sure(this.ready[row]) > t) continue;
      if (room.has(this.stationOf(row), this.flowOf(row))) return row;
    }
    return -1;
  }

  /** The next moment at which anything can happen to it by itself. */
  nextAfter(t: ClockSecond): ClockSecond {
    let next = this.wait > t ? this.wait : Infinity;
    for (const { since, left } of this.valves)
      if (since !== null) next = Math.min(next, since + left);
    for (let row = 0; row < this.size; row++) {
      const ready = sure(this.ready[row]);
      if (ready > t && sure(this.left[row]) > 0) next = Math.min(next, ready);
    }
    const { windows } = this.program;
    if (!windows) return next;
    const free = windows.nextFree(t);
    return Math.min(next, free > t ? free : windows.nextWindow(t));
  }
}

/** What may be open besides what is open, in all cycles together. */
class Room {
  private readonly running: readonly Running[];
  private readonly most: number;
  private readonly flowLimit: number;

  constructor(running: readonly Running[], most: number) {
    this.running = running;
    this.most = most;
    this.flowLimit = running[0]?.model.flowLimit ?? Infinity;
  }

  /** Whether a station may be opened. */
  has(station: number, flow: number): boolean {
    let open = 0;
    let flowing = 0;
    for (const cycle of this.running)
      for (const { row, since } of cycle.valves) {
        // One that a window holds closed is still that cycle's turn, but takes no room.
        if (since === null) continue;
        if (cycle.stationOf(row) === station) return false;
        open++;
        flowing += cycle.flowOf(row);
      }
    return open < this.most && (open === 0 || flowing + flow <= this.flowLimit);
  }
}

/**
 * What becomes of cycles that share one limit.
 *
 * @param coming in the order in which they come.
 * @returns one for each, in the same order. Cost: pieces × stations under way.
 * @throws TooMuchWork
 */
export function sharedCycles(
  plan: Plan,
  coming: readonly ComingCycle[],
  effort: Effort,
): SharedCycle[] {
  const most = Math.min(plan.timer.stationsAtOnce, plan.settings.stationsAtOnce ?? Infinity);
  const ends: SharedCycle[] = [];
  let running: Running[] = [];
  const over = (cycle: Running, outcome: 'ran' | 'cut', ended: ClockSecond) => {
    ends[cycle.index] = { outcome, ended, runs: cycle.runs };
    running = running.filter((one) => one !== cycle);
  };
  let next = 0;
  let t = coming[0]?.arrives ?? Infinity;
  while (t < Infinity) {
    for (const cycle of [...running]) {
      cycle.close(t);
      if (cycle.isDone) over(cycle, 'ran', t);
      else if (cycle.isHeldAt(t))
        if (cycle.program.cutsInWindow) {
          cycle.stop(t);
          over(cycle, 'cut', t);
        } else cycle.pause(t);
    }
    for (let one = coming[next]; one?.arrives === t; one = coming[++next])
      running.push(new Running(one, next));
    const room = new Room(running, most);
    let then = coming[next]?.arrives ?? Infinity;
    for (const cycle of running) {
      effort.spend(8 + cycle.size * (1 + running.length));
      if (!cycle.isHeldAt(t)) cycle.open(t, room);
      then = Math.min(then, cycle.nextAfter(t));
    }
    t = then;
  }
  return ends;
}
