/**
 * How much work one question may cost. Real plans take a thousandth of it; a document may be sound and yet so absurd (a day's
 * run in pieces of one second, at every percent) that no answer comes in time. Then the question is refused by path.
 */
import type { Fault, Outcome, Path } from '../document/fault.ts';

/** The answer would take too long; `fault` says what of the plan is to blame. */
export class TooMuchWork extends Error {
  readonly fault: Fault;

  constructor(fault: Fault) {
    super(fault.code);
    this.fault = fault;
  }
}

/** The answer of a question of the engine, or the fault of a plan that asks too much of it. */
export function attempt<T>(question: () => T): Outcome<T> {
  try {
    return { ok: true, value: question() };
  } catch (error) {
    if (error instanceof TooMuchWork) return { ok: false, faults: [error.fault] };
    throw error;
  }
}

/** Small steps of the engine, some tens of nanoseconds each: two seconds or so. Our own limit, not the specification's. */
const MOST_STEPS = 45_000_000;

/** Counts down what is left, and from time to time reports how far it is. */
export class Effort {
  private left: number;
  /** What is being worked at, for the refusal. */
  at: Path = [];

  constructor(steps = MOST_STEPS) {
    this.left = steps;
  }

  /** @throws TooMuchWork when nothing is left. */
  spend(steps: number): void {
    this.left -= steps;
    if (this.left < 0) throw new TooMuchWork({ code: 'too-much-work', path: this.at });
  }
}
