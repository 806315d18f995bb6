/** What a search proves: it keeps the cheapest that was skipped without a proof. */
import type { Brief } from '../brief/brief.ts';
import { compareCosts, type Cost } from './cost.ts';
import type { Need } from './needs.ts';

/** How sure it is that no plan is cheaper. */
export interface Proof {
  readonly optimal: boolean;
  /** No plan costs less. */
  readonly bound: Cost;
}

const NO_COST: Cost = [0, 0, 0, 0, 0, 0, 0];

export const NOTHING_PROVEN: Proof = { optimal: false, bound: NO_COST };

/** Parts of the cost that come one after another: programs, starts of them all, thousandths off. */
type Passed = readonly [programs: number, starts: number, off: number];

const compare = (x: Passed, y: Passed) => x[0] - y[0] || x[1] - y[1] || x[2] - y[2];

/** Keeps the cheapest candidate that a search skipped because of a limit, or that failed without a proof. */
export class LeftOpen {
  private least: Passed | null = null;
  /** Whether nothing was left open. */
  complete = true;

  /** Something with so many programs and starts, and no less off, is not proven. */
  add(programs: number, starts: number, off = 0): void {
    this.complete = false;
    const passed: Passed = [programs, starts, off];
    if (this.least === null || compare(passed, this.least) < 0) this.least = passed;
  }

  /**
   * What is proven of a plan's cost inside the wished span.
   *
   * @param hopeless stations that no program can meet.
   */
  proofOf(cost: Cost, hopeless: number, brief: Brief, needs: readonly Need[]): Proof {
    const { least } = this;
    const [off, outside, mixed, programs, starts, share] = cost;
    const withoutSpare: Cost = [off, outside, mixed, programs, starts, share, 0];
    const open: Cost | null = least && [hopeless, 0, 0, ...least, 0];
    if (open && compareCosts(open, cost) < 0) return { optimal: false, bound: open };
    if (cost[0] > hopeless) return NOTHING_PROVEN;
    // Seconds might be shifted between runs without a larger error, and the end be a little later.
    const finest = Math.min(...needs.map(({ wanted }) => brief.timer.runStepSeconds / wanted));
    if (cost[6] > 0 && finest < 0.001) return { optimal: false, bound: withoutSpare };
    const isNear = open && compareCosts(open, withoutSpare) < 0;
    return { optimal: true, bound: isNear ? withoutSpare : cost };
  }
}
