/** What a brief wants of a station: whether the rules bind it, and whether hours matter. */
import {
  laterWeekdays,
  type WeekdayMask,
  maskOfWeekdays,
  weekdaysOfMask,
} from '../time/dayRules.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import { percentSteps } from '../plan/program.ts';
import { type Brief, type BriefStation, wishOf } from './brief.ts';

/** From this share on, a station is off its need (planning.md section 2, too-much and too-little). */
export const NEED_TOLERANCE = 0.1;

/** Watering dates a week of a station: its own, otherwise the garden's; null: any. */
export const daysWanted = (
  { wish }: Pick<Brief, 'wish'>,
  { days }: Pick<BriefStation, 'days'>,
): NonNullable<BriefStation['days']> | null => days ?? wish?.daysPerWeek ?? null;

/**
 * Percent at which a plan must finish in time, so that it still does in midsummer (planning.md section 3): the timer's highest step not
 * above the wished headroom, otherwise 100.
 */
export function highPercent(brief: Brief): number {
  const { headroomPercent } = wishOf(brief);
  if (brief.timer.seasonal.scope === 'none') return 100;
  const steps = percentSteps(brief.timer).filter((p) => p > 0 && p <= headroomPercent);
  return steps.length > 0 ? Math.max(...steps) : 100;
}

/** Weekdays on which overhead stations must stay dry for mowing. */
export function mowingMask({ mowing }: Brief): WeekdayMask {
  if (!mowing) return 0;
  const days = maskOfWeekdays(mowing.weekdays);
  return mowing.dayBefore ? days | laterWeekdays(days, -1) : days;
}

/** Hours on the days before in which overhead stations must stay dry for mowing. */
export function mowingWindows({ mowing }: Brief): readonly NoWaterWindow[] {
  if (mowing?.dryFrom === undefined || mowing.weekdays.length === 0) return [];
  const before = weekdaysOfMask(laterWeekdays(maskOfWeekdays(mowing.weekdays), -1));
  return [{ from: mowing.dryFrom, to: '00:00', weekdays: before }];
}

/** Whether the rules bind a station (planning.md section 1, `dripExempt`). */
export const isBound = ({ rules }: Pick<Brief, 'rules'>, overhead: boolean): boolean =>
  rules !== undefined && (overhead || rules.dripExempt !== true);
/** Whether times of day matter for a station: not with several waterings a day, nor for drip if it may run any time. */
export const countsForTimes = (
  brief: Brief,
  { oftenADay, overhead = true }: Pick<BriefStation, 'oftenADay' | 'overhead'>,
): boolean => oftenADay === undefined && (overhead || !wishOf(brief).dripAnyTime);
