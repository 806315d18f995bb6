/** Whether a task is done: by what the timer does from now on, computed by the engine. */
import { assertDefined } from '../document/assertDefined.ts';
import { LiveBench } from '../bench/bench.ts';
import type { BenchStart, LoggedAct } from '../bench/state.ts';
import { SimulatedTimer } from '../simulatedTimer/simulatedTimer.ts';
import type { TimerRun } from '../simulatedTimer/timerState.ts';
import { verdictOf } from '../engine/verdict.ts';
import { stationOrSomething } from '../plan/planWords.ts';
import {
  parseTime,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  WEEKDAYS,
  type ClockSecond,
} from '../time/calendar.ts';
import { lengthWords, momentWords, type Speech } from '../words/words.ts';
import type { Plan } from '../plan/plan.ts';
import {
  comesAt,
  planWith,
  sceneActs,
  sceneStart,
  type Need,
  type Pressed,
  type Task,
  type TaskFault,
} from './task.ts';
import { say } from '../language/say.ts';

/** Clocks are set by hand, to the minute. */
const AS_GOOD_AS = 120;
const SECONDS_PER_WEEK = 7 * SECONDS_PER_DAY;

export interface NeedMet {
  readonly need: Need;
  readonly isMet: boolean;
  /** What is not met yet, in a sentence; null if it is. */
  readonly lacks: string | null;
}

/** The bench of a task when the apprentice arrives. */
export function benchOf(task: Task, style: BenchStart['style']): LiveBench {
  const bench = new LiveBench(sceneStart(task, style));
  for (const { at, act } of sceneActs(task)) {
    bench.advance(at);
    bench.act(act);
  }
  bench.advance(comesAt(task));
  bench.log.length = 0;
  return bench;
}

/** Water of a simulated timer from now on, over some seconds. */
function runsOf(device: SimulatedTimer, runs: TimerRun[], seconds: number): TimerRun[] {
  const until = device.now + seconds;
  device.advance(until);
  device.runOut();
  return runs.filter(({ on }) => on < until).sort((a, b) => a.on - b.on || a.station - b.station);
}

function comingRuns(bench: LiveBench, seconds: number): TimerRun[] {
  const { device, dead, shorted, shut } = bench.snapshot();
  const dry = [...dead, ...shorted, ...shut];
  const runs: TimerRun[] = [];
  // What already runs does not show what the settings will do.
  const idle = { ...device, running: [], queue: [], held: [] };
  return runsOf(SimulatedTimer.from(idle, { run: (run) => runs.push(run) }), runs, seconds).filter(
    ({ station }) => !dry.includes(station),
  );
}

function runsOfPlan(plan: Plan, now: ClockSecond, seconds: number): TimerRun[] {
  const runs: TimerRun[] = [];
  return runsOf(SimulatedTimer.idle(plan, now, 0, { run: (run) => runs.push(run) }), runs, seconds);
}

/** The first difference between what it does and should do; null: none. */
function difference(
  is: readonly TimerRun[],
  should: readonly TimerRun[],
  words: Words,
): string | null {
  for (let i = 0; i < Math.max(is.length, should.length); i++) {
    const [one, other] = [is[i], should[i]];
    if (one && (!other || one.on < other.on - AS_GOOD_AS))
      return say`${words.moment(one.on)}: ${words.station(one.station)} runs but should not.`;
    if (!other) continue;
    if (!one || one.station !== other.station || one.on > other.on + AS_GOOD_AS)
      return say`${words.moment(other.on)}: ${words.station(other.station)} should start but does not.`;
    const [length, wanted] = [one.off - one.on, other.off - other.on];
    if (Math.abs(length - wanted) >= 60)
      return say`${words.moment(one.on)}: ${words.station(one.station)} runs ${lengthWords(length)} instead of ${lengthWords(wanted)}.`;
  }
  return null;
}

interface Words {
  readonly moment: (at: ClockSecond) => string;
  readonly station: (number: number) => string;
}

/** Whether a moment is within the hours and weekdays of a need. */
function isMeant({ weekdays, from, to }: Extract<Need, { need: 'dry' }>, at: ClockSecond): boolean {
  const day = Math.floor(at / SECONDS_PER_DAY);
  const second = at - day * SECONDS_PER_DAY;
  const weekday = WEEKDAYS[weekdayIndexOf(day)];
  if (weekdays && !(weekday && weekdays.includes(weekday))) return false;
  const [begin, end] = [
    parseTime(from ?? '00:00') ?? 0,
    to === undefined ? SECONDS_PER_DAY : (parseTime(to) ?? 0),
  ];
  return begin < end ? second >= begin && second < end : second >= begin || second < end;
}

