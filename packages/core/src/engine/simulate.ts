/** What the timer really does over some days, including overlaps and windows (timing-rules.md sections 2 to 6). */
import {
  formatMoment,
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
  type TimeText,
} from '../time/calendar.ts';
import { assertDefined } from '../document/assertDefined.ts';
import { isIn } from '../time/dayRules.ts';
import { resumesAt } from '../plan/starts.ts';
import type { ClockChange } from './clockChanges.ts';
import { Effort } from './effort.ts';
import { ProgramCycles } from './nominal.ts';
import { sharedCycles } from './sharedCycles.ts';
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';

/** A start that came due and has something to run. */
export interface DueCycle {
  readonly letter: string;
  readonly start: TimeText;
  readonly due: ClockSecond;
  readonly percent: number;
  /** The cycle as it would run alone; null: a window blocks it entirely. */
  readonly nominal: { readonly begins: ClockSecond; readonly ends: ClockSecond } | null;
  readonly program: ProgramCycles;
}

export interface ServedCycle {
  readonly due: DueCycle;
  readonly outcome: 'ran' | 'cut' | 'lost';
  /** Null if it was lost. */
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
  /** In order of due time, letter, start; without cycles that have nothing to run. */
  readonly cycles: readonly ServedCycle[];
  /** In order of on, station, letter, off; never empty. */
  readonly runs: readonly ServedRun[];
}

const compareText = (x: string, y: string) => (x < y ? -1 : x > y ? 1 : 0);

/**
 * The cycles due from 00:00 of `from` for `days` days, each as it would run alone, in order of due time, letter, start. Cycles with nothing
 * to run are left out. Whether the timer is off does not matter here.
 *
 * @param changes clock changes that the timer follows: a start in a skipped hour is due when that hour is over (timing-rules.md section 8)
 * @throws TooMuchWork
 */
export function dueCycles(
  plan: Plan,
  from: EpochDay,
  days: number,
  changes: readonly ClockChange[] = [],
  effort = new Effort(),
): DueCycle[] {
  const watering = wateringStations(plan);
  const resumes = resumesAt(plan);
  const firing = programsByLetter(plan)
    .filter((program) => missingOf(program, watering).length === 0)
    .map((program) => new ProgramCycles(plan, program, effort));
  const cycles: DueCycle[] = [];
  for (let day = from; day < from + days; day++)
    for (const program of firing) {
      const percent = program.percentOn(day);
      effort.spend(program.starts.length * 4);
      for (const { start, secondOfDay: set, times, days: dates } of program.starts) {
        const skip = changes.find(
          (clockChange) =>
            clockChange.day === day && clockChange.from <= set && set < clockChange.to,
        );
        const secondOfDay = skip ? skip.to : set;
        const due = day * SECONDS_PER_DAY + secondOfDay;
        if (due < resumes || !isIn(dates, day) || program.lengthAt(percent) === 0) continue;
        const nominal = program.nominalOn(secondOfDay, day);
        for (let n = 0; n < times; n++)
          cycles.push({ letter: program.letter, start, due, percent, nominal, program });
      }
    }
  return cycles.sort((x, y) => x.due - y.due || compareText(x.letter, y.letter));
}

/**
 * Serves every start due from 00:00 of `from`, with the timer idle then, for `days` days; each cycle runs to its end even past the last
 * day. A timer that is off does nothing.
 *
 * Cost: cycles due × runs in one.
 *
 * @param days whole days, 1 or more
 * @throws TooMuchWork
 */
export function simulate(plan: Plan, from: EpochDay, days: number): Simulation {
  return serve(plan, dueCycles(plan, from, days));
}

/**
 * Serves due cycles, with the timer idle before the first; nothing if it is off.
 *
 * @param runsFrom lists runs only of cycles that end after this moment
 * @throws TooMuchWork
 */
