/** What the timer really does over a span of days, overlaps and all (timing-rules.md sections 2 to 5). */
import {
  formatMoment,
  monthOf,
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type ClockSecond,
  type EpochDay,
} from './calendar.ts';
import { cycleShape, type CycleShape } from './cycle.ts';
import { programsByLetter, type Plan, type Program, type TimeText } from './plan.ts';
import {
  effectivePercent,
  enabledStations,
  missingOf,
  resumesAt,
  weekdayMaskOf,
} from './program.ts';

/** A start that came due, with its cycle as it would run by itself. */
export interface DueCycle {
  readonly letter: string;
  readonly start: TimeText;
  readonly due: ClockSecond;
  readonly percent: number;
  readonly shape: CycleShape;
}

export interface ServedCycle {
  readonly due: DueCycle;
  readonly outcome: 'ran' | 'cut' | 'lost';
  /** Null where it was lost. */
  readonly began: ClockSecond | null;
  readonly ended: ClockSecond | null;
}

export interface ServedRun {
  readonly station: number;
  readonly letter: string;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
  /** Index into `cycles`. */
  readonly cycle: number;
}

export interface Simulation {
  /** In the order due, then letter, then start; cycles with nothing to run left out. */
  readonly cycles: readonly ServedCycle[];
  /** In the order on, station, letter, off; never empty. */
  readonly runs: readonly ServedRun[];
}

const compareText = (x: string, y: string) => (x < y ? -1 : x > y ? 1 : 0);

/**
 * The cycles that come due from 00:00 of `from` for `days` days, as they would each run by themselves, in the order due,
 * letter, start. Those with nothing to run are left out. Whether the timer is off makes no difference here.
 */
export function dueCycles(plan: Plan, from: EpochDay, days: number): DueCycle[] {
  const enabled = enabledStations(plan);
  const resumes = resumesAt(plan);
  const shapes = new Map<string, CycleShape>();
  const shapeAt = (program: Program, percent: number) => {
    const key = `${program.letter}${percent}`;
    let shape = shapes.get(key);
    if (!shape) shapes.set(key, (shape = cycleShape(plan, program, percent)));
    return shape;
  };
  const firing = programsByLetter(plan)
    .filter((program) => missingOf(program, enabled).length === 0)
    .map((program) => ({ program, weekdays: weekdayMaskOf(program.days) }));
  const cycles: DueCycle[] = [];
  for (let day = from; day < from + days; day++) {
    const month = monthOf(day);
    for (const { program, weekdays } of firing) {
      if (!(weekdays & (1 << weekdayIndexOf(day)))) continue;
      const percent = effectivePercent(plan, program, month);
      const shape = shapeAt(program, percent);
      if (shape.seconds === 0) continue;
      for (const start of program.starts) {
        const due = day * SECONDS_PER_DAY + (parseTime(start) ?? 0);
        if (due >= resumes) cycles.push({ letter: program.letter, start, due, percent, shape });
      }
    }
  }
  // Stable, so of two equal starts the one listed first comes first.
  return cycles.sort((x, y) => x.due - y.due || compareText(x.letter, y.letter));
}

/**
 * Serves every start due from 00:00 of `from`, the timer being idle then, until `days` days have passed; each cycle runs to
 * its end even past the last day. A timer that is off does nothing.
 *
 * @param days whole days, 1 or more. Cost: cycles due × runs in one.
 */
export function simulate(plan: Plan, from: EpochDay, days: number): Simulation {
  const due = plan.settings.mode === 'off' ? [] : dueCycles(plan, from, days);
  const cycles = serve(due, plan.timer.onOverlap);
  const runs = cycles.flatMap((cycle, index) => runsOf(cycle, index));
  runs.sort(
    (x, y) =>
      x.on - y.on || x.station - y.station || compareText(x.letter, y.letter) || x.off - y.off,
  );
  return { cycles, runs };
}

/** Section 5: what becomes of each start where cycles overlap. `due` stands in the order in which starts are served. */
function serve(due: readonly DueCycle[], onOverlap: Plan['timer']['onOverlap']): ServedCycle[] {
  const whole = (cycle: DueCycle, began: ClockSecond): ServedCycle => ({
    due: cycle,
    outcome: 'ran',
    began,
    ended: began + cycle.shape.seconds,
  });
  const served: ServedCycle[] = [];
  /** End of the cycle that began last; with one cycle at a time this is when the timer is free. */
  let freeAt = -Infinity;
  for (const cycle of due) {
    const running = cycle.due < freeAt;
    switch (onOverlap) {
      case 'queue':
        served.push(whole(cycle, Math.max(cycle.due, freeAt)));
        break;
      case 'drop':
        served.push(
          running
            ? { due: cycle, outcome: 'lost', began: null, ended: null }
            : whole(cycle, cycle.due),
        );
        break;
      case 'cut': {
        const before = served.at(-1);
        if (running && before)
          served[served.length - 1] = { ...before, outcome: 'cut', ended: cycle.due };
        served.push(whole(cycle, cycle.due));
        break;
      }
      case 'together':
        served.push(whole(cycle, cycle.due));
        break;
    }
    freeAt = served.at(-1)?.ended ?? freeAt;
  }
  return served;
}

function runsOf({ due, began, ended }: ServedCycle, cycle: number): ServedRun[] {
  if (began === null || ended === null) return [];
  const runs: ServedRun[] = [];
  for (const { station, on, off } of due.shape.runs) {
    if (began + on >= ended) break;
    runs.push({
      station,
      letter: due.letter,
      on: began + on,
      off: Math.min(began + off, ended),
      cycle,
    });
  }
  return runs;
}

/** What `water-clock simulate` prints (plan-format.md). */
export interface SimulationReport {
  readonly from: string;
  readonly days: number;
  readonly cycles: readonly {
    readonly program: string;
    readonly start: TimeText;
    readonly due: string;
    readonly outcome: 'ran' | 'cut' | 'lost';
    readonly began: string | null;
    readonly ended: string | null;
  }[];
  readonly runs: readonly {
    readonly station: number;
    readonly program: string;
    readonly on: string;
    readonly off: string;
  }[];
}

/** A simulation in the form of plan-format.md. */
export function simulationReport(
  from: string,
  days: number,
  { cycles, runs }: Simulation,
): SimulationReport {
  const moment = (at: ClockSecond | null) => (at === null ? null : formatMoment(at));
  return {
    from,
    days,
    cycles: cycles.map(({ due, outcome, began, ended }) => ({
      program: due.letter,
      start: due.start,
      due: formatMoment(due.due),
      outcome,
      began: moment(began),
      ended: moment(ended),
    })),
    runs: runs.map(({ station, letter, on, off }) => ({
      station,
      program: letter,
      on: formatMoment(on),
      off: formatMoment(off),
    })),
  };
}
