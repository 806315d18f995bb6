/**
 * A running timer: its clock advances, its starts fire, and people, weather and power act on it (timing-rules.md sections 2 to 6 and 9). It
 * advances in steps of any length with the same result. Its whole state can be saved and resumed.
 */
import { assert } from '../document/fault.ts';
import { assertDefined } from '../document/assertDefined.ts';
import { Effort } from '../engine/effort.ts';
import { Room, RunningCycle } from '../engine/runningCycle.ts';
import type { Plan, Settings } from '../plan/plan.ts';
import { parseSecond, type ClockSecond } from '../time/calendar.ts';
import type {
  Called,
  SimulatedTimerState,
  Listener,
  OpenValve,
  UnderWay,
  Waiting,
} from './timerState.ts';
import type { Press } from './events.ts';
import { delayed, poweredOn, resumesOf } from './power.ts';
import type { Programs } from './programs.ts';
import { Starts, stationsByHand } from './starts.ts';

export class SimulatedTimer {
  private state: Omit<SimulatedTimerState, 'running' | 'queue' | 'held'>;
  private running: UnderWay[];
  private queue: Waiting[];
  /** Starts held back by a window. */
  private held: Waiting[];
  private readonly listener: Listener;
  private readonly effort: Effort;
  private startsOnce: Starts | null = null;
  /** No start from this moment on, true time. */
  private lastStart: ClockSecond = Infinity;

  private constructor(state: SimulatedTimerState, listener: Listener, effort: Effort) {
    const { running, queue, held, ...rest } = state;
    this.state = rest;
    this.running = running.map(({ state, ...one }) => ({
      ...one,
      cycle: new RunningCycle(state),
    }));
    this.queue = [...queue];
    this.held = [...held];
    this.listener = listener;
    this.effort = effort;
  }

  /**
   * An idle timer.
   *
   * @param now true time
   * @param ahead seconds by which its clock is ahead
   * @param factory default program after a power cut; null: not known
   */
  static idle(
    plan: Plan,
    now: ClockSecond,
    ahead = 0,
    listener: Listener = {},
    effort = new Effort(Infinity),
    factory: Plan | null = null,
  ): SimulatedTimer {
    const resumes = resumesOf(plan);
    const switches = { now, ahead, resumes, wet: false, outSince: null };
    const nothing = { running: [], queue: [], held: [] };
    return new SimulatedTimer({ plan, factory, ...switches, ...nothing }, listener, effort);
  }

  /** Resumes a saved state. */
  static from(
    state: SimulatedTimerState,
    listener: Listener = {},
    effort = new Effort(Infinity),
  ): SimulatedTimer {
    return new SimulatedTimer(state, listener, effort);
  }

  /** Its whole state as plain data. */
  snapshot(): SimulatedTimerState {
    return {
      ...this.state,
      running: this.running.map(({ cycle, ...one }) => ({ ...one, state: cycle.state() })),
      queue: [...this.queue],
      held: [...this.held],
    };
  }

  get plan(): Plan {
    return this.state.plan;
  }

  get now(): ClockSecond {
    return this.state.now;
  }

  /** What its clock shows; null: no power. */
  get clock(): ClockSecond | null {
    return this.state.outSince === null ? this.clockNow : null;
  }

  get isIdle(): boolean {
    return this.running.length + this.queue.length + this.held.length === 0;
  }

  /** Powered valves: since when, for which program, and the seconds left of their runs. */
  get openValves(): readonly OpenValve[] {
    return this.running.flatMap(({ letter, cycle }) =>
      cycle.wetAt(this.state.now).map((valve) => ({ ...valve, letter })),
    );
  }

  get isWet(): boolean {
    return this.state.wet;
  }

  /** Running cycles, earliest first. */
  get underWay(): readonly (Called & { readonly began: ClockSecond })[] {
    return this.running.map(({ cycle: _cycle, ...called }) => called);
  }

  /** Starts waiting for their turn or for a window's end. */
  get waiting(): readonly Called[] {
    return [...this.queue, ...this.held];
  }

  private get clockNow(): ClockSecond {
    return this.state.now + this.state.ahead;
  }

  private get starts(): Starts {
    return (this.startsOnce ??= new Starts(this.state.plan, this.effort));
  }

  private get programs(): Programs {
    return this.starts.programs;
  }

  /** Someone keys in other settings. What runs or waits keeps its own. */
  set(plan: Plan): void {
    const { wateringResumes } = this.state.plan.settings;
    const resumes =
      plan.settings.wateringResumes === wateringResumes ? this.state.resumes : resumesOf(plan);
    this.changeSensor(() => this.change({ plan, resumes }));
    this.startsOnce = null;
  }

