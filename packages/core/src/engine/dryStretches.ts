/** Periods in which a station that waters stays dry longer than usual. */
import type { Plan } from '../plan/plan.ts';
import type { ClockSecond } from '../time/calendar.ts';
import { WeekWindows } from '../time/windows.ts';

/** A period of no-water hours, of one program, or of all if the letter is null. */
export interface DryStretch {
  readonly letter: string | null;
  readonly from: ClockSecond;
  readonly to: ClockSecond;
}

/** No-water hours set between two moments, whether or not the timer obeys them. */
export function dryStretches(plan: Plan, from: ClockSecond, to: ClockSecond): DryStretch[] {
  const common = plan.settings.noWaterWindows ?? [];
  return [
    { letter: null, windows: common },
    ...plan.programs.map(({ letter, noWaterWindows = [] }) => ({
      letter,
      windows: noWaterWindows,
    })),
  ].flatMap(({ letter, windows }) =>
    new WeekWindows(windows).between(from, to).map((span) => ({ letter, ...span })),
  );
}
