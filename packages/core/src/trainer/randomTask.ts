/** Endless practice tasks from a seed: five levels, a timer to set or a fault to find. The same seed gives the same task. */
import { ProgramCycles } from '../engine/nominal.ts';
import { Effort } from '../engine/effort.ts';
import { assertDefined } from '../document/assertDefined.ts';
import { emptyPlan, SHIPPED_KINDS } from '../plan/shippedKinds.ts';
import type { TimerKind } from '../plan/kind.ts';
import { letterAt, type Plan, type Program, type Station } from '../plan/plan.ts';
import { formatTime, WEEKDAYS, type Weekday } from '../time/calendar.ts';
import type { Days } from '../time/dayRules.ts';
import { boxOf, solutionOf } from './makeTask.ts';
import { TASK_FORMAT, TASK_VERSION, type Need, type Task, type TaskFault } from './task.ts';
import { say, wordsOf } from '../language/say.ts';

/** Pseudo-random numbers from 0 to 1: a linear congruence with mixed bits (mulberry32). */
function randomOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

class Chance {
  private readonly next: () => number;

  constructor(seed: number) {
    this.next = randomOf(seed);
  }

  /** An integer, both ends inclusive. */
  whole(least: number, most: number): number {
    return least + Math.floor(this.next() * (most - least + 1));
  }

  one<T>(all: readonly T[]): T {
    return assertDefined(all[this.whole(0, all.length - 1)], 'all[whole(0, all.length - 1)]');
  }

  some<T>(all: readonly T[], count: number): T[] {
    const left = [...all];
    const chosen = Array.from({ length: count }, () =>
      left.splice(this.whole(0, left.length - 1), 1),
    );
    return all.filter((one) => chosen.flat().includes(one));
  }
}

interface Level {
  readonly kinds: readonly string[];
  readonly stations: number;
  readonly programs: number;
  readonly faults: readonly TaskFault[];
}

const SIMPLE = ['Four-station wall timer', 'Eight-station wall timer'];
const LEVELS: readonly Level[] = [
  { kinds: SIMPLE, stations: 2, programs: 1, faults: [] },
  { kinds: SIMPLE, stations: 4, programs: 1, faults: ['clock-half-a-day', 'dead-station'] },
  {
    kinds: ['Eight-station wall timer'],
    stations: 6,
    programs: 2,
    faults: ['start-left-over', 'half-set', 'rain-delay-forgotten'],
  },
  {
    kinds: [
      'Six-station keypad timer',
      'Nine-station wall timer with dry hours',
      'Twelve-station modular timer',
    ],
    stations: 6,
    programs: 2,
    faults: ['start-left-over', 'half-set', 'percent-while-keying'],
  },
  {
    kinds: ['Twenty-four-station two-wire timer'],
    stations: 12,
    programs: 4,
    faults: ['half-set', 'start-left-over', 'percent-while-keying'],
  },
];
export const MOST_LEVEL = LEVELS.length;

const namesOfBeds = () => [
  ...[say`Front lawn`, say`Back lawn`, say`Side strip`, say`Roses`, say`Hedge`, say`Shrubs`],
  ...[say`Vegetables`, say`Pots`, say`Slope`, say`Verge`, say`Herbs`, say`Fruit`],
];
const AT = '2027-06-02T10:00:00';
const TOMORROW = 3;
const EARLIEST = 2 * 3600;
const AFTERNOON = 15 * 3600;
const QUARTER = 900;

const FAULT_SAYS: Readonly<Partial<Record<TaskFault, string>>> = wordsOf({
  'clock-half-a-day':
    'It waters in the afternoon, but I set it for the night. The card is what we agreed.',
  'dead-station': 'One bed stays dry. All the others get water. The settings match the card.',
  'start-left-over': 'It waters an extra time in the middle of the day. It should match the card.',
  'half-set': 'Part of the garden no longer gets any water. It should match the card.',
  'rain-delay-forgotten': 'Nothing has run for days, but the settings match the card.',
  'percent-while-keying': 'Everything runs half as long as the card says.',
});

function daysOf(chance: Chance, level: number): Days {
  if (level === 1) return { rule: 'daily' };
  if (level >= 3 && chance.whole(0, 2) === 0)
    return {
      rule: 'interval',
      everyDays: chance.whole(2, 4),
      firstDate: `2027-06-0${TOMORROW + chance.whole(0, 1)}`,
    };
  const weekdays: Weekday[] = chance.some(WEEKDAYS, chance.whole(1, 3));
  return { rule: 'weekdays', weekdays };
}

