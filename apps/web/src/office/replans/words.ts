/** Messages about replans. No interface code. */
import { monthName, say } from '@water-clock/core';
import type { Replan } from '../../data/api/replans.ts';

export const titleOf = ({ aim, rules, month }: Pick<Replan, 'aim' | 'rules' | 'month'>): string =>
  aim === 'rules'
    ? rules === null || rules === undefined
      ? say`Replanned for new rules`
      : say`Replanned for ${rules}`
    : say`Percent for ${monthName(month ?? 1)}`;

export const becauseOf = ({
  aim,
  rules,
  month,
}: Pick<Replan, 'aim' | 'rules' | 'month'>): string =>
  aim === 'rules'
    ? rules === null || rules === undefined
      ? say`The watering rules for your area are changing`
      : say`The watering rules of ${rules} are changing`
    : say`${monthName(month ?? 1)} needs a different amount of water`;

/** Progress: `12 of 30 planned`. */
export function progressWords({ counts }: Pick<Replan, 'counts'>): string {
  const { all, waiting, phone, visit, open, done, fits } = counts;
  if (waiting > 0) return say`${all - waiting} of ${all} planned`;
  const parts = [
    phone + visit > 0 && say`${phone + visit} need your decision`,
    done > 0 && say`${done} decided`,
    open > 0 && say`${open} without a plan`,
    fits > 0 && say`${fits} already comply`,
  ].filter(Boolean);
  return parts.join(', ') || say`no site is affected`;
}
