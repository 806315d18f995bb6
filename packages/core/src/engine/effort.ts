/**
 * Limit on the work of one question. Real plans take a thousandth of it, but a valid document can be so absurd (a day's run in cycles of
 * one second, at every percent) that no answer would come in time. It is then refused by path.
 */
import type { Fault, Outcome, Path } from '../document/fault.ts';

/** The answer would take too long; `fault` names the cause in the plan. */
export class TooMuchWork extends Error {
  readonly fault: Fault;

  constructor(fault: Fault) {
    super(fault.code);
    this.fault = fault;
  }
}

/** The engine's answer to a question, or the fault of a plan that takes too much work. */
export function attempt<T>(question: () => T): Outcome<T> {
  try {
    return { ok: true, value: question() };
  } catch (error) {
    if (error instanceof TooMuchWork) return { ok: false, faults: [error.fault] };
    throw error;
  }
}

/** Engine steps of some tens of nanoseconds each: about two seconds. Our own limit, not the specification's. */
const MOST_STEPS = 45_000_000;

/** Counts down the remaining steps, and reports progress from time to time. */
export class Effort {
  private left: number;
  /** The part being worked on, for the refusal. */
  at: Path = [];

  constructor(steps = MOST_STEPS) {
    this.left = steps;
  }

  /** @throws TooMuchWork when none are left */
  spend(steps: number): void {
    this.left -= steps;
    if (this.left < 0) throw new TooMuchWork({ code: 'too-much-work', path: this.at });
  }
}
