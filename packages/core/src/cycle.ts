/** The order inside a cycle: which valves are open when (timing-rules.md section 4, and section 6 where a window pauses it). */
import type { ClockSecond } from './calendar.ts';
import { Effort } from './effort.ts';
import type { Path } from './fault.ts';
import type { Plan, Program, Seasonal } from './plan.ts';
import { adjustedSeconds } from './program.ts';
import type { WeekWindows } from './windows.ts';

/** One valve open without a break; half-open, `off` not included. Seconds from the cycle's beginning, or clock seconds. */
export interface CycleRun {
  readonly station: number;
  readonly on: number;
  readonly off: number;
}

/** What one station has to give in a cycle, all in seconds. */
interface Share {
  readonly station: number;
  /** Adjusted run, above 0. */
  readonly seconds: number;
  /** Longest piece; the whole run where it is not split. */
  readonly piece: number;
  readonly soak: number;
  /** Thousandths of a litre a minute. */
  readonly flow: number;
}

/** One run of a program as entered, with how it is split; seconds. */
interface EnteredRun {
  readonly station: number;
  readonly seconds: number;
  /** Null: not split. */
  readonly split: { readonly piece: number; readonly soak: number } | null;
  /** Thousandths of a litre a minute. */
  readonly flow: number;
}

/** A program's cycles before the percent: what is the same for all of them, looked up once. */
export interface CycleModel {
  /** Of enabled stations, ascending by number. */
  readonly runs: readonly EnteredRun[];
  readonly delaySeconds: number;
  readonly seasonal: Seasonal;
  /** The limit K of stations open at once within the cycle. */
  readonly atOnce: number;
  /** Thousandths of a litre a minute; endless where none is set. */
  readonly flowLimit: number;
  /** Where the runs stand in the document. */
  readonly path: Path;
}

const thousandths = (litres: number) => Math.round(litres * 1000);

/** What a program's cycles are made of, whatever the percent. */
export function cycleModel(plan: Plan, program: Program): CycleModel {
  const { cycleSoak, seasonal } = plan.timer;
  const { settings } = plan;
  const stationOf = new Map(plan.stations.map((station) => [station.number, station]));
  const runs: EnteredRun[] = [];
  for (const { station: number, seconds } of program.runs) {
    const station = stationOf.get(number);
    if (seconds === 0 || !station || station.enabled === false) continue;
    const from = cycleSoak === 'station' ? station : cycleSoak === 'program' ? program : undefined;
    const split =
      from?.cycleSeconds !== undefined && from.soakSeconds !== undefined
        ? { piece: from.cycleSeconds, soak: from.soakSeconds }
        : null;
    runs.push({ station: number, seconds, split, flow: thousandths(station.flowLpm ?? 0) });
  }
  runs.sort((a, b) => a.station - b.station);
  return {
    runs,
    delaySeconds: settings.stationDelaySeconds ?? 0,
    seasonal,
    atOnce: Math.min(
      plan.timer.stationsAtOnce,
      settings.stationsAtOnce ?? Infinity,
      program.stationsAtOnce ?? Infinity,
    ),
    flowLimit: settings.flowLimitLpm === undefined ? Infinity : thousandths(settings.flowLimitLpm),
    path: ['programs', plan.programs.indexOf(program), 'runs'],
  };
}

/** What the stations have to give at a percent. */
function sharesAt({ runs, seasonal }: CycleModel, percent: number): Share[] {
  const shares: Share[] = [];
  for (const { station, seconds: entered, split, flow } of runs) {
    const seconds = adjustedSeconds(entered, percent, seasonal);
    if (seconds > 0)
      shares.push({
        station,
        seconds,
        piece: split ? Math.min(split.piece, seconds) : seconds,
        soak: split ? split.soak : 0,
        flow,
      });
  }
  return shares;
}

/** Pieces worked through one by one before it is worth while to look for a pattern that comes again. */
const PIECES_BEFORE_A_PATTERN = 256;

