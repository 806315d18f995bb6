/** Starts of a simulated timer: which comes next, which fire now, and what each runs. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Effort } from '../engine/effort.ts';
import type { ProgramCycles } from '../engine/nominal.ts';
import { sharesOf } from '../engine/runningCycle.ts';
import type { Plan } from '../plan/plan.ts';
import { SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';
import { Programs } from './programs.ts';
import type { Called, SimulatedTimerState, Waiting } from './timerState.ts';

type Situation = Pick<SimulatedTimerState, 'now' | 'ahead' | 'outSince' | 'plan' | 'resumes'>;

export class Starts {
  readonly programs: Programs;
  private readonly effort: Effort;
  /** The next start by the timer's clock, if already searched for. */
  private coming: { readonly at: ClockSecond | null; readonly looked: ClockSecond } | null = null;

  constructor(plan: Plan, effort: Effort) {
    this.programs = new Programs(plan, effort);
    this.effort = effort;
  }

  /** Searches again: the clock, the rain delay or a switch has changed. */
  forget(): void {
    this.coming = null;
  }

  /**
   * The next start after now that fires.
   *
   * @param to end of the search, true time
   * @param last no start fires from this moment on, true time
   * @returns true time; Infinity: none up to `to`
   */
  next({ now, ahead, outSince, plan, resumes }: Situation, to: ClockSecond, last: ClockSecond) {
    if (outSince !== null || plan.settings.mode === 'off') return Infinity;
    const until = Math.min(to, last) + ahead;
    if (until === Infinity) return Infinity;
    const after = now + ahead;
    const known = this.coming;
    const isOld = !known || (known.at !== null && known.at <= after);
    if (isOld || (known.at === null && known.looked < until)) {
      const from = isOld ? after : Math.max(after, known.looked);
      this.coming = { at: this.lookFor(from, until, resumes ?? -Infinity), looked: until };
    }
    const at = this.coming?.at ?? null;
    return at === null ? Infinity : at - ahead;
  }

  /** The first start by the timer's clock after `after`, up to and including `until`, and not before `resumes`. */
  private lookFor(
    after: ClockSecond,
    until: ClockSecond,
    resumes: ClockSecond,
  ): ClockSecond | null {
    const { starts } = this.programs;
    const first = Math.max(after + 1, resumes);
    for (let day = Math.floor(first / SECONDS_PER_DAY); day * SECONDS_PER_DAY <= until; day++) {
      this.effort.spend(2 + starts.length);
      for (const { start } of starts) {
        const at = day * SECONDS_PER_DAY + start.secondOfDay;
        if (at >= first && at <= until && isIn(start.days, day)) return at;
      }
    }
    return null;
  }

  /** Starts that fire at this second, in letter order. */
  due({ now, ahead, outSince, plan, resumes }: Situation): Waiting[] {
    const clock = now + ahead;
    if (outSince !== null || plan.settings.mode === 'off') return [];
    if (clock % 60 !== 0 || (resumes !== null && clock < resumes)) return [];
    const day = Math.floor(clock / SECONDS_PER_DAY);
    const second = clock - day * SECONDS_PER_DAY;
    return this.programs.starts.flatMap(({ letter, start }) => {
      if (start.secondOfDay !== second || !isIn(start.days, day)) return [];
      const program = assertDefined(this.programs.byLetter.get(letter), `program ${letter}`);
      const percent = program.percentOn(day);
      const one = waitingOf(program, { letter, start: start.start, due: clock, percent });
      return one.shares.length > 0 ? new Array<Waiting>(start.times).fill(one) : [];
    });
  }

  /**
   * A manual start of a program.
   *
   * @param clock time on the timer's clock
   */
  byHand(letter: string, clock: ClockSecond): Waiting | null {
    const program = this.programs.of(letter);
    const percent = program?.percentOn(Math.floor(clock / SECONDS_PER_DAY));
    if (!program || percent === undefined) return null;
    return waitingOf(program, { letter, start: null, due: clock, percent });
  }
}

function waitingOf({ model }: ProgramCycles, called: Called): Waiting {
  const { atOnce, delaySeconds } = model;
  return { ...called, shares: sharesOf(model, called.percent), atOnce, delaySeconds };
}

/**
 * A manual start of stations, one after another.
 *
 * @param clock time on the timer's clock
 * @param seconds run time of each
 * @param only this station; undefined: every enabled station
 */
export function stationsByHand(
  { stations, settings }: Plan,
  clock: ClockSecond,
  seconds: number,
  only: number | undefined,
): Waiting {
  const shares = stations
    .filter(({ number, enabled }) => enabled !== false && (only === undefined || number === only))
    .sort((a, b) => a.number - b.number)
    .map(({ number, flowLpm = 0 }) => ({
      ...{ station: number, flow: Math.round(flowLpm * 1000) },
      ...{ piece: seconds, soak: 0, left: seconds },
    }));
  return {
    ...{ letter: null, start: null, due: clock, percent: 100 },
    ...{ shares: seconds > 0 ? shares : [], atOnce: 1 },
    delaySeconds: settings.stationDelaySeconds ?? 0,
  };
}