/** A plan without overlaps that this kind can hold: one program after another. */
function targetOf(chance: Chance, { timer }: TimerKind, level: number): Plan {
  const { stations: count, programs: most } = assertDefined(LEVELS[level - 1], 'LEVELS[level - 1]');
  const empty = emptyPlan(timer);
  const names = namesOfBeds();
  const stations: Station[] = empty.stations.slice(0, count).map(({ number }) => ({
    number,
    name: assertDefined(names[(number - 1) % names.length], 'names[(number - 1) % names.length]'),
    ...(level >= 4 && timer.cycleSoak === 'station' && number === 1
      ? { cycleSeconds: 300, soakSeconds: 1200 }
      : {}),
  }));
  const programCount = Math.min(most, timer.programCount);
  let at = EARLIEST + chance.whole(0, 4) * QUARTER;
  const programs = Array.from({ length: programCount }, (_, i): Program => {
    const own = stations.filter(({ number }) => number % programCount === i % programCount);
    const program: Program = {
      letter: letterAt(i),
      starts: [formatTime(at)],
      runs: own.map(({ number }) => ({ station: number, seconds: chance.whole(4, 15) * 60 })),
      days: daysOf(chance, level),
    };
    const plan = { ...empty, stations, programs: [program] };
    const seconds = new ProgramCycles(plan, program, new Effort()).lengthAt(100);
    at = Math.ceil((at + seconds + QUARTER) / QUARTER) * QUARTER;
    return program;
  });
  return { ...empty, stations, programs };
}

/** The scene's fault; the target is the correct state. */
function sceneWith(fault: TaskFault | null, target: Plan, chance: Chance): Partial<Task['scene']> {
  const change = (index: number, more: Partial<Program>): Plan => ({
    ...target,
    programs: target.programs.map((program, i) =>
      i === index ? { ...program, ...more } : program,
    ),
  });
  const last = target.programs.length - 1;
  switch (fault) {
    case 'clock-half-a-day':
      return { plan: target, clockAheadSeconds: 43_200 };
    case 'dead-station':
      return { plan: target, dead: [chance.one(target.stations).number] };
    case 'start-left-over': {
      const [program] = target.programs;
      const extra = formatTime(AFTERNOON + chance.whole(0, 8) * QUARTER);
      return { plan: change(0, { starts: [...assertDefined(program, 'program').starts, extra] }) };
    }
    case 'half-set':
      return { plan: change(last, { days: null }) };
    case 'rain-delay-forgotten':
      return { plan: target, before: [{ at: '2027-05-31T18:00:00', do: 'rainDelay', hours: 120 }] };
    case 'percent-while-keying':
      return target.timer.seasonal.scope === 'program'
        ? {
            plan: {
              ...target,
              programs: target.programs.map((one) => ({ ...one, seasonalPercent: 50 })),
            },
          }
        : { plan: { ...target, settings: { ...target.settings, seasonalPercent: 50 } } };
    default:
      // Stations keep their names, which are not set at the timer.
      return {
        plan: {
          ...emptyPlan(target.timer),
          stations: target.stations.map(({ number, name = '' }) => ({ number, name })),
        },
      };
  }
}

/**
 * A task from a seed.
 *
 * @param level 1 to `MOST_LEVEL`
 */
export function randomTask(seed: number, level: number): Task {
  const chance = new Chance(seed * 31 + level);
  const { kinds, faults } = assertDefined(LEVELS[level - 1], 'LEVELS[level - 1]');
  const name = chance.one(kinds);
  const kind = assertDefined(
    SHIPPED_KINDS.find((one) => one.kind.timer.name === name),
    'find',
  ).kind;
  const target = targetOf(chance, kind, level);
  const fault = faults.length > 0 && chance.whole(0, 1) === 0 ? chance.one(faults) : null;
  const answers: readonly Need[] = fault ? [{ need: 'answer', fault }] : [];
  const { hidden, rainDelay } = kind;
  const task: Task = {
    ...{ format: TASK_FORMAT, version: TASK_VERSION, level },
    title: fault ? say`Something is wrong with this timer` : say`Key in the card`,
    says: (fault && FAULT_SAYS[fault]) ?? say`A new timer and a card from the office.`,
    scene: {
      plan: target,
      at: AT,
      ...(hidden ? { hidden } : {}),
      ...(rainDelay ? { rainDelay } : {}),
      ...sceneWith(fault, target, chance),
    },
    card: boxOf(target),
    ...(fault === 'dead-station' ? { hasWorld: true } : {}),
    needs: [
      ...answers,
      // A dead station stays dead until repaired.
      ...(fault === 'dead-station' ? [] : [{ need: 'waters-like' as const, days: 9 }]),
      { need: 'clock', within: 90 },
    ],
    hints: [
      fault
        ? say`Compare the timer with the card, page by page.`
        : say`Work page by page, as on the card.`,
      say`Lines not ticked on the card are not in the timer yet.`,
      say`Check the clock, the watering days of each program and what the clock page says.`,
    ],
    solution: { keys: [], ...(fault ? { answer: fault } : {}) },
  };
  return { ...task, solution: { ...task.solution, keys: solutionOf(task, target) } };
}
