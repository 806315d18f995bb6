/** When a program's cycles end, for paper that stays in the garage for a year. */
import { attempt } from '../engine/effort.ts';
import { simulate, type Simulation } from '../engine/simulate.ts';
import { verdictOf } from '../engine/verdict.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { variesByMonth } from '../plan/program.ts';
import { SECONDS_PER_DAY, type EpochDay, type TimeText } from '../time/calendar.ts';
import { timeWords, type ClockStyle } from '../words/words.ts';

/** Days simulated: before today for what still runs, after it until each program has run. */
const DAYS = { before: 8, after: 62 };

/** Paper says how the timer waters, even while it is off or a rain delay stops it. */
const withoutPause = ({ settings: { wateringResumes: _until, mode: _mode, ...settings } }: Plan) =>
  settings;

/** The week from a date on with its rain delay, as it will run or, of a timer that is off, would. */
export function simulatedWeek(plan: Plan, today: EpochDay): Simulation | null {
  const { mode: _mode, ...settings } = plan.settings;
  const worked = attempt(() =>
    simulate({ ...plan, settings }, today - DAYS.before, DAYS.before + 8),
  );
  return worked.ok ? worked.value : null;
}

/** Some weeks from a date on as the timer really runs them; null: too much work. */
export function simulatedWeeks(plan: Plan, today: EpochDay): Simulation | null {
  const running = { ...plan, settings: withoutPause(plan) };
  const worked = attempt(() => simulate(running, today - DAYS.before, DAYS.before + DAYS.after));
  return worked.ok ? worked.value : null;
}

const isWeekly = ({ days }: Program) => days?.rule === 'daily' || days?.rule === 'weekdays';

/**
 * Whether the simulated weeks show everything that can happen to a program's ends within a year. They need not where the percent changes, or
 * where rules other than by weekday bring it against no-water hours or other programs on dates further ahead.
 */
function isTold(plan: Plan, program: Program, today: EpochDay): boolean {
  const { timer, settings, programs } = plan;
  if (variesByMonth(plan) || (settings.percentDrivenBy ?? 'person') !== 'person') return false;
  const windows = [...(settings.noWaterWindows ?? []), ...(program.noWaterWindows ?? [])];
  if (timer.inWindow !== 'ignore' && windows.length > 0 && !isWeekly(program)) return false;
  if (timer.onOverlap === 'together' || programs.every(isWeekly)) return true;
  const proof = attempt(() => verdictOf(plan, today));
  return proof.ok && proof.value.overlaps.length === 0;
}

/**
 * End of each start as a time of day, in the order of the starts; empty if one of them ends at different times, or may within a year.
 */
export function endsOfStarts(
  plan: Plan,
  program: Program,
  simulated: Simulation | null,
  { today, clock }: { readonly today: EpochDay; readonly clock: ClockStyle },
): string[] {
  if (!simulated || !isTold(plan, program, today)) return [];
  const ends = new Map<TimeText, Set<number>>();
  for (const { due, ended } of simulated.cycles) {
    const day = Math.floor(due.due / SECONDS_PER_DAY);
    if (due.letter !== program.letter || ended === null || day < today) continue;
    const own = ends.get(due.start) ?? new Set();
    ends.set(due.start, own.add((ended - day * SECONDS_PER_DAY) % SECONDS_PER_DAY));
  }
  const words = [...program.starts].sort().map((start) => {
    const [end, other] = ends.get(start) ?? [];
    return end === undefined || other !== undefined ? null : timeWords(end, clock);
  });
  return words.every((end) => end !== null) ? words : [];
}
