/** The order inside a cycle: which valve is open when, for one station at a time (timing-rules.md section 4). */
import type { Plan, Program, Seasonal } from './plan.ts';
import { adjustedSeconds } from './program.ts';

/** One valve open without a break, in seconds from the cycle's beginning; half-open, `off` not included. */
export interface CycleRun {
  readonly station: number;
  readonly on: number;
  readonly off: number;
}

/** What one station has to give in a cycle, all in seconds. */
interface Share {
  readonly station: number;
  /** Adjusted run, above 0. */
  readonly seconds: number;
  /** Longest piece; the whole run where it is not split. */
  readonly piece: number;
  readonly soak: number;
}

/** One run of a program as entered, with how it is split; seconds. */
interface EnteredRun {
  readonly station: number;
  readonly seconds: number;
  /** Null: not split. */
  readonly split: { readonly piece: number; readonly soak: number } | null;
}

/** A program's cycles before the percent: what is the same for all of them, looked up once. */
export interface CycleModel {
  /** Of enabled stations, ascending by number. */
  readonly runs: readonly EnteredRun[];
  readonly delaySeconds: number;
  readonly seasonal: Seasonal;
}

/** What a program's cycles are made of, whatever the percent. */
export function cycleModel(plan: Plan, program: Program): CycleModel {
  const { cycleSoak, seasonal } = plan.timer;
  const stationOf = new Map(plan.stations.map((station) => [station.number, station]));
  const runs: EnteredRun[] = [];
  for (const { station: number, seconds } of program.runs) {
    const station = stationOf.get(number);
    if (seconds === 0 || !station || station.enabled === false) continue;
    const from = cycleSoak === 'station' ? station : cycleSoak === 'program' ? program : undefined;
    const split =
      from?.cycleSeconds !== undefined && from.soakSeconds !== undefined
        ? { piece: from.cycleSeconds, soak: from.soakSeconds }
        : null;
    runs.push({ station: number, seconds, split });
  }
  runs.sort((a, b) => a.station - b.station);
  return { runs, delaySeconds: plan.settings.stationDelaySeconds ?? 0, seasonal };
}

/** What the stations have to give at a percent. */
function sharesAt({ runs, seasonal }: CycleModel, percent: number): Share[] {
  const shares: Share[] = [];
  for (const { station, seconds: entered, split } of runs) {
    const seconds = adjustedSeconds(entered, percent, seasonal);
    if (seconds > 0)
      shares.push({
        station,
        seconds,
        piece: split ? Math.min(split.piece, seconds) : seconds,
        soak: split ? split.soak : 0,
      });
  }
  return shares;
}

/**
 * Runs the loop of section 4 and hands each piece to `open`.
 *
 * @returns the cycle's length: seconds from its beginning to the last closing; 0 where there is nothing to run.
 * Cost: pieces × stations.
 */
function work(
  shares: readonly Share[],
  delaySeconds: number,
  open: (station: number, on: number, off: number) => void,
): number {
  const count = shares.length;
  const left = shares.map((share) => share.seconds);
  const ready = new Array<number>(count).fill(0);
  let unfinished = count;
  let last = -1;
  let t = 0;
  let end = 0;
  // Ends: each turn either opens a piece of at least one second or moves on to the moment at which one can be opened.
  while (unfinished > 0) {
    let chosen = -1;
    let earliest = Infinity;
    for (let step = 1; step <= count; step++) {
      const i = (last + step + count) % count;
      if ((left[i] ?? 0) === 0) continue;
      const readyAt = ready[i] ?? 0;
      if (readyAt <= t) {
        chosen = i;
        break;
      }
      earliest = Math.min(earliest, readyAt);
    }
    const share = shares[chosen];
    if (share === undefined) {
      t = earliest;
      continue;
    }
    const rest = left[chosen] ?? 0;
    const seconds = Math.min(share.piece, rest);
    open(share.station, t, t + seconds);
    left[chosen] = rest - seconds;
    if (rest === seconds) unfinished--;
    end = t + seconds;
    ready[chosen] = end + share.soak;
    last = chosen;
    t = end + (unfinished > 0 ? delaySeconds : 0);
  }
  return end;
}

export interface CycleShape {
  /** Seconds from the beginning to the end, soaks and delays inside it included. */
  readonly seconds: number;
  readonly runs: readonly CycleRun[];
}

/** A program's cycle at a percent, as it would run by itself, with every run. */
export function cycleShape(plan: Plan, program: Program, percent: number): CycleShape {
  const runs: CycleRun[] = [];
  const model = cycleModel(plan, program);
  const seconds = work(sharesAt(model, percent), model.delaySeconds, (station, on, off) =>
    runs.push({ station, on, off }),
  );
  return { seconds, runs };
}

/** Length in seconds of a cycle at a percent; the same as `cycleShape(…).seconds`, without the runs. */
export function cycleSecondsAt(model: CycleModel, percent: number): number {
  let sum = 0;
  let count = 0;
  for (const { seconds: entered, split } of model.runs) {
    const seconds = adjustedSeconds(entered, percent, model.seasonal);
    if (split && split.piece < seconds)
      return work(sharesAt(model, percent), model.delaySeconds, () => undefined);
    sum += seconds;
    if (seconds > 0) count++;
  }
  // Nothing is split at this percent: each station once, in order, a delay between two.
  return sum + model.delaySeconds * Math.max(0, count - 1);
}

/** Length in seconds of a program's cycle at a percent. */
export const cycleSeconds = (plan: Plan, program: Program, percent: number): number =>
  cycleSecondsAt(cycleModel(plan, program), percent);
