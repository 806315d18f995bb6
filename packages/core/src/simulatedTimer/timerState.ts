/** State of a simulated timer as plain data, and its output. */
import type { RunningCycle, RunningState, Share } from '../engine/runningCycle.ts';
import type { Plan } from '../plan/plan.ts';
import type { ClockSecond, TimeText } from '../time/calendar.ts';

/** A start that came, or a manual run. */
export interface Called {
  /** Null: manual run of stations. */
  readonly letter: string | null;
  /** Null: a manual run. */
  readonly start: TimeText | null;
  /** By the timer's clock. */
  readonly due: ClockSecond;
  readonly percent: number;
}

/** Its outcome. Moments in true time; null if it was lost. */
export interface TimerCycle extends Called {
  readonly outcome: 'ran' | 'cut' | 'lost';
  readonly began: ClockSecond | null;
  readonly ended: ClockSecond | null;
}

/** A valve powered without a break, in true time. */
export interface TimerRun {
  readonly station: number;
  readonly letter: string | null;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
}

/** A powered valve. */
export interface OpenValve {
  readonly station: number;
  readonly letter: string | null;
  readonly on: ClockSecond;
  /** Seconds of its run. */
  readonly left: number;
}

/** What a cycle will do, as set when its start came. */
export interface Waiting extends Called {
  readonly shares: readonly Omit<Share, 'ready'>[];
  readonly atOnce: number;
  readonly delaySeconds: number;
}

export interface UnderWay extends Called {
  readonly began: ClockSecond;
  readonly cycle: RunningCycle;
}

/** A simulated timer as plain data. */
export interface SimulatedTimerState {
  /** Current settings. */
  readonly plan: Plan;
  readonly factory: Plan | null;
  /** True time. */
  readonly now: ClockSecond;
  /** Seconds by which its clock is ahead. */
  readonly ahead: number;
  /** No start before this, by its clock; null: no rain delay. */
  readonly resumes: ClockSecond | null;
  readonly wet: boolean;
  /** Time on its clock when the power failed; null: it has power. */
  readonly outSince: ClockSecond | null;
  readonly running: readonly (Called & {
    readonly began: ClockSecond;
    readonly state: RunningState;
  })[];
  readonly queue: readonly Waiting[];
  readonly held: readonly Waiting[];
}

/** Receives what has ended. */
export interface Listener {
  readonly cycle?: (cycle: TimerCycle) => void;
  readonly run?: (run: TimerRun) => void;
}
