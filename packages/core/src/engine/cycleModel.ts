/** What a program's cycles consist of: each station's run, how it is split, and the result at a percent. */
import type { Path } from '../document/fault.ts';
import type { Plan, Program, Seasonal } from '../plan/plan.ts';
import { runsWithLinked, splitBy } from '../plan/linked.ts';
import { adjustedSeconds } from '../plan/program.ts';
import type { WeekWindows } from '../time/windows.ts';

/** One valve open without a break; half-open, `off` excluded. Seconds from the start of the cycle, or clock seconds. */
export interface CycleRun {
  readonly station: number;
  readonly on: number;
  readonly off: number;
}

/** What the stations water in a cycle, a column for each quantity, in seconds; a row for each station that waters. */
export interface Shares {
  readonly count: number;
  readonly stations: readonly number[];
  /** Adjusted run time, above 0. */
  readonly seconds: Float64Array;
  /** Longest cycle; the whole run time if not split. */
  readonly pieces: Float64Array;
  readonly soaks: Float64Array;
  /** Thousandths of a litre a minute. */
  readonly flows: Float64Array;
  readonly leastFlow: number;
}

/** A run of a program as entered, with its cycle and soak; seconds. */
interface EnteredRun {
  readonly station: number;
  readonly seconds: number;
  /** Null: not split. */
  readonly split: { readonly piece: number; readonly soak: number } | null;
  /** Thousandths of a litre a minute. */
  readonly flow: number;
}

/** A program's cycles before the percent is applied: looked up once for all of them. */
export interface CycleModel {
  /** Enabled stations, ascending by number. */
  readonly runs: readonly EnteredRun[];
  readonly delaySeconds: number;
  readonly seasonal: Seasonal;
  /** Limit K of stations open at once within the cycle. */
  readonly atOnce: number;
  /** Thousandths of a litre a minute; Infinity if there is no limit. */
  readonly flowLimit: number;
  /** Path of the runs in the document. */
  readonly path: Path;
  /** Cached results by percent. */
  readonly shares: Map<number, Shares>;
}

const thousandths = (litres: number) => Math.round(litres * 1000);

/** What a program's cycles consist of, at any percent. */
export function cycleModel(plan: Plan, program: Program): CycleModel {
  const { cycleSoak, seasonal } = plan.timer;
  const { settings } = plan;
  const stationOf = new Map(plan.stations.map((station) => [station.number, station]));
  const runs: EnteredRun[] = [];
  for (const { station: number, seconds } of runsWithLinked(plan, program)) {
    const station = stationOf.get(number);
    if (seconds === 0 || !station || station.enabled === false) continue;
    const from =
      cycleSoak === 'station'
        ? splitBy(plan, station)
        : cycleSoak === 'program'
          ? program
          : undefined;
    const split =
      from?.cycleSeconds !== undefined && from.soakSeconds !== undefined
        ? { piece: from.cycleSeconds, soak: from.soakSeconds }
        : null;
    runs.push({ station: number, seconds, split, flow: thousandths(station.flowLpm ?? 0) });
  }
  runs.sort((a, b) => a.station - b.station);
  return {
    runs,
    delaySeconds: settings.stationDelaySeconds ?? 0,
    seasonal,
    atOnce: Math.min(
      plan.timer.stationsAtOnce,
      settings.stationsAtOnce ?? Infinity,
      program.stationsAtOnce ?? Infinity,
    ),
    flowLimit: settings.flowLimitLpm === undefined ? Infinity : thousandths(settings.flowLimitLpm),
    path: ['programs', plan.programs.indexOf(program), 'runs'],
    shares: new Map(),
  };
}

const MOST_PERCENTS_KEPT = 16;

/** What the stations water at a percent. */
export function sharesAt({ runs, seasonal, shares }: CycleModel, percent: number): Shares {
  let made = shares.get(percent);
  if (made) return made;
  const stations: number[] = [];
  const seconds = new Float64Array(runs.length);
  const pieces = new Float64Array(runs.length);
  const soaks = new Float64Array(runs.length);
  const flows = new Float64Array(runs.length);
  let leastFlow = Infinity;
  for (const { station, seconds: entered, split, flow } of runs) {
    const adjusted = adjustedSeconds(entered, percent, seasonal);
    if (adjusted === 0) continue;
    const row = stations.push(station) - 1;
    seconds[row] = adjusted;
    pieces[row] = split ? Math.min(split.piece, adjusted) : adjusted;
    soaks[row] = split?.soak ?? 0;
    flows[row] = flow;
    leastFlow = Math.min(leastFlow, flow);
  }
  made = { count: stations.length, stations, seconds, pieces, soaks, flows, leastFlow };
  // Headroom asks for each percent once; only the twelve months' are asked for again.
  if (shares.size >= MOST_PERCENTS_KEPT) shares.clear();
  shares.set(percent, made);
  return made;
}

/** Upper bound in seconds for cycles of a program at up to `percent`; coarse and cheap. */
export function longestConceivable(
  model: CycleModel,
  percent: number,
  windows: WeekWindows | null,
): number {
  let seconds = 0;
  for (const { seconds: entered, split } of model.runs) {
    const run = adjustedSeconds(entered, percent, model.seasonal) + 60;
    const pieces = split ? Math.ceil(run / split.piece) : 1;
    seconds += run + pieces * ((split?.soak ?? 0) + model.delaySeconds);
  }
  return windows ? windows.longestWith(seconds) : seconds;
}
