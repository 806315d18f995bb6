/** The order inside a cycle: which valve is open when, for one station at a time (timing-rules.md section 4). */
import type { Plan, Program } from './plan.ts';
import { adjustedSeconds, enabledStations } from './program.ts';

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

/** What a program's stations have to give at a percent, in ascending number. */
function sharesOf(plan: Plan, program: Program, percent: number): Share[] {
  const { cycleSoak, seasonal } = plan.timer;
  const enabled = enabledStations(plan);
  const stationOf = new Map(plan.stations.map((station) => [station.number, station]));
  const shares: Share[] = [];
  for (const run of program.runs) {
    const seconds = adjustedSeconds(run.seconds, percent, seasonal);
    if (seconds === 0 || !enabled.has(run.station)) continue;
    const from =
      cycleSoak === 'station'
        ? stationOf.get(run.station)
        : cycleSoak === 'program'
          ? program
          : undefined;
    const split = from?.cycleSeconds !== undefined && from.soakSeconds !== undefined;
    shares.push({
      station: run.station,
      seconds,
      piece: split ? Math.min(from.cycleSeconds ?? seconds, seconds) : seconds,
      soak: split ? (from.soakSeconds ?? 0) : 0,
    });
  }
  return shares.sort((a, b) => a.station - b.station);
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
  const delay = plan.settings.stationDelaySeconds ?? 0;
  const seconds = work(sharesOf(plan, program, percent), delay, (station, on, off) =>
    runs.push({ station, on, off }),
  );
  return { seconds, runs };
}

/** Length in seconds of a program's cycle at a percent; the same as `cycleShape(…).seconds`, without the runs. */
export function cycleSeconds(plan: Plan, program: Program, percent: number): number {
  const shares = sharesOf(plan, program, percent);
  const delay = plan.settings.stationDelaySeconds ?? 0;
  if (shares.every((share) => share.piece === share.seconds))
    // Nothing is split: each station once, in order, a delay between two.
    return (
      shares.reduce((sum, share) => sum + share.seconds, 0) + delay * Math.max(0, shares.length - 1)
    );
  return work(shares, delay, () => undefined);
}
