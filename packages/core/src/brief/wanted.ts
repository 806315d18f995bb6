/** What a brief wants of a station: whether its rules bind it, and whether its hours count. */
import { laterWeekdays, type WeekdayMask, maskOfWeekdays } from '../time/dayRules.ts';
import { type Brief, type BriefStation, wishOf } from './brief.ts';

/** A station is off its need from this share on (planning.md section 2, too-much and too-little). */
export const NEED_TOLERANCE = 0.1;
/** Weekdays on which what is overhead is to stay dry for the mower. */
export function mowingMask({ mowing }: Brief): WeekdayMask {
  if (!mowing) return 0;
  const days = maskOfWeekdays(mowing.weekdays);
  return mowing.dayBefore ? days | laterWeekdays(days, -1) : days;
}

/** Whether the rules bind a station (planning.md section 1, `dripExempt`). */
export const isBound = ({ rules }: Pick<Brief, 'rules'>, overhead: boolean): boolean =>
  rules !== undefined && (overhead || rules.dripExempt !== true);
/** Whether a station counts for times of day: not where it waters often a day, nor drip where that may run at any time. */
export const countsForTimes = (
  brief: Brief,
  { oftenADay, overhead = true }: Pick<BriefStation, 'oftenADay' | 'overhead'>,
): boolean => oftenADay === undefined && (overhead || !wishOf(brief).dripAnyTime);
