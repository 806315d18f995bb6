/** What a timer shows as a program's total (`timer.dialect.total`): a checksum of what was keyed in. */
import { cycleSecondsAt } from './cycle.ts';
import { cycleModel } from './cycleModel.ts';
import { Effort } from './effort.ts';
import type { Plan, Program } from '../plan/plan.ts';

/**
 * Seconds the display must show as a program's total at a percent; null if it shows none.
 *
 * The specification says what is counted, not how. Here: run times in sequence, at the percent or as entered; a delay between each two
 * runs; soaks as the cycle really waits for them.
 *
 * @throws TooMuchWork
 */
export function totalOnDisplay(plan: Plan, program: Program, percent: number): number | null {
  const total = plan.timer.dialect?.total;
  if (!total?.shown) return null;
  const model = cycleModel(plan, program);
  const counted = {
    ...model,
    shares: new Map(),
    delaySeconds: total.delays ? model.delaySeconds : 0,
    atOnce: total.soaks ? model.atOnce : 1,
    runs: model.runs.map((run) =>
      total.soaks || !run.split ? run : { ...run, split: { ...run.split, soak: 0 } },
    ),
  };
  return cycleSecondsAt(counted, total.percent ? percent : 100, new Effort());
}
