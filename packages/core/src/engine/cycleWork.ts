/** One cycle run by run, as in timing-rules.md section 4. Repeating rounds are skipped in bulk. */
import { assertDefined } from '../document/assertDefined.ts';
import type { ClockSecond } from '../time/calendar.ts';
import type { WeekWindows } from '../time/windows.ts';
import type { CycleModel, CycleRun, Shares } from './cycleModel.ts';
import type { Effort } from './effort.ts';

/** Runs simulated one by one before looking for a repeating pattern. */
const PIECES_BEFORE_A_PATTERN = 256;

/** No timer has more stations (plan-format.md). */
const EVERY_ROW = Int32Array.from({ length: 99 }, (_, i) => i);

/**
 * A cycle at work: section 4's loop, with moments of its own. A station is known by its row in the shares. It is in one of these states:
 *
 * | state    | `left` | `closes` | `ready`    | listed in | what ends it                       |
 * | -------- | ------ | -------- | ---------- | --------- | ---------------------------------- |
 * | waiting  | > 0    | −∞       | ≤ t        | live      | `choose` takes it: open            |
 * | open     | ≥ 0    | > t      | any        | opened    | `close` at `closes`: soaks or done |
 * | soaking  | > 0    | −∞       | > t        | soaking   | time goes on to `ready`: waiting   |
 * | done     | 0      | −∞       | any        | nowhere   | nothing                            |
 *
 * An open station with water left is in `live` too: it has another piece to come.
 */
export class Work {
  private readonly left: Float64Array;
  private readonly ready: Float64Array;
  /** Closing moment; −Infinity while closed. */
  private readonly closes: Float64Array;
  /** Rows of stations with water left, ascending; the first `living` of them. */
  private readonly live: Int32Array;
  private living: number;
  /** Rows of open stations. */
  private readonly opened: number[] = [];
  /** Rows of soaking stations, and possibly of some that no longer soak. */
  private readonly soaking: number[] = [];
  private openFlow = 0;
  private last = -1;
  private lastClosing = -Infinity;
  private pieces = 0;
  /** Stations examined since work was last counted. */
  private steps = 0;
  private t: ClockSecond;
  private readonly shares: Shares;
  private readonly model: CycleModel;
  private readonly windows: WeekWindows | null;
  /** No window contains a moment between the last checked free one and this. */
  private freeUntil: ClockSecond = -Infinity;

  constructor(shares: Shares, model: CycleModel, windows: WeekWindows | null, begin: ClockSecond) {
    this.shares = shares;
    this.model = model;
    this.windows = windows;
    this.t = begin;
    this.left = shares.seconds.slice(0, shares.count);
    this.ready = new Float64Array(shares.count).fill(begin);
    this.closes = new Float64Array(shares.count).fill(-Infinity);
    this.live = EVERY_ROW.slice(0, shares.count);
    this.living = shares.count;
  }

  /** Runs the whole cycle and passes each run to `tell`; the end is when the last valve closes. */
  run(effort: Effort, tell: ((piece: CycleRun) => void) | null): ClockSecond {
    let pattern: Pattern | null = null;
    // Terminates: every iteration moves to a later moment, and there are finitely many between two closings.
    for (;;) {
      effort.spend(8 + this.steps);
      this.steps = 0;
      this.close();
      if (this.living === 0 && this.opened.length === 0) return this.t;
      this.t = this.openAndLookAhead(tell);
      if (tell || this.windows || this.pieces < PIECES_BEFORE_A_PATTERN) continue;
      effort.spend(4);
      pattern ??= new Pattern(this.state());
      const round = pattern.compare(this);
      if (round) this.skip(round);
    }
  }

  private close(): void {
    const { opened, closes, ready, left, shares, soaking, t } = this;
    let kept = 0;
    for (const i of opened) {
      if (closes[i] !== t) {
        opened[kept++] = i;
        continue;
      }
      const soak = assertDefined(shares.soaks[i], 'shares.soaks[i]');
      closes[i] = -Infinity;
      ready[i] = t + soak;
      this.openFlow -= assertDefined(shares.flows[i], 'shares.flows[i]');
      this.lastClosing = t;
      if (soak > 0 && assertDefined(left[i], 'left[i]') > 0) soaking.push(i);
    }
    while (opened.length > kept) opened.pop();
  }

  /**
   * Opens every station that may open now.
   *
   * @returns the next moment at which anything can happen
   */
  private openAndLookAhead(tell: ((piece: CycleRun) => void) | null): ClockSecond {
    const { atOnce, delaySeconds } = this.model;
    let next = Infinity;
    if (this.living > 0 && this.opened.length < atOnce) {
      const allowed = Math.max(this.lastClosing + delaySeconds, this.nextFree());
      if (allowed > this.t) next = allowed;
      else {
        while (this.opened.length < atOnce) {
          const place = this.choose();
          if (place < 0) break;
          this.open(place, tell);
        }
        if (this.opened.length < atOnce) next = this.nextReady();
      }
    }
    for (const i of this.opened) {
      const closes = assertDefined(this.closes[i], 'closes[i]');
      if (closes < next) next = closes;
    }
    return next;
  }

  /** Now, or the end of the window containing this moment. */
  private nextFree(): ClockSecond {
    if (this.t < this.freeUntil || !this.windows) return this.t;
    const free = this.windows.nextFree(this.t);
    if (free === this.t) this.freeUntil = this.windows.nextWindow(free);
    return free;
  }

