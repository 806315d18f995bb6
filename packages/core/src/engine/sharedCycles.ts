/**
 * Cycles of several programs side by side within one limit (timing-rules.md section 5, `share`): each follows section 4, and together they
 * open no more stations and no more flow than the timer allows.
 */
import type { ClockSecond } from '../time/calendar.ts';
import type { Plan } from '../plan/plan.ts';
import type { Effort } from './effort.ts';
import type { ProgramCycles } from './nominal.ts';
import { Room, RunningCycle, sharesOf } from './runningCycle.ts';

/** A cycle that is due. */
export interface ComingCycle {
  readonly program: ProgramCycles;
  readonly percent: number;
  /** No window of its program contains this moment. */
  readonly arrives: ClockSecond;
}

interface SharedRun {
  readonly station: number;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
}

export interface SharedCycle {
  readonly outcome: 'ran' | 'cut';
  readonly ended: ClockSecond;
  readonly runs: readonly SharedRun[];
}

/**
 * Outcome of cycles that share one limit.
 *
 * Cost: runs × stations under way.
 *
 * @param coming in order of arrival
 * @returns one for each, in the same order
 * @throws TooMuchWork
 */
export function sharedCycles(
  plan: Plan,
  coming: readonly ComingCycle[],
  effort: Effort,
): SharedCycle[] {
  const most = Math.min(plan.timer.stationsAtOnce, plan.settings.stationsAtOnce ?? Infinity);
  const flowLimit = coming[0]?.program.model.flowLimit ?? Infinity;
  const ends: SharedCycle[] = [];
  let running: OneOfThem[] = [];
  const over = (one: OneOfThem, outcome: 'ran' | 'cut', ended: ClockSecond) => {
    ends[one.index] = { outcome, ended, runs: one.runs };
    running = running.filter((other) => other !== one);
  };
  let next = 0;
  let t = coming[0]?.arrives ?? Infinity;
  while (t < Infinity) {
    for (const one of [...running]) {
      one.cycle.close(t, one.tell);
      if (one.cycle.isDone) over(one, 'ran', t);
      else if (isHeldAt(one.program, t))
        if (one.program.cutsInWindow) {
          one.cycle.stop(t, one.tell);
          over(one, 'cut', t);
        } else one.cycle.pause(t, one.tell);
    }
    for (let one = coming[next]; one?.arrives === t; one = coming[++next])
      running.push(begun(one, next));
    const room = new Room(
      running.map(({ cycle }) => cycle),
      most,
      flowLimit,
    );
    let then = coming[next]?.arrives ?? Infinity;
    const free = new Set(running.filter(({ program }) => !isHeldAt(program, t)));
    for (const { cycle } of free) cycle.resumeAt(t, room);
    for (const one of running) {
      const { cycle, program, tell } = one;
      effort.spend(8 + cycle.size * (1 + running.length));
      if (free.has(one)) cycle.openAt(t, room);
      cycle.power(t, ALWAYS, tell);
      const { windows } = program;
      then = Math.min(then, cycle.nextAfter(t, windows && { windows, ahead: 0 }));
    }
    t = then;
  }
  return ends;
}

const ALWAYS = () => true;

/** A running cycle. */
interface OneOfThem {
  /** Its index among those due. */
  readonly index: number;
  readonly program: ProgramCycles;
  readonly cycle: RunningCycle;
  readonly runs: SharedRun[];
  readonly tell: (run: SharedRun) => void;
}

function begun({ program, percent, arrives }: ComingCycle, index: number): OneOfThem {
  const runs: SharedRun[] = [];
  const cycle = RunningCycle.of(program.model, sharesOf(program.model, percent), arrives);
  return { index, program, cycle, runs, tell: (run) => runs.push(run) };
}

const isHeldAt = ({ windows }: ProgramCycles, t: ClockSecond) =>
  windows !== null && windows.nextFree(t) !== t;
