/** Replans in words. No interface code. */
import { monthName } from '@water-clock/core';
import type { Replan } from '../api/replans.ts';

export const titleOf = ({ aim, rules, month }: Pick<Replan, 'aim' | 'rules' | 'month'>): string =>
  aim === 'rules' ? `Planned anew for ${rules ?? 'rules'}` : `Percent for ${monthName(month ?? 1)}`;

export const becauseOf = ({
  aim,
  rules,
  month,
}: Pick<Replan, 'aim' | 'rules' | 'month'>): string =>
  aim === 'rules'
    ? `The watering rules of ${rules ?? 'your place'} change`
    : `${monthName(month ?? 1)} needs another amount of water`;

/** How far it is: `12 of 30 planned`. */
export function progressWords({ counts }: Pick<Replan, 'counts'>): string {
  const { all, waiting, phone, visit, open, done, fits } = counts;
  if (waiting > 0) return `${all - waiting} of ${all} planned`;
  const parts = [
    phone + visit > 0 && `${phone + visit} wait for you`,
    done > 0 && `${done} decided`,
    open > 0 && `${open} without a plan`,
    fits > 0 && `${fits} fit already`,
  ].filter(Boolean);
  return parts.join(', ') || 'no garden is touched';
}
