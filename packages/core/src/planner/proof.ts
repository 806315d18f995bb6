/** What a search proves: tracks the cheapest candidate skipped without a proof. */
import type { Brief } from '../brief/brief.ts';
import { compareCosts, type Cost } from './cost.ts';
import type { Need } from './needs.ts';

/** How certain it is that no plan is cheaper. */
export interface Proof {
  readonly optimal: boolean;
  /** No plan costs less. */
  readonly bound: Cost;
}

const NO_COST: Cost = [0, 0, 0, 0, 0, 0, 0];

export const NOTHING_PROVEN: Proof = { optimal: false, bound: NO_COST };

/** Consecutive cost parts: programs, total starts, thousandths off. */
type Passed = readonly [programs: number, starts: number, off: number];

const compare = (x: Passed, y: Passed) => x[0] - y[0] || x[1] - y[1] || x[2] - y[2];

/** Tracks the cheapest candidate that the search skipped because of a limit, or that failed without a proof. */
export class LeftOpen {
  private least: Passed | null = null;
  /** Whether nothing was left open. */
  complete = true;

  /** Candidates with this many programs and starts, and at least this error, are not proven. */
  add(programs: number, starts: number, off = 0): void {
    this.complete = false;
    const passed: Passed = [programs, starts, off];
    if (this.least === null || compare(passed, this.least) < 0) this.least = passed;
  }

  /**
   * What is proven about a plan's cost inside the wished span.
   *
   * @param hopeless stations that no program can meet
   */
  proofOf(cost: Cost, hopeless: number, brief: Brief, needs: readonly Need[]): Proof {
    const { least } = this;
    const [off, outside, mixed, programs, starts, share] = cost;
    const withoutSpare: Cost = [off, outside, mixed, programs, starts, share, 0];
    const open: Cost | null = least && [hopeless, 0, 0, ...least, 0];
    if (open && compareCosts(open, cost) < 0) return { optimal: false, bound: open };
    if (cost[0] > hopeless) return NOTHING_PROVEN;
    // Seconds might move between runs at the same error, and the end be slightly later.
    const finest = Math.min(...needs.map(({ wanted }) => brief.timer.runStepSeconds / wanted));
    if (cost[6] > 0 && finest < 0.001) return { optimal: false, bound: withoutSpare };
    const isNear = open && compareCosts(open, withoutSpare) < 0;
    return { optimal: true, bound: isNear ? withoutSpare : cost };
  }
}
