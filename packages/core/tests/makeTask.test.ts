/** A task made from a garden: it can be solved, is not solved by doing nothing, and is a valid document. */
import { expect, test } from '@jest/globals';
import {
  benchOf,
  emptyPlan,
  needsMet,
  pressAll,
  readTaskText,
  SHIPPED_KINDS,
  taskOfPlan,
  type Plan,
} from '@water-clock/core';
import { gardenFrom, randomFrom } from './faultyTimers.ts';

const STYLE = { clock: '24' } as const;
const WORDS = { title: 'Key in', says: 'A new box.', level: 3, at: '2027-06-15T10:00:00' };
const kindOf = ({ timer }: Plan) =>
  SHIPPED_KINDS.find(({ kind }) => kind.timer.name === timer.name)?.kind ?? null;

test('random gardens of every kind: the stored keys do it, nothing does not, and the document is read back', () => {
  const kinds = new Set<string>();
  for (let seed = 1; seed <= 12; seed++) {
    const { plan } = gardenFrom(randomFrom(seed));
    const task = taskOfPlan(plan, kindOf(plan), WORDS);
    if (!task) throw new Error(`seed ${seed}: no task`);
    kinds.add(plan.timer.name);
    const idle = benchOf(task, STYLE);
    expect(needsMet(task, idle, null, STYLE).every(({ isMet }) => isMet)).toBe(false);
    const done = benchOf(task, STYLE);
    pressAll(done, task.solution.keys);
    expect(needsMet(task, done, null, STYLE).filter(({ isMet }) => !isMet)).toEqual([]);
    expect(readTaskText(JSON.stringify(task))).toEqual({ ok: true, value: task });
  }
  expect(kinds.size).toBeGreaterThan(3);
});

test('what its kind cannot be keyed to is no task', () => {
  const kind = SHIPPED_KINDS.find(({ kind: { timer } }) => timer.seasonal.byMonth)?.kind;
  if (!kind) throw new Error('no kind with a percent by month');
  const empty = emptyPlan(kind.timer);
  // An active rain delay, and a timer that is off, are left out of the card.
  const plan: Plan = {
    ...empty,
    settings: { ...empty.settings, mode: 'off', wateringResumes: '2027-07-01' },
    programs: [
      {
        ...{ letter: 'A', starts: ['05:00'], days: { rule: 'daily' } },
        runs: [{ station: 1, seconds: 600 }],
      },
    ],
  };
  const task = taskOfPlan(plan, kind, WORDS);
  expect(task?.card?.settings.mode).toBeUndefined();
  expect(task?.card?.settings.wateringResumes).toBeUndefined();
  // A run time with seconds on a panel that moves by minutes.
  const odd: Plan = {
    ...plan,
    programs: plan.programs.map((program) => ({
      ...program,
      runs: [{ station: 1, seconds: 600 + 7 }],
    })),
  };
  expect(taskOfPlan(odd, kind, WORDS)).toBeNull();
});
