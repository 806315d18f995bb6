/** Practice: every shipped task can be solved, and is not solved by doing nothing; faults of a task are reported by path. */
import { describe, expect, test } from '@jest/globals';
import {
  benchOf,
  faultLine,
  MOST_LEVEL,
  needsMet,
  pressAll,
  randomTask,
  readTask,
  SHIPPED_TASKS,
  scoreOf,
  TASK_FAULTS,
  wentWrongAt,
  type Task,
} from '@water-clock/core';
import { cases, isLong } from './cases.ts';

const STYLE = { clock: '12' } as const;
const taskOf = (id: string): Task => {
  const found = SHIPPED_TASKS.find((one) => one.id === id);
  if (!found) throw new Error(`no task ${id}`);
  return found.task;
};
const lacking = (
  task: Task,
  bench: ReturnType<typeof benchOf>,
  answer: Task['solution']['answer'],
) => needsMet(task, bench, answer ?? null, STYLE).flatMap(({ lacks }) => lacks ?? []);

describe.each(SHIPPED_TASKS.map(({ id, task }) => [id, task] as const))('%s', (_, task) => {
  test('is solved by its stored solution', () => {
    const bench = benchOf(task, STYLE);
    pressAll(bench, task.solution.keys);
    expect(lacking(task, bench, task.solution.answer)).toEqual([]);
    const met = needsMet(task, bench, task.solution.answer ?? null, STYLE);
    const quick = { hints: 0, tries: 0, seconds: 30 };
    expect(scoreOf(task, met, bench.log, quick).points).toBe(100);
    const slow = { hints: 2, tries: 1, seconds: 30 };
    expect(scoreOf(task, met, bench.log, slow).points).toBe(70);
  });

  test('is not done by doing nothing, nor by a guess', () => {
    const bench = benchOf(task, STYLE);
    expect(lacking(task, bench, undefined).length).toBeGreaterThan(0);
    for (const fault of TASK_FAULTS)
      if (fault !== task.solution.answer)
        expect(lacking(task, bench, fault).length).toBeGreaterThan(0);
    const nothing = needsMet(task, bench, null, STYLE);
    const score = scoreOf(task, nothing, bench.log, { hints: 0, tries: 0, seconds: 1 });
    expect(score.points).toBe(0);
  });
});

test('there are twelve tasks to set a box and eight faults to find, and all faults are among them', () => {
  const ids = SHIPPED_TASKS.map(({ id }) => id);
  expect(ids.filter((id) => id.startsWith('set')).length).toBeGreaterThanOrEqual(12);
  const found = SHIPPED_TASKS.flatMap(({ task }) => task.solution.answer ?? []);
  expect([...new Set(found)].sort()).toEqual([...TASK_FAULTS].sort());
});

test('random tasks of each level can be solved, are not done by doing nothing, and are the same from the same seed', () => {
  const seen = new Set<string>();
  for (let level = 1; level <= MOST_LEVEL; level++)
    for (let seed = 1; seed <= cases(8); seed++) {
      const task = randomTask(seed, level);
      const { answer, keys } = task.solution;
      expect(readTask(JSON.parse(JSON.stringify(task)))).toEqual({ ok: true, value: task });
      expect(randomTask(seed, level)).toEqual(task);
      const bench = benchOf(task, STYLE);
      expect([level, seed, lacking(task, bench, undefined).length > 0]).toEqual([
        level,
        seed,
        true,
      ]);
      pressAll(bench, keys);
      expect([level, seed, lacking(task, bench, answer)]).toEqual([level, seed, []]);
      seen.add(answer ?? 'set');
    }
  expect(seen.size).toBeGreaterThan(isLong ? 4 : 2);
});

test('what is lacking is said of what the box does', () => {
  const task = taskOf('set-02-start');
  const bench = benchOf(task, STYLE);
  expect(lacking(task, bench, undefined)).toEqual([
    'Thu 3 June, 5:00 am: Lawn (station 1) should start but does not.',
  ]);
  // Switched off, it waters nothing, whatever is set.
  pressAll(bench, [...task.solution.keys, { key: 'rest', times: 1 }]);
  expect(lacking(task, bench, undefined)).toHaveLength(1);
  // A quarter of an hour late is not as good.
  const late = benchOf(task, STYLE);
  pressAll(late, [...task.solution.keys, { key: 'more', times: 1 }]);
  expect(lacking(task, late, undefined)).toEqual([
    'Thu 3 June, 5:00 am: Lawn (station 1) should start but does not.',
  ]);
});

test('the press is found after which it went wrong', () => {
  const task = taskOf('set-02-start');
  const bench = benchOf(task, STYLE);
  pressAll(bench, task.solution.keys);
  const right = bench.log.length;
  pressAll(bench, [
    { key: 'page-on', times: 2 },
    { key: 'rest', times: 1 },
    { key: 'page-on', times: 3 },
  ]);
  expect(wentWrongAt(task, bench.log, STYLE)).toBe(right + 2);
  expect(wentWrongAt(task, bench.log.slice(0, right), STYLE)).toBeNull();
});

test('a broken task is refused by path', () => {
  const task = JSON.parse(JSON.stringify(taskOf('find-06-rain-delay'))) as {
    scene: { before: object[] };
  } & Record<string, unknown>;
  const lines = (broken: unknown) => {
    const read = readTask(broken);
    return read.ok ? [] : read.faults.map((fault) => faultLine(fault).split(':')[0]);
  };
  expect(lines(task)).toEqual([]);
  expect(lines({ ...task, level: 9 })).toEqual(['level']);
  expect(lines({ ...task, needs: [] })).toEqual(['needs']);
  expect(lines({ ...task, needs: [{ need: 'wish' }] })).toEqual(['needs[0].need']);
  expect(lines({ ...task, hints: ['one'] })).toEqual(['hints']);
  expect(lines({ ...task, needs: [{ need: 'weekly', station: 1, least: 9, most: 3 }] })).toEqual([
    'needs[0].most',
  ]);
  // Without a card it must say how to water; and what the timer cannot hold is refused by path.
  expect(lines({ ...task, needs: [{ need: 'waters-like', days: 3 }] })).toEqual(['needs[0].box']);
  const run = { station: 9, seconds: 60 };
  const program = { letter: 'A', starts: [], runs: [run], days: null };
  const card = { settings: {}, stations: [{ number: 1 }], programs: [program] };
  expect(lines({ ...task, card })).toEqual(['card.programs[0].runs[0].station']);
  const late = [{ at: '2028-01-01T00:00:00', do: 'wet' }];
  expect(lines({ ...task, scene: { ...task.scene, before: late } })).toEqual(['scene.at']);
  expect(
    lines({ ...task, scene: { ...task.scene, plan: { format: 'water-clock-plan', version: 1 } } }),
  ).toEqual([
    'scene.plan.timer',
    'scene.plan.settings',
    'scene.plan.stations',
    'scene.plan.programs',
  ]);
  expect(lines({ ...task, solution: { keys: [{ key: 'dial', times: 1 }] } })).toEqual([
    'solution.keys[0].key',
  ]);
});
