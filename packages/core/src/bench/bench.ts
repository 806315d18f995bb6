/**
 * A timer on the bench: a simulated timer behind a panel of our own design, and its garden. Keys, weather, power and time act on it; the
 * log can be replayed.
 */
import { factoryPlan } from '../panel/keyIn.ts';
import type { Plan } from '../plan/plan.ts';
import type { Press } from '../simulatedTimer/events.ts';
import { SimulatedTimer } from '../simulatedTimer/simulatedTimer.ts';
import type { Called, TimerCycle, TimerRun } from '../simulatedTimer/timerState.ts';
import type { ClockSecond } from '../time/calendar.ts';
import type { StationTest } from '../visit/visit.ts';
import { Garden, type Bed } from './garden.ts';
import type { Page } from './pages.ts';
import { BenchPanel } from './panel.ts';
import type { BenchAct, BenchStart, BenchState, Display, Lamps, LoggedAct } from './state.ts';

const MOST_KEPT = 4_000;

export class LiveBench {
  private readonly start: BenchStart;
  private readonly plot: Garden;
  private readonly timer: SimulatedTimer;
  private readonly panel: BenchPanel;
  readonly log: LoggedAct[] = [];
  readonly cycles: TimerCycle[] = [];
  readonly runs: TimerRun[] = [];

  constructor(start: BenchStart, state?: BenchState) {
    const listener = {
      cycle: (cycle: TimerCycle) => this.keep(this.cycles, cycle),
      run: (run: TimerRun) => this.ended(run),
    };
    const factory = factoryPlan(start.plan, start.kind);
    this.start = state?.start ?? start;
    this.timer = state
      ? SimulatedTimer.from(state.device, listener)
      : SimulatedTimer.idle(start.plan, start.now, start.ahead, listener, undefined, factory);
    this.plot = new Garden(state);
    this.panel = new BenchPanel(this.timer, this.start, state);
  }

  /** Replays a log and continues to a moment. */
  static replay(start: BenchStart, log: readonly LoggedAct[], until: ClockSecond): LiveBench {
    const bench = new LiveBench(start);
    for (const { at, ...act } of log) {
      bench.advance(at);
      bench.act(act);
    }
    bench.advance(until);
    return bench;
  }

  snapshot(): BenchState {
    return {
      start: this.start,
      ...this.panel.snapshot(),
      ...this.plot.snapshot(),
      device: this.timer.snapshot(),
    };
  }

  get plan(): Plan {
    return this.timer.plan;
  }

  get now(): ClockSecond {
    return this.timer.now;
  }

  get clock(): ClockSecond | null {
    return this.timer.clock;
  }

  advance(to: ClockSecond): void {
    this.timer.advance(to);
  }

  /** The next moment at which something happens by itself, up to `to`. */
  nextMoment(to: ClockSecond): ClockSecond {
    return this.timer.nextMoment(to);
  }

  private keep<T>(list: T[], one: T): void {
    list.push(one);
    if (list.length > MOST_KEPT) list.splice(0, list.length - MOST_KEPT);
  }

  private ended(run: TimerRun): void {
    this.keep(this.runs, run);
    this.plot.ended(run);
  }

  /** Whether the rain sensor is wet, fitted or not. */
  get isWet(): boolean {
    return this.timer.isWet;
  }

  /** Running cycles and their starts. */
  get underWay(): readonly (Called & { readonly began: ClockSecond })[] {
    return this.timer.underWay;
  }

  /** Every run so far, including the current ones up to now. */
  runsSoFar(): TimerRun[] {
    const { now } = this;
    const open = this.timer.openValves.map(({ station, letter, on }) => ({
      ...{ station, letter, on },
      off: now,
    }));
    return [...this.runs, ...open];
  }

  act(act: BenchAct): void {
    this.log.push({ ...act, at: this.now });
    if ('key' in act) this.panel.key(act.key, act.fast ?? false);
    else if ('world' in act) this.world(act.world);
    else this.plot.change(act.garden, this.now);
  }

  private world(press: Press): void {
    const wasOut = this.clock === null;
    this.timer.press(press);
    this.panel.afterWorld(press, wasOut);
  }

  /** The panel's pages, without a value not yet entered. */
  get pages(): readonly Page[] {
    return this.panel.pages;
  }

  /** The current page with the displayed value; null: the time. */
  get page(): Page | null {
    return this.panel.page;
  }

  display(): Display {
    return this.panel.display();
  }

  lamps(): Lamps {
    const open = this.timer.openValves.map(({ station }) => station);
    const pumps = this.plan.stations.filter(
      ({ number, pump }) => open.includes(number) && pump !== false,
    );
    const { sensor = 'active' } = this.plan.settings;
    return {
      stations: open,
      pump: pumps.length > 0,
      main: open.length > 0,
      rain: this.timer.isWet && sensor !== 'none',
      power: this.clock !== null,
      short: open.some((station) => this.plot.isShorted(station)),
    };
  }

  /** Meter readings at the terminals while each station is powered in turn. */
  wiringTest(): StationTest[] {
    return this.plot.wiringTest(this.plan);
  }

  garden(): Bed[] {
    return this.plot.beds(this.plan, this.timer.openValves, this.now);
  }
}