function lacksOf(
  task: Task,
  need: Need,
  bench: LiveBench,
  answer: TaskFault | null,
  words: Words,
): string | null {
  const { now, plan } = bench;
  switch (need.need) {
    case 'waters-like': {
      const seconds = need.days * SECONDS_PER_DAY;
      const should = planWith(task, assertDefined(need.box ?? task.card, 'need.box ?? task.card'));
      return difference(comingRuns(bench, seconds), runsOfPlan(should, now, seconds), words);
    }
    case 'clear': {
      const { verdict, overlaps } = verdictOf(plan, Math.floor(now / SECONDS_PER_DAY));
      return verdict === 'clear'
        ? null
        : overlaps.length > 0
          ? say`Two cycles still overlap.`
          : say`A program is not complete, or nothing waters.`;
    }
    case 'clock': {
      const off = bench.clock === null ? null : Math.abs(bench.clock - now);
      if (off === null) return say`The timer has no power.`;
      return off <= need.within ? null : say`The clock is off by ${lengthWords(off)}.`;
    }
    case 'dry': {
      const wet = comingRuns(bench, need.days * SECONDS_PER_DAY).find(
        ({ on, off }) => isMeant(need, on) || isMeant(need, off - 1),
      );
      return wet
        ? say`${words.moment(wet.on)}: ${words.station(wet.station)} runs but must not.`
        : null;
    }
    case 'weekly': {
      const seconds = comingRuns(bench, SECONDS_PER_WEEK)
        .filter(({ station }) => station === need.station)
        .reduce((sum, { on, off }) => sum + off - on, 0);
      if (seconds >= need.least && seconds <= need.most) return null;
      const wanted =
        need.least === need.most
          ? lengthWords(need.least)
          : say`${lengthWords(need.least)} to ${lengthWords(need.most)}`;
      return seconds === 0
        ? say`${words.station(need.station)} gets no water. It should get ${wanted} a week.`
        : say`${words.station(need.station)} gets ${lengthWords(seconds)} a week. It should get ${wanted}.`;
    }
    case 'answer':
      return answer === need.fault ? null : say`That was not the fault.`;
  }
}

/**
 * Which parts of a task are met.
 *
 * @param answer the apprentice's diagnosis; null: none given
 */
export function needsMet(
  task: Task,
  bench: LiveBench,
  answer: TaskFault | null,
  speech: Omit<Speech, 'on'>,
): NeedMet[] {
  const on = Math.floor(bench.now / SECONDS_PER_DAY);
  const words: Words = {
    moment: (at) => momentWords(Math.floor(at / 60) * 60, { ...speech, on }),
    station: (number) => {
      const said = stationOrSomething(number, bench.plan);
      return `${said.charAt(0).toUpperCase()}${said.slice(1)}`;
    },
  };
  return task.needs.map((need) => {
    const lacks = lacksOf(task, need, bench, answer, words);
    return { need, isMet: lacks === null, lacks };
  });
}

export interface Score {
  /** 0 to 100; 0 if something is missing. */
  readonly points: number;
  readonly presses: number;
  readonly usual: number;
  readonly seconds: number;
  readonly hints: number;
}

const POINTS_A_HINT = 10;
/** Points deducted for a wrong answer. */
const POINTS_A_TRY = 10;
const POINTS_FOR_FEW_PRESSES = 30;
const POINTS_FOR_TIME = 10;
/** Seconds for someone who knows the way: to think, and for each press. */
const TIME_TO_THINK = 60;
const TIME_A_PRESS = 2;

/** Score from result, presses, time, hints and failed tries. */
export function scoreOf(
  task: Task,
  met: readonly NeedMet[],
  log: readonly LoggedAct[],
  { hints, tries, seconds }: { hints: number; tries: number; seconds: number },
): Score {
  const presses = log.filter((act) => 'key' in act).length;
  const usual = task.solution.keys.reduce((sum, { times }) => sum + times, 0);
  const isDone = met.every(({ isMet }) => isMet);
  /** 1: no more than par; 0: three times as much. */
  const share = (is: number, should: number) =>
    Math.max(0, Math.min(1, (3 - is / Math.max(1, should)) / 2));
  const points =
    100 -
    POINTS_FOR_FEW_PRESSES * (1 - share(presses, usual)) -
    POINTS_FOR_TIME * (1 - share(seconds, TIME_TO_THINK + usual * TIME_A_PRESS)) -
    POINTS_A_HINT * hints -
    POINTS_A_TRY * tries;
  return { points: isDone ? Math.max(10, Math.round(points)) : 0, presses, usual, seconds, hints };
}

/** The bench of a task after a number of log entries, replayed. */
export function benchAfter(
  task: Task,
  log: readonly LoggedAct[],
  count: number,
  style: BenchStart['style'],
): LiveBench {
  const bench = benchOf(task, style);
  for (const { at, ...act } of log.slice(0, count)) {
    bench.advance(Math.max(bench.now, at));
    bench.act(act);
  }
  return bench;
}

/**
 * The action after which it went wrong: the last one that broke something that held before.
 *
 * @returns its index in the log; null: nothing that held was lost
 */
export function wentWrongAt(
  task: Task,
  log: readonly LoggedAct[],
  style: BenchStart['style'],
): number | null {
  const bench = benchOf(task, style);
  const count = () =>
    needsMet(task, bench, null, { clock: style.clock }).filter(({ isMet }) => isMet).length;
  let before = count();
  let wrong: number | null = null;
  log.forEach(({ at, ...act }, i) => {
    bench.advance(Math.max(bench.now, at));
    bench.act(act);
    const next = log[i + 1];
    // Only once a page is left: before that its value is still changing.
    if (next && 'key' in act && 'key' in next && next.key === act.key) return;
    const now = count();
    if (now < before) wrong = i;
    before = now;
  });
  return wrong;
}

/** Presses a solution's keys on the bench of a task, one a second. */
export function pressAll(bench: LiveBench, keys: readonly Pressed[]): void {
  for (const { times, ...key } of keys)
    for (let n = 0; n < times; n++) {
      bench.act(key);
      bench.advance(bench.now + 1);
    }
}
