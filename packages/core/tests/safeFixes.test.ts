/** All safe fixes with one press. */
import { expect, test } from '@jest/globals';
import { applyChange, check, meanWeeklySeconds, safeFixes, type Plan } from '@water-clock/core';
import { gardenFrom, randomFrom, TODAY } from './faultyTimers.ts';
const { plan } = gardenFrom(randomFrom(11));

test('safe fixes leave every station its water, and bring nothing that was not there', () => {
  let pressed = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const garden = gardenFrom(randomFrom(seed));
    // Overlapping programs, a start in the afternoon, a forgotten pump.
    const plan: Plan = {
      ...garden.plan,
      stations: garden.plan.stations.map((station, i) =>
        i % 3 === 0 ? { ...station, needsPump: true, pump: false } : station,
      ),
      programs: garden.plan.programs.map((program, i) => ({
        ...program,
        starts: seed % 2 === 0 ? ['05:00'] : i === 0 ? ['14:00'] : program.starts,
      })),
    };
    const { change, fixed } = safeFixes(plan, TODAY, null);
    if (!change) continue;
    pressed += fixed.length;
    const made = applyChange(plan, change);
    if (!made.ok) throw new Error(JSON.stringify(made.faults));
    const serious = (each: Plan) =>
      check(each, TODAY).findings.filter(({ severity }) => severity !== 'note');
    const keys = (each: Plan) =>
      new Set(
        serious(each).map(
          ({ code, where: { date: _d, ...where } }) => code + JSON.stringify(where),
        ),
      );
    const before = keys(plan);
    for (const key of keys(made.value.plan)) expect(before).toContain(key);
    expect(serious(made.value.plan).length).toBeLessThanOrEqual(
      serious(plan).length - fixed.length,
    );
    expect(meanWeeklySeconds(made.value.plan)).toEqual(meanWeeklySeconds(plan));
  }
  expect(pressed).toBeGreaterThan(30);
});

test('a start that is left over in the afternoon is not moved to where it does no harm', () => {
  const [a] = plan.programs;
  if (!a) throw new Error('no program');
  const one: Plan = {
    ...plan,
    programs: [{ ...a, starts: ['04:00', '15:00'], days: { rule: 'daily' } }],
  };
  const brief = {
    format: 'water-clock-brief' as const,
    version: 1 as const,
    timer: one.timer,
    stations: [],
    wish: { starts: 'one' as const },
  };
  const codes = check(one, TODAY, { brief }).findings.map(({ code }) => code);
  expect(codes).toEqual(expect.arrayContaining(['leftover-start', 'afternoon-start']));
  const { change, fixed } = safeFixes(one, TODAY, brief);
  expect(fixed.filter(({ finding }) => finding.code === 'afternoon-start')).toEqual([]);
  expect(JSON.stringify(change) ?? '').not.toContain('set-starts');
});