export function serve(
  plan: Plan,
  due: readonly DueCycle[],
  runsFrom: ClockSecond = -Infinity,
  effort = new Effort(),
): Simulation {
  const runs: ServedRun[] = [];
  if (plan.timer.onOverlap === 'share') return inOrder(sharing(plan, due, runsFrom, effort));
  const cycles = plan.settings.mode === 'off' ? [] : served(due, plan.timer.onOverlap);
  cycles.forEach(({ due: { program, letter, percent }, began, ended }, cycle) => {
    if (began === null || ended === null || ended <= runsFrom) return;
    for (const { station, on, off } of program.runsOf(began, ended, percent))
      runs.push({ station, letter, on, off, cycle });
  });
  return inOrder({ cycles, runs });
}

const inOrder = ({ cycles, runs }: Simulation): Simulation => ({
  cycles,
  runs: [...runs].sort(
    (x, y) =>
      x.on - y.on || x.station - y.station || compareText(x.letter, y.letter) || x.off - y.off,
  ),
});

/** Cycles side by side within one limit (section 5, `share`). */
function sharing(
  plan: Plan,
  due: readonly DueCycle[],
  runsFrom: ClockSecond,
  effort: Effort,
): Simulation {
  if (plan.settings.mode === 'off') return { cycles: [], runs: [] };
  const coming = comingOf(due, 'share');
  const cycles = lostUntilServed(due);
  const runs: ServedRun[] = [];
  const shared = sharedCycles(
    plan,
    coming.map(({ cycle: { program, percent }, arrives }) => ({ program, percent, arrives })),
    effort,
  );
  coming.forEach(({ cycle, arrives, index }, i) => {
    const { outcome, ended, runs: own } = assertDefined(shared[i], 'shared[i]');
    cycles[index] = { due: cycle, outcome, began: arrives, ended };
    if (ended > runsFrom)
      for (const run of own) runs.push({ ...run, letter: cycle.letter, cycle: index });
  });
  return { cycles, runs };
}

/** A start waiting to be served. */
interface Coming {
  readonly cycle: DueCycle;
  /** Arrival: with pauses, the end of the window in which it is due; otherwise its due time. */
  readonly arrives: ClockSecond;
  readonly index: number;
}

const lostUntilServed = (due: readonly DueCycle[]) =>
  due.map((cycle): ServedCycle => ({ due: cycle, outcome: 'lost', began: null, ended: null }));

/** Starts not cancelled by a window, in order of arrival. */
const comingOf = (due: readonly DueCycle[], onOverlap: Plan['timer']['onOverlap']): Coming[] =>
  due
    .flatMap((cycle, index): Coming[] => {
      // With a queue, windows are checked when a start's turn comes; otherwise when it is due.
      const arrives =
        onOverlap === 'queue' && cycle.program.cutsInWindow
          ? cycle.due
          : cycle.program.beginOf(cycle.due);
      return arrives === null ? [] : [{ cycle, arrives, index }];
    })
    // Stable: starts that arrive together stay in order of due time, letter, start.
    .sort((x, y) => x.arrives - y.arrives);

/**
 * Sections 5 and 6: the outcome of each start, ignoring what other cycles have open. `due` and the result are in order of due time, letter,
 * start.
 */
function served(due: readonly DueCycle[], onOverlap: Plan['timer']['onOverlap']): ServedCycle[] {
  const answers = lostUntilServed(due);
  const coming = comingOf(due, onOverlap);
  /** End of the last cycle begun; with one cycle at a time, when the timer is free. */
  let freeAt = -Infinity;
  let running = -1;
  for (const { cycle, arrives, index } of coming) {
    const { program, percent } = cycle;
    const busy = arrives < freeAt;
    if (busy && onOverlap === 'drop') continue;
    const began = onOverlap === 'queue' ? program.beginOf(Math.max(arrives, freeAt)) : arrives;
    if (began === null) continue;
    const before = answers[running];
    if (busy && onOverlap === 'cut' && before)
      answers[running] = { ...before, outcome: 'cut', ended: arrives };
    const ended = program.endOf(began, percent);
    const cut = program.cutsInWindow && ended - began < program.lengthAt(percent);
    answers[index] = { due: cycle, outcome: cut ? 'cut' : 'ran', began, ended };
    freeAt = ended;
    running = index;
  }
  return answers;
}

/** Output of `water-clock simulate` (plan-format.md). */
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