  private change(some: Partial<SimulatedTimerState>): void {
    this.state = { ...this.state, ...some };
    this.startsOnce?.forget();
  }

  private setSettings(some: Partial<Settings>): void {
    const { plan } = this.state;
    this.change({ plan: { ...plan, settings: { ...plan.settings, ...some } } });
    if (some.seasonalPercent !== undefined) this.startsOnce = null;
  }

  /**
   * Advances to a moment. In its last second only closings are done: a press at this moment comes before anything begins or opens.
   *
   * @param to true time, not before now
   * @throws TooMuchWork
   */
  advance(to: ClockSecond): void {
    while (this.state.now < to) {
      this.finishSecond();
      const next = Math.min(to, this.nextMoment(to));
      this.state = { ...this.state, now: next };
      this.endPieces();
    }
  }

  /** Advances until nothing runs or waits, with no start from now on. */
  runOut(): void {
    this.lastStart = this.state.now;
    while (!this.isIdle) {
      this.finishSecond();
      if (this.isIdle) break;
      const next = this.nextMoment(Infinity);
      assert(next < Infinity, 'what runs or waits comes to an end');
      this.state = { ...this.state, now: next };
      this.endPieces();
    }
  }

  /** The next moment at which anything happens by itself, up to `to`; true time. */
  nextMoment(to: ClockSecond): ClockSecond {
    const { now, ahead } = this.state;
    let next = Math.min(to, this.starts.next(this.state, to, this.lastStart));
    for (const { letter, start, cycle } of this.running) {
      const windows = start === null ? null : (this.programs.of(letter)?.windows ?? null);
      next = Math.min(next, cycle.nextAfter(now, windows && { windows, ahead }));
      this.effort.spend(8 + cycle.size);
    }
    for (const { letter } of [...this.held, ...this.queue.slice(0, 1)]) {
      const free = this.programs.of(letter)?.windows?.nextFree(now + ahead) ?? now + ahead;
      if (free - ahead > now) next = Math.min(next, free - ahead);
    }
    return next;
  }

  private endPieces(): void {
    const { now } = this.state;
    for (const one of [...this.running]) {
      one.cycle.close(now, this.tellOf(one));
      if (one.cycle.isDone) this.over(one, 'ran');
    }
  }

  private tellOf({ letter }: Called) {
    const { run } = this.listener;
    return run
      ? ({ station, on, off }: { station: number; on: number; off: number }) =>
          run({ station, letter, on, off })
      : () => undefined;
  }

  private over(one: UnderWay, outcome: 'ran' | 'cut'): void {
    this.running = this.running.filter((other) => other !== one);
    const { cycle, ...called } = one;
    if (outcome === 'cut') cycle.stop(this.state.now, this.tellOf(one));
    this.listener.cycle?.({ ...called, outcome, ended: this.state.now });
  }

  private lose({ letter, start, due, percent }: Called): void {
    this.listener.cycle?.({
      ...{ letter, start, due, percent },
      ...{ outcome: 'lost', began: null, ended: null },
    });
  }

  /** What follows the events of a second: windows, starts, openings. */
  private finishSecond(): void {
    const { now, plan } = this.state;
    for (const one of [...this.running]) {
      if (!this.isHeld(one)) continue;
      if (plan.timer.inWindow === 'cut') this.over(one, 'cut');
      else one.cycle.pause(now, this.tellOf(one));
    }
    this.serveStarts();
    const shared = plan.timer.onOverlap === 'share';
    const flowLimit = Math.round((plan.settings.flowLimitLpm ?? Infinity) * 1000);
    const most = shared
      ? Math.min(plan.timer.stationsAtOnce, plan.settings.stationsAtOnce ?? Infinity)
      : Infinity;
    const all = this.running.map(({ cycle }) => cycle);
    const isDry = this.sensorActs;
    const has = (station: number) => !(isDry && this.programs.obeys(station));
    const roomOf = ({ cycle }: UnderWay) => new Room(shared ? all : [cycle], most, flowLimit);
    const free = new Set(this.running.filter((one) => !this.isHeld(one)));
    for (const one of free) one.cycle.resumeAt(now, roomOf(one));
    for (const one of this.running) {
      if (free.has(one)) one.cycle.openAt(now, roomOf(one));
      one.cycle.power(now, has, this.tellOf(one));
      this.effort.spend(8 + one.cycle.size * (1 + all.length));
    }
  }

  /** Whether a window holds back a start's cycle now; never a manual run. */
  private isHeld({ letter, start }: Called): boolean {
    const windows = start === null ? null : this.programs.of(letter)?.windows;
    return windows ? !windows.isFree(this.clockNow) : false;
  }

