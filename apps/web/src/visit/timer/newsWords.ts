import { recordDifferences, type ClockStyle, type TimerRecord, say } from '@water-clock/core';

/** Someone else's change in a line or two. */
export function newsWords(before: TimerRecord, after: TimerRecord, clock: ClockStyle): string {
  const differences = recordDifferences(before, after, clock);
  const told = differences
    .slice(0, 4)
    .map((difference) => `${difference.what}: ${difference.before} → ${difference.after}`);
  return differences.length > 4
    ? say`${told.join('; ')}, and ${differences.length - 4} more`
    : told.join('; ');
}
