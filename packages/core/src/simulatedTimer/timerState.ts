/** What a live device is, as plain data, and what it tells. */
import type { RunningCycle, RunningState, Share } from '../engine/runningCycle.ts';
import type { Plan } from '../plan/plan.ts';
import type { ClockSecond, TimeText } from '../time/calendar.ts';

/** A start that came, or a run by hand. */
export interface Called {
  /** Null: stations by hand. */
  readonly letter: string | null;
  /** Null: by hand. */
  readonly start: TimeText | null;
  /** By the timer's clock. */
  readonly due: ClockSecond;
  readonly percent: number;
}

/** What became of it. Moments in true time; null where it was lost. */
export interface TimerCycle extends Called {
  readonly outcome: 'ran' | 'cut' | 'lost';
  readonly began: ClockSecond | null;
  readonly ended: ClockSecond | null;
}

/** A valve that had current without a break, in true time. */
export interface TimerRun {
  readonly station: number;
  readonly letter: string | null;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
}

/** A valve that has current. */
export interface OpenValve {
  readonly station: number;
  readonly letter: string | null;
  readonly on: ClockSecond;
  /** Seconds of its piece. */
  readonly left: number;
}

/** What a cycle is going to do, as it stood when its start came. */
export interface Waiting extends Called {
  readonly shares: readonly Omit<Share, 'ready'>[];
  readonly atOnce: number;
  readonly delaySeconds: number;
}

export interface UnderWay extends Called {
  readonly began: ClockSecond;
  readonly cycle: RunningCycle;
}

/** A device as plain data. */
export interface SimulatedTimerState {
  /** As it is set now. */
  readonly plan: Plan;
  readonly factory: Plan | null;
  /** True time. */
  readonly now: ClockSecond;
  /** Seconds by which its clock is ahead of the true time. */
  readonly ahead: number;
  /** No start before this, by its clock; null: no rain delay. */
  readonly resumes: ClockSecond | null;
  readonly wet: boolean;
  /** Where its clock stood when the power failed; null: it has power. */
  readonly outSince: ClockSecond | null;
  readonly running: readonly (Called & {
    readonly began: ClockSecond;
    readonly state: RunningState;
  })[];
  readonly queue: readonly Waiting[];
  readonly held: readonly Waiting[];
}

/** Tells what is over. */
export interface Listener {
  readonly cycle?: (cycle: TimerCycle) => void;
  readonly run?: (run: TimerRun) => void;
}