/** A cycle at work: section 4's loop, with moments of its own counting. */
class Work {
  private readonly left: number[];
  private readonly ready: number[];
  /** Moment of closing; endlessly long ago: not open. */
  private readonly closes: number[];
  /** Indices of the stations that still have water to give, ascending. */
  private live: number[];
  /** Indices of those that are open. */
  private opened: number[] = [];
  /** Indices of those that soak, and perhaps of some that no longer do. */
  private soaking: number[] = [];
  private openFlow = 0;
  private last = -1;
  private lastClosing = -Infinity;
  private pieces = 0;
  /** Stations looked at since the work was last counted. */
  private steps = 0;
  private t: ClockSecond;
  private readonly shares: readonly Share[];
  private readonly model: CycleModel;
  private readonly windows: WeekWindows | null;
  /** No window holds a moment from the last free one looked at until here. */
  private freeUntil: ClockSecond = -Infinity;
  private readonly leastFlow: number;

  constructor(
    shares: readonly Share[],
    model: CycleModel,
    windows: WeekWindows | null,
    begin: ClockSecond,
  ) {
    this.shares = shares;
    this.model = model;
    this.windows = windows;
    this.t = begin;
    this.left = shares.map((share) => share.seconds);
    this.ready = shares.map(() => begin);
    this.closes = shares.map(() => -Infinity);
    this.live = shares.map((_, i) => i);
    this.leastFlow = Math.min(...shares.map(({ flow }) => flow));
  }

  /** Works through the whole cycle and hands each piece to `tell`; the end is when the last valve closes. */
  run(effort: Effort, tell: ((piece: CycleRun) => void) | null): ClockSecond {
    let pattern: Pattern | null = null;
    // Ends: every turn moves on to a later moment, and between two closings only so many moments can come.
    for (;;) {
      effort.spend(8 + this.steps);
      this.steps = 0;
      this.close();
      if (this.live.length === 0 && this.opened.length === 0) return this.t;
      this.t = this.openAndLookAhead(tell);
      if (tell || this.windows || this.pieces < PIECES_BEFORE_A_PATTERN) continue;
      effort.spend(this.shares.length * 4);
      pattern ??= new Pattern(this.state());
      const skip = pattern.compare(this.state());
      if (skip) this.skip(skip);
    }
  }

  private close(): void {
    let some = false;
    for (const i of this.opened) {
      if (this.closes[i] !== this.t) continue;
      const share = this.shares[i];
      this.closes[i] = -Infinity;
      this.ready[i] = this.t + (share?.soak ?? 0);
      this.openFlow -= share?.flow ?? 0;
      this.lastClosing = this.t;
      if ((share?.soak ?? 0) > 0 && (this.left[i] ?? 0) > 0) this.soaking.push(i);
      some = true;
    }
    if (some) this.opened = this.opened.filter((i) => this.closes[i] !== -Infinity);
  }

  /** Opens all that may be opened now; the next moment at which anything can happen. */
  private openAndLookAhead(tell: ((piece: CycleRun) => void) | null): ClockSecond {
    const { atOnce, delaySeconds } = this.model;
    let next = Infinity;
    if (this.live.length > 0 && this.opened.length < atOnce) {
      const allowed = Math.max(this.lastClosing + delaySeconds, this.nextFree());
      if (allowed > this.t) next = allowed;
      else {
        while (this.opened.length < atOnce) {
          const chosen = this.choose();
          if (chosen < 0) break;
          this.open(chosen, tell);
        }
        if (this.opened.length < atOnce) next = this.nextReady();
      }
    }
    for (const i of this.opened) next = Math.min(next, this.closes[i] ?? Infinity);
    return next;
  }

  /** Now, or the end of the window that holds this moment. */
  private nextFree(): ClockSecond {
    if (this.t < this.freeUntil || !this.windows) return this.t;
    const free = this.windows.nextFree(this.t);
    if (free === this.t) this.freeUntil = this.windows.nextWindow(free);
    return free;
  }

