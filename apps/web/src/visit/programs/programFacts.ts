/** Facts in a program's header. No interface code. */
import {
  attempt,
  cycleShape,
  effectivePercent,
  isUnused,
  missingOf,
  missingSentence,
  monthOf,
  nextCycles,
  wateringStations,
  type EpochDay,
  type NextCycle,
  type Plan,
  type Program,
} from '@water-clock/core';

export interface ProgramFacts {
  /** Current percent. */
  readonly percent: number;
  /** Of one cycle; 0 if nothing runs. */
  readonly seconds: number;
  /** The next cycle of each start. */
  readonly next: readonly NextCycle[];
  /** What it still needs in order to water, as a message; null: nothing, or not in use. */
  readonly missing: string | null;
}

export function programFacts(plan: Plan, program: Program, today: EpochDay): ProgramFacts {
  const percent = effectivePercent(plan, program, monthOf(today));
  const shape = attempt(() => cycleShape(plan, program, percent));
  const next = attempt(() => nextCycles(plan, program, today));
  const missing = missingOf(program, wateringStations(plan));
  return {
    percent,
    seconds: shape.ok ? shape.value.seconds : 0,
    next: next.ok ? next.value : [],
    missing:
      missing.length > 0 && !isUnused(missing) ? missingSentence(program.letter, missing) : null,
  };
}