  /** The next moment at which a soak ends. */
  private nextReady(): ClockSecond {
    const { soaking, ready, t } = this;
    this.steps += soaking.length;
    let next = Infinity;
    let kept = 0;
    for (const i of soaking) {
      const at = assertDefined(ready[i], 'ready[i]');
      if (at <= t) continue;
      soaking[kept++] = i;
      if (at < next) next = at;
    }
    while (soaking.length > kept) soaking.pop();
    return next;
  }

  /** Index in `live` of the first station after `last`, wrapping to the lowest, that is ready, closed and fits beside the open ones. */
  private choose(): number {
    const { live, living, ready, closes, t, shares } = this;
    const alone = this.opened.length === 0;
    const room = this.model.flowLimit - this.openFlow;
    if (!alone && shares.leastFlow > room) return -1;
    let low = 0;
    let high = living;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (assertDefined(live[middle], 'live[middle]') > this.last) high = middle;
      else low = middle + 1;
    }
    for (let step = 0; step < living; step++) {
      const place = low + step < living ? low + step : low + step - living;
      const i = assertDefined(live[place], 'live[place]');
      if (assertDefined(ready[i], 'ready[i]') > t || assertDefined(closes[i], 'closes[i]') > t)
        continue;
      if (!alone && assertDefined(shares.flows[i], 'shares.flows[i]') > room) continue;
      this.steps += step + 1;
      return place;
    }
    this.steps += living;
    return -1;
  }

  private open(place: number, tell: ((piece: CycleRun) => void) | null): void {
    const { live, shares } = this;
    const i = assertDefined(live[place], 'live[place]');
    const left = assertDefined(this.left[i], 'left[i]');
    const seconds = Math.min(assertDefined(shares.pieces[i], 'shares.pieces[i]'), left);
    const closes =
      this.windows && this.t + seconds > this.freeUntil
        ? this.windows.afterFree(this.t, seconds)
        : this.t + seconds;
    this.left[i] = left - seconds;
    if (left === seconds) live.copyWithin(place, place + 1, this.living--);
    this.closes[i] = closes;
    this.opened.push(i);
    this.openFlow += assertDefined(shares.flows[i], 'shares.flows[i]');
    this.last = i;
    this.pieces++;
    tell?.({
      station: assertDefined(shares.stations[i], 'shares.stations[i]'),
      on: this.t,
      off: closes,
    });
  }

  /** Everything that determines what happens next. */
  state(): State {
    const { t, last, lastClosing, left, ready, closes } = this;
    return {
      t,
      last,
      wait: Math.max(0, lastClosing + this.model.delaySeconds - t),
      left: left.slice(),
      ready: ready.map((_, i) => this.aheadOf(i)),
      closes: closes.map((_, i) => this.untilClosing(i)),
    };
  }

  /** Seconds until a station is ready; 0 if it is, or if it has no water left. */
  private aheadOf(i: number): number {
    return assertDefined(this.left[i], 'left[i]') > 0
      ? Math.max(0, assertDefined(this.ready[i], 'ready[i]') - this.t)
      : 0;
  }

  /** Seconds until a station closes. Closing at this second differs from being closed. */
  private untilClosing(i: number): number {
    const closes = assertDefined(this.closes[i], 'closes[i]');
    return closes === -Infinity ? -1 : closes - this.t;
  }

  /** What happened since an earlier state that differs only in water left; null if more differs. */
  roundSince(kept: State): Round | null {
    if (this.t <= kept.t || this.last !== kept.last) return null;
    if (Math.max(0, this.lastClosing + this.model.delaySeconds - this.t) !== kept.wait) return null;
    for (let i = 0; i < this.left.length; i++) {
      if (this.aheadOf(i) !== kept.ready[i] || this.untilClosing(i) !== kept.closes[i]) return null;
      // A station must be in the same case as before: finished since then, or not.
      if (
        assertDefined(this.left[i], 'left[i]') > 0 !==
        assertDefined(kept.left[i], 'kept.left[i]') > 0
      )
        return null;
    }
    const water = kept.left.map((left, i) => left - assertDefined(this.left[i], 'left[i]'));
    return { seconds: this.t - kept.t, water };
  }

  /**
   * A round that happened once repeats, with every station's water reduced by the same amount, while all have full runs left. That many
   * rounds are skipped at once.
   */
  private skip({ seconds, water }: Round): void {
    let rounds = Infinity;
    water.forEach((taken, i) => {
      if (taken > 0)
        rounds = Math.min(rounds, Math.floor((assertDefined(this.left[i], 'left[i]') - 1) / taken));
    });
    if (rounds < 1 || rounds === Infinity) return;
    const later = rounds * seconds;
    this.t += later;
    this.lastClosing += later;
    water.forEach((taken, i) => {
      this.left[i] = assertDefined(this.left[i], 'left[i]') - rounds * taken;
      this.ready[i] = assertDefined(this.ready[i], 'ready[i]') + later;
      this.closes[i] = assertDefined(this.closes[i], 'closes[i]') + later;
    });
  }
}

interface State {
  readonly t: number;
  readonly last: number;
  /** Seconds until the delay ends. */
  readonly wait: number;
  readonly left: Float64Array;
  readonly ready: Float64Array;
  readonly closes: Float64Array;
}

/** What happened between two equal states. */
interface Round {
  readonly seconds: number;
  readonly water: Float64Array;
}

/** Detects a repeated state by comparing with one kept twice as long each time (Brent's method). */
class Pattern {
  private kept: State;
  private patience = 1;
  private waited = 0;

  constructor(first: State) {
    this.kept = first;
  }

  compare(work: Work): Round | null {
    const round = work.roundSince(this.kept);
    if (!round && ++this.waited < this.patience) return null;
    if (!round) this.patience *= 2;
    this.kept = work.state();
    this.waited = 0;
    return round;
  }
}