  /** The next moment at which a soak is over. */
  private nextReady(): ClockSecond {
    let next = Infinity;
    let over = false;
    for (const i of this.soaking) {
      const ready = this.ready[i] ?? 0;
      if (ready <= this.t) over = true;
      else if (ready < next) next = ready;
    }
    this.steps += this.soaking.length;
    if (over) this.soaking = this.soaking.filter((i) => (this.ready[i] ?? 0) > this.t);
    return next;
  }

  private mayOpen(i: number): boolean {
    if ((this.ready[i] ?? 0) > this.t || (this.closes[i] ?? 0) > this.t) return false;
    return (
      this.opened.length === 0 ||
      this.openFlow + (this.shares[i]?.flow ?? 0) <= this.model.flowLimit
    );
  }

  /** Index of the first station after `last`, round to the lowest, that is ready, not open and fits beside those open. */
  private choose(): number {
    const { live } = this;
    if (this.opened.length > 0 && this.openFlow + this.leastFlow > this.model.flowLimit) return -1;
    let low = 0;
    let high = live.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((live[middle] ?? 0) > this.last) high = middle;
      else low = middle + 1;
    }
    for (let step = 0; step < live.length; step++) {
      const i = live[low + step < live.length ? low + step : low + step - live.length] ?? 0;
      this.steps++;
      if (this.mayOpen(i)) return i;
    }
    return -1;
  }

  private open(i: number, tell: ((piece: CycleRun) => void) | null): void {
    const share = this.shares[i];
    if (!share) return;
    const left = this.left[i] ?? 0;
    const seconds = Math.min(share.piece, left);
    const closes =
      this.windows && this.t + seconds > this.freeUntil
        ? this.windows.afterFree(this.t, seconds)
        : this.t + seconds;
    this.left[i] = left - seconds;
    if (left === seconds) this.live = this.live.filter((one) => one !== i);
    this.closes[i] = closes;
    this.opened.push(i);
    this.openFlow += share.flow;
    this.last = i;
    this.pieces++;
    tell?.({ station: share.station, on: this.t, off: closes });
  }

  /** All on which what comes next depends, as seen from now; `left` apart. */
  private state(): State {
    const ahead = (moment: number) => Math.max(0, moment - this.t);
    return {
      t: this.t,
      left: [...this.left],
      shape: [
        this.last,
        ahead(this.lastClosing + this.model.delaySeconds),
        ...this.ready.map((moment, i) => ((this.left[i] ?? 0) > 0 ? ahead(moment) : 0)),
        // One that closes on this very second is not the same as one that is not open.
        ...this.closes.map((moment) => (moment === -Infinity ? -1 : moment - this.t)),
      ],
    };
  }

  /**
   * What has come round once will come round again with every station's water less by as much as last time, as long as all
   * have full pieces left. So many rounds are taken at once.
   */
  private skip({ seconds, water }: Round): void {
    let rounds = Infinity;
    water.forEach((taken, i) => {
      if (taken > 0) rounds = Math.min(rounds, Math.floor(((this.left[i] ?? 0) - 1) / taken));
    });
    if (rounds < 1 || rounds === Infinity) return;
    const later = rounds * seconds;
    this.t += later;
    this.lastClosing += later;
    water.forEach((taken, i) => {
      this.left[i] = (this.left[i] ?? 0) - rounds * taken;
      this.ready[i] = (this.ready[i] ?? 0) + later;
      this.closes[i] = (this.closes[i] ?? 0) + later;
    });
  }
}

interface State {
  readonly t: number;
  readonly left: readonly number[];
  readonly shape: readonly number[];
}

/** What happened between two like states. */
interface Round {
  readonly seconds: number;
  readonly water: readonly number[];
}

/** Looks for a state that has been before, against one that is kept twice as long each time (Brent's method). */
class Pattern {
  private kept: State;
  private patience = 1;
  private waited = 0;

  constructor(first: State) {
    this.kept = first;
  }

