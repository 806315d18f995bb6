import { lengthWords, SECONDS_PER_DAY as DAY, say } from '@water-clock/core';

/** A clock error as text: `2 days 3 h behind`. */
export function aheadWords(ahead: number): string {
  const size = Math.abs(ahead);
  const days = Math.floor(size / DAY);
  const rest = size - days * DAY;
  const parts = [
    days > 0 && (days === 1 ? say`1 day` : say`${days} days`),
    rest > 0 && lengthWords(Math.round(rest / 60) * 60),
  ].filter(Boolean);
  return parts.length === 0
    ? say`right`
    : `${parts.join(' ')} ${ahead > 0 ? say`fast` : say`slow`}`;
}
