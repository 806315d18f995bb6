/** A plan's programs as the simulated timer needs them, computed once for a plan. */
import type { Effort } from '../engine/effort.ts';
import { ProgramCycles } from '../engine/nominal.ts';
import { wateringStations } from '../plan/linked.ts';
import { programsByLetter, type Plan, type Program } from '../plan/plan.ts';
import { missingOf } from '../plan/program.ts';
import type { StartDays } from '../time/dayRules.ts';

export class Programs {
  readonly byLetter = new Map<string, ProgramCycles>();
  /** Starts of complete programs, by time of day, then letter. */
  readonly starts: readonly { readonly letter: string; readonly start: StartDays }[];
  private readonly obeying: ReadonlySet<number>;

  constructor(plan: Plan, effort: Effort) {
    const watering = wateringStations(plan);
    const starts: { letter: string; start: StartDays }[] = [];
    for (const program of programsByLetter(plan)) {
      const cycles = new ProgramCycles(plan, program, effort);
      this.byLetter.set(program.letter, cycles);
      if (isComplete(program, watering))
        for (const start of cycles.starts) starts.push({ letter: program.letter, start });
    }
    this.starts = starts.sort(
      (a, b) => a.start.secondOfDay - b.start.secondOfDay || (a.letter < b.letter ? -1 : 1),
    );
    this.obeying = new Set(
      plan.stations
        .filter(({ obeysRainSensor }) => obeysRainSensor !== false)
        .map(({ number }) => number),
    );
  }

  of(letter: string | null): ProgramCycles | null {
    return (letter !== null && this.byLetter.get(letter)) || null;
  }

  obeys = (station: number): boolean => this.obeying.has(station);
}

const isComplete = (program: Program, watering: ReadonlySet<number>) =>
  missingOf(program, watering).length === 0;
