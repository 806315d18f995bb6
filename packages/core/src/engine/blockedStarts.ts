/** Times of day to which a start cannot be moved, because its cycle would overlap. */
import type { Plan } from '../plan/plan.ts';
import { type EpochDay, SECONDS_PER_DAY } from '../time/calendar.ts';
import { Effort } from './effort.ts';
import { Examination } from './examination.ts';

/**
 * Times of day in the timer's step to which a start may not be moved, because its cycle would ever overlap another or itself. Empty if the
 * program is not complete or has no starts of its own.
 *
 * @returns seconds of the day, ascending
 * @throws TooMuchWork
 */
export function blockedStarts(plan: Plan, letter: string, start: string, on: EpochDay): number[] {
  const { proof, complete } = new Examination(plan, on, new Effort());
  const program = complete.find((program) => program.letter === letter);
  const own = program?.starts.find((one) => one.start === start);
  const rule = plan.programs.find((program) => program.letter === letter)?.days?.rule;
  if (!program || !own || rule === 'hours') return [];
  const step = plan.timer.startStepMinutes * 60;
  const candidates = Array.from({ length: SECONDS_PER_DAY / step }, (_, i) => i * step);
  const others = proof.othersThan(letter, start);
  return candidates.filter((secondOfDay) =>
    proof.blocks(program, { ...own, times: 1, secondOfDay }, others),
  );
}