  private serveStarts(): void {
    const { now, plan } = this.state;
    const { onOverlap, inWindow } = plan.timer;
    const freed = this.held.filter((one) => !this.isHeld(one));
    this.held = this.held.filter((one) => this.isHeld(one));
    const due = now < this.lastStart ? this.starts.due(this.state) : [];
    if (inWindow === 'pause') this.held.push(...due.filter((one) => this.isHeld(one)));
    const coming = [...freed, ...due.filter((one) => inWindow !== 'pause' || !this.isHeld(one))];
    for (const one of coming) {
      if (this.isLostToRain(one)) this.lose(one);
      else if (onOverlap === 'queue') this.queue.push(one);
      else if (this.isHeld(one) || (onOverlap === 'drop' && this.running.length > 0))
        this.lose(one);
      else {
        if (onOverlap === 'cut') this.endAll();
        this.begin(one);
      }
    }
    for (let next = this.queue[0]; next && this.running.length === 0; next = this.queue[0]) {
      if (this.isHeld(next) && inWindow === 'pause') break;
      this.queue.shift();
      if (this.isHeld(next)) this.lose(next);
      else this.begin(next);
    }
  }

  private begin({ shares, atOnce, delaySeconds, ...called }: Waiting): void {
    const { now } = this.state;
    const cycle = RunningCycle.of({ atOnce, delaySeconds }, shares, now);
    this.running.push({ ...called, began: now, cycle });
  }

  private get sensorActs(): boolean {
    const { wet, plan } = this.state;
    return wet && (plan.settings.sensor ?? 'active') === 'active';
  }

  /** Whether rain cancels a run of these stations: all obey the sensor, and the timer loses such a cycle. */
  private obeysWholly(stations: readonly number[]): boolean {
    return this.state.plan.timer.onRain === 'lose' && stations.every(this.programs.obeys);
  }

  private isLostToRain({ shares }: Waiting): boolean {
    return this.sensorActs && this.obeysWholly(shares.map(({ station }) => station));
  }

  private endAll(): void {
    for (const one of [...this.running]) this.over(one, 'cut');
  }

  private stop(): void {
    this.endAll();
    for (const one of [...this.queue, ...this.held]) this.lose(one);
    this.queue = [];
    this.held = [];
  }

  /** Changes something the sensor depends on; when it begins to act, fully affected cycles are lost. */
  private changeSensor(change: () => void): void {
    const acted = this.sensorActs;
    change();
    if (acted || !this.sensorActs) return;
    for (const one of [...this.running])
      if (this.obeysWholly(one.cycle.stations)) this.over(one, 'cut');
    for (const one of this.queue) if (this.isLostToRain(one)) this.lose(one);
    this.queue = this.queue.filter((one) => !this.isLostToRain(one));
  }

  /** An action now, after earlier ones at this moment. */
  press(press: Press): void {
    const { now, outSince } = this.state;
    if (press.do === 'wet' || press.do === 'dry') {
      this.changeSensor(() => this.change({ wet: press.do === 'wet' }));
      return;
    }
    if (press.do === 'powerOn') {
      if (outSince === null) return;
      const change = poweredOn(this.state, outSince);
      this.change(change);
      if (change.plan) this.startsOnce = null;
      return;
    }
    if (outSince !== null) return;
    switch (press.do) {
      case 'manual':
        this.byHand(press);
        return;
      case 'stop':
        this.stop();
        return;
      case 'mode':
        this.setSettings({ mode: press.to });
        if (press.to === 'off') this.stop();
        return;
      case 'rainDelay':
        this.change(delayed(this.state.plan, this.clockNow, press.hours));
        if (press.hours > 0) this.stop();
        return;
      case 'percent':
        this.setSettings({ seasonalPercent: press.to });
        return;
      case 'sensor':
        this.changeSensor(() => this.setSettings({ sensor: press.to }));
        return;
      case 'clock':
        this.change({ ahead: assertDefined(parseSecond(press.to), 'parseSecond(press.to)') - now });
        return;
      case 'powerOff':
        this.stop();
        this.change({ outSince: this.clockNow });
        return;
    }
  }

  private byHand({ station, program, seconds }: Extract<Press, { do: 'manual' }>): void {
    const { plan } = this.state;
    if (plan.settings.mode === 'off') return;
    const one =
      program === undefined
        ? stationsByHand(plan, this.clockNow, seconds ?? 0, station)
        : this.starts.byHand(program, this.clockNow);
    if (!one || one.shares.length === 0 || this.isLostToRain(one)) return;
    if (this.running.length > 0 && plan.timer.manualDuring === 'refuse') return;
    this.endAll();
    this.begin(one);
  }
}
