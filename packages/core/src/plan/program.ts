/** What a program needs in order to water, and what a timer really does with it (timing-rules.md sections 2 and 3). */
import { hasSomeDay } from '../time/dayRules.ts';
import type { Plan, Program, Seasonal, Timer } from './plan.ts';

export type Missing = 'starts' | 'runs' | 'days';

/** Numbers of enabled stations. */
export function enabledStations(plan: Plan): ReadonlySet<number> {
  return new Set(plan.stations.filter((s) => s.enabled !== false).map((s) => s.number));
}

/** What a program lacks to be complete, in the order starts, runs, days (timing-rules.md section 2). */
export function missingOf(program: Program, enabled: ReadonlySet<number>): Missing[] {
  const missing: Missing[] = [];
  if (program.starts.length === 0 && program.days?.rule !== 'hours') missing.push('starts');
  if (!program.runs.some((run) => run.seconds > 0 && enabled.has(run.station)))
    missing.push('runs');
  if (!hasSomeDay(program.days)) missing.push('days');
  return missing;
}

/** Neither starts nor runs: it was never meant to water, whatever its days. */
export function isUnused(missing: readonly Missing[]): boolean {
  return missing.includes('starts') && missing.includes('runs');
}

/**
 * Percent of a cycle due in a month (timing-rules.md section 3), 0 to 500.
 *
 * @param month of the start's due date, 1 to 12
 */
export function effectivePercent(plan: Plan, program: Program, month: number): number {
  const { settings, timer } = plan;
  switch (timer.seasonal.scope) {
    case 'none':
      return 100;
    case 'program':
      return program.seasonalPercent ?? 100;
    case 'timer': {
      const byMonth = timer.seasonal.byMonth ? settings.monthlyPercent?.[month - 1] : undefined;
      return byMonth ?? settings.seasonalPercent ?? 100;
    }
  }
}

/** Whether the percent can differ by month. */
export function variesByMonth({ timer, settings }: Plan): boolean {
  const monthly = settings.monthlyPercent;
  return (
    timer.seasonal.scope === 'timer' &&
    timer.seasonal.byMonth &&
    monthly !== undefined &&
    monthly.some((percent) => percent !== monthly[0])
  );
}

/**
 * A run time after the seasonal percent, in seconds (timing-rules.md section 3): rounded to a multiple of `roundToSeconds`, also at 100
 * percent, and at least one multiple if there was anything to run.
 */
export function adjustedSeconds(seconds: number, percent: number, seasonal: Seasonal): number {
  if (seconds <= 0 || percent <= 0) return 0;
  const unit = seasonal.roundToSeconds;
  // Integers throughout: seconds × percent stays below 2^26, so no precision is lost.
  const hundredths = seconds * percent;
  const inUnit = unit * 100;
  const down = Math.floor(hundredths / inUnit);
  const rest = hundredths - down * inUnit;
  const units =
    seasonal.rounding === 'up'
      ? down + (rest > 0 ? 1 : 0)
      : seasonal.rounding === 'down'
        ? down
        : down + (rest * 2 >= inUnit ? 1 : 0);
  return Math.max(1, units) * unit;
}

/** Percents the timer can be set to, ascending (timing-rules.md section 7, Headroom). */
export function percentSteps({ seasonal }: Timer): number[] {
  const [lowest, highest, step] =
    seasonal.scope === 'none'
      ? [1, 300, 1]
      : [seasonal.lowestPercent, seasonal.highestPercent, seasonal.stepPercent];
  const steps: number[] = [];
  for (let percent = lowest; percent <= highest; percent += step) steps.push(percent);
  return steps;
}

/** Whether a timer has a seasonal percent, by which headroom is measured. */
export const hasPercent = ({ timer }: Pick<Plan, 'timer'>): boolean =>
  timer.seasonal.scope !== 'none';
