/** Fixes, one finding at a time, on gardens as technicians leave them and on random plans. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChange, check, fixOf, type Brief, type Finding, type Plan } from '@water-clock/core';
import type { FindingCode } from '../src/judge/finding.ts';
import { cases } from './cases.ts';
import { gardenFrom, randomFrom } from './faultyTimers.ts';
import { anyPlan } from './randomPlans.ts';

const ON = 20_800;
const keyOf = ({ code, where: { date: _date, ...where } }: Finding) =>
  `${code} ${JSON.stringify(where)}`;
const findingsOf = (plan: Plan, brief: Brief | null) => check(plan, ON, { brief }).findings;

/** A brief that asks of each station what it gets, but for some that want more or less. */
function briefFor(plan: Plan, seed: number): Brief {
  return {
    format: 'water-clock-brief',
    version: 1,
    timer: plan.timer,
    stations: plan.stations.map(({ number }, i) => ({
      number,
      weeklySeconds: 900 * (1 + ((seed + i) % 4)),
      ...(i % 2 === 0 ? { cycleSeconds: 300, soakSeconds: 1200 } : {}),
    })),
    mowing: { weekdays: ['fri'] },
    rules: { weekdays: ['mon', 'tue', 'wed', 'thu', 'sat'] },
  };
}

/** Presses each fix by itself and looks at what comes of it. */
function pressAll(plan: Plan, brief: Brief | null, pressed: Map<FindingCode, number>): void {
  const findings = findingsOf(plan, brief);
  const errors = new Set(findings.filter(({ severity }) => severity === 'error').map(keyOf));
  for (const finding of findings) {
    const fix = fixOf(plan, finding, ON, brief);
    if (!fix) continue;
    const made = applyChange(plan, fix.change);
    if (!made.ok) throw new Error(`${finding.code}: ${JSON.stringify(made.faults)}`);
    const after = findingsOf(made.value.plan, brief);
    // One press is one step, and takes away what it stands beside; of days that are forbidden, the one that is named.
    const isDay = finding.code === 'forbidden-day' || finding.code === 'mowing-day';
    const isStill = after.some(
      (other) =>
        keyOf(other) === keyOf(finding) && (!isDay || other.where.date === finding.where.date),
    );
    expect([finding.code, isStill]).toEqual([finding.code, false]);
    if (finding.code === 'afternoon-start' || finding.code === 'overlap')
      for (const other of after)
        if (other.code === 'overlap') expect(errors).toContain(keyOf(other));
    const back = applyChange(made.value.plan, made.value.inverse);
    expect(back.ok && back.value.plan.programs).toEqual(plan.programs);
    pressed.set(finding.code, (pressed.get(finding.code) ?? 0) + 1);
  }
}

describe('a fix takes its finding away, and undo brings all back', () => {
  test('in gardens', () => {
    const pressed = new Map<FindingCode, number>();
    for (let seed = 1; seed <= cases(30); seed++) {
      const { plan } = gardenFrom(randomFrom(seed));
      const stations = plan.stations.map((station, i) => ({
        ...station,
        ...(i % 3 === 0 ? { needsPump: true, pump: false } : {}),
        ...(i % 4 === 1 ? { enabled: false } : {}),
        ...(i % 5 === 2 ? { underCover: true } : {}),
      }));
      const programs = plan.programs.map((program, i) => ({
        ...program,
        starts: i === 0 ? [...program.starts, '14:10', '14:10'].sort() : program.starts,
        ...(seed % 3 === 0 && i === 0 ? { days: { rule: 'odd' as const } } : {}),
      }));
      const settings = {
        ...plan.settings,
        ...(seed % 4 === 0 ? { mode: 'off' as const } : {}),
        ...(seed % 4 === 1 ? { sensor: 'bypass' as const } : {}),
        ...(seed % 4 === 2 ? { wateringResumes: '2027-01-01' } : {}),
      };
      pressAll({ ...plan, settings, stations, programs }, briefFor(plan, seed), pressed);
    }
    for (const code of [
      'same-start-twice',
      'pump-off',
      'disabled-station',
      'under-cover-obeys-sensor',
      'sensor-bypassed',
      'timer-off',
    ] as const)
      expect([code, (pressed.get(code) ?? 0) > 0]).toEqual([code, true]);
  });

  test('in random plans', () => {
    const pressed = new Map<FindingCode, number>();
    fc.assert(
      fc.property(anyPlan, (plan) => pressAll(plan, null, pressed)),
      { seed: 1401, numRuns: cases(40) },
    );
    expect(pressed.get('overlap') ?? 0).toBeGreaterThan(cases(5));
  });
});

test('what only a person can decide has no fix', () => {
  const { plan } = gardenFrom(randomFrom(5));
  const withoutDays = {
    ...plan,
    programs: plan.programs.map((program) => ({ ...program, days: null })),
  };
  const codes = findingsOf(withoutDays, null).filter(({ code }) => code === 'missing-days');
  expect(codes.length).toBeGreaterThan(0);
  for (const finding of codes) expect(fixOf(withoutDays, finding, ON, null)).toBeNull();
});