  compare(now: State): Round | null {
    const { kept } = this;
    if (now.t > kept.t && now.shape.every((value, i) => value === kept.shape[i])) {
      const water = now.left.map((left, i) => (kept.left[i] ?? 0) - left);
      // A station that has finished since then, or has not, must be in the same case as before.
      const same = now.left.every((left, i) => left > 0 === (kept.left[i] ?? 0) > 0);
      this.keep(now);
      return same ? { seconds: now.t - kept.t, water } : null;
    }
    if (++this.waited >= this.patience) {
      this.patience *= 2;
      this.keep(now);
    }
    return null;
  }

  private keep(now: State): void {
    this.kept = now;
    this.waited = 0;
  }
}

export interface CycleShape {
  /** Seconds from the beginning to the end, soaks and delays inside it included. */
  readonly seconds: number;
  readonly runs: readonly CycleRun[];
}

/** A cycle at a percent as it would run by itself with no window in its way, with every run. */
export function shapeAt(model: CycleModel, percent: number, effort: Effort): CycleShape {
  effort.at = model.path;
  const runs: CycleRun[] = [];
  const seconds = new Work(sharesAt(model, percent), model, null, 0).run(effort, (piece) =>
    runs.push(piece),
  );
  return { seconds, runs };
}

/** Length in seconds of a cycle at a percent with no window in its way; the same as `shapeAt(…).seconds`. */
export function cycleSecondsAt(model: CycleModel, percent: number, effort: Effort): number {
  effort.spend(model.runs.length);
  if (model.atOnce === 1) {
    let sum = 0;
    let count = 0;
    let split = false;
    for (const run of model.runs) {
      const seconds = adjustedSeconds(run.seconds, percent, model.seasonal);
      split ||= run.split !== null && run.split.piece < seconds;
      sum += seconds;
      if (seconds > 0) count++;
    }
    // Nothing is split at this percent: each station once, in order, a delay between two.
    if (!split) return sum + model.delaySeconds * Math.max(0, count - 1);
  }
  effort.at = model.path;
  return new Work(sharesAt(model, percent), model, null, 0).run(effort, null);
}

/**
 * A cycle that windows pause, from a moment at which none holds.
 *
 * @returns the moment at which it ends. Each piece goes to `opened` with the windows inside it; see `betweenWindows`.
 */
export function pausedCycleEnd(
  model: CycleModel,
  percent: number,
  windows: WeekWindows,
  begin: ClockSecond,
  effort: Effort,
  opened: ((piece: CycleRun) => void) | null = null,
): ClockSecond {
  effort.at = model.path;
  return new Work(sharesAt(model, percent), model, windows, begin).run(effort, opened);
}

/** A piece without the windows inside it: its runs, each a valve open without a break. */
export function betweenWindows(
  { station, on, off }: CycleRun,
  windows: WeekWindows,
  effort: Effort,
): CycleRun[] {
  const runs: CycleRun[] = [];
  for (
    let from = on;
    from < off;
    from = windows.nextFree(Math.min(windows.nextWindow(from), off))
  ) {
    effort.spend(4);
    runs.push({ station, on: from, off: Math.min(windows.nextWindow(from), off) });
  }
  return runs;
}

/** Seconds that no cycle of a program at up to `percent` is longer than; coarse, and cheap. */
export function longestConceivable(
  model: CycleModel,
  percent: number,
  windows: WeekWindows | null,
): number {
  let seconds = 0;
  for (const { seconds: entered, split } of model.runs) {
    const run = adjustedSeconds(entered, percent, model.seasonal) + 60;
    const pieces = split ? Math.ceil(run / split.piece) : 1;
    seconds += run + pieces * ((split?.soak ?? 0) + model.delaySeconds);
  }
  return windows ? windows.longestWith(seconds) : seconds;
}

/** A program's cycle at a percent as it would run by itself with no window in its way. For screens. @throws TooMuchWork */
export function cycleShape(plan: Plan, program: Program, percent: number): CycleShape {
  return shapeAt(cycleModel(plan, program), percent, new Effort());
}
