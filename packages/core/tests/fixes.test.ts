/** Fixes, one finding at a time, on realistic gardens and random plans. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyChange,
  check,
  emptyPlan,
  fixOf,
  formatDate,
  TIMER_KINDS,
  WEEKDAYS,
  type Brief,
  type Days,
  type Finding,
  type Plan,
  type Program,
} from '@water-clock/core';
import type { FindingCode } from '../src/findings/finding.ts';
import { cases, enough } from './cases.ts';
import { gardenFrom, randomFrom } from './faultyTimers.ts';
import { anyPlan } from './randomPlans.ts';

const ON = 20_800;
const keyOf = ({ code, where: { date: _date, ...where } }: Finding) =>
  `${code} ${JSON.stringify(where)}`;
const findingsOf = (plan: Plan, brief: Brief | null) => check(plan, ON, { brief }).findings;

/** A brief that asks for what each station gets, except some that want more or less. */
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

/** Applies each fix alone and examines the result. */
function pressAll(plan: Plan, brief: Brief | null, pressed: Map<FindingCode, number>): void {
  const findings = findingsOf(plan, brief);
  const errors = new Set(findings.filter(({ severity }) => severity === 'error').map(keyOf));
  for (const finding of findings) {
    const fix = fixOf(plan, finding, ON, brief);
    if (!fix) continue;
    const made = applyChange(plan, fix.change);
    if (!made.ok) throw new Error(`${finding.code}: ${JSON.stringify(made.faults)}`);
    const after = findingsOf(made.value.plan, brief);
    // One press is one step, and removes its finding; of several forbidden days, the named one.
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
    expect(pressed.get('overlap') ?? 0).toBeGreaterThan(enough(5));
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

describe('a fix, one by one', () => {
  const kind = TIMER_KINDS[2];
  if (!kind) throw new Error('no kinds');
  const A: Program = {
    letter: 'A',
    starts: ['14:00'],
    runs: [{ station: 1, seconds: 1200 }],
    days: { rule: 'daily' },
  };
  const plan = (program: Partial<Program> = {}, others: readonly Program[] = []): Plan => ({
    ...emptyPlan({ ...kind, programCount: 3, startsPerProgram: 4, runStepSeconds: 60 }),
    programs: [{ ...A, ...program }, ...others],
  });
  const where = { program: 'A', start: '14:00', station: 1, date: ON };
  const mown = { code: 'mowing-day', severity: 'warning', where } as const;
  const weekday = WEEKDAYS[(ON + 3) % 7];
  if (!weekday) throw new Error('seven days');
  const daysAfter = (days: Days) => {
    const change = fixOf(plan({ days }), mown, ON, null)?.change;
    return change?.type === 'set-days' ? change.days : null;
  };

  test('of a program that has gone meanwhile, there is none; what is about a station or the timer can still be made', () => {
    const { plan: garden } = gardenFrom(randomFrom(5));
    const wrong: Plan = {
      ...garden,
      settings: { ...garden.settings, sensor: 'bypass', mode: 'off' },
      programs: garden.programs.map((program, i) => ({
        ...program,
        starts: ['04:00', '04:00', '04:05', '14:01'],
        days: { rule: i === 0 ? ('odd' as const) : ('daily' as const) },
      })),
    };
    const findings = findingsOf(wrong, briefFor(wrong, 1));
    expect(new Set(findings.map(({ code }) => code)).size).toBeGreaterThan(8);
    const gone: Plan = { ...wrong, programs: [] };
    for (const finding of findings) {
      const fix = fixOf(gone, finding, ON, briefFor(wrong, 1));
      if (finding.where.program !== undefined)
        expect([finding.code, fix]).toEqual([finding.code, null]);
      else if (fix && fix.change.type !== 'several')
        expect([finding.code, applyChange(gone, fix.change).ok]).toEqual([finding.code, true]);
    }
  });

  test('takes a weekday out of any rule, where days are left', () => {
    const rest = WEEKDAYS.filter((day) => day !== weekday);
    expect(daysAfter({ rule: 'daily' })).toEqual({ rule: 'weekdays', weekdays: rest });
    expect(daysAfter({ rule: 'weekdays', weekdays: [weekday] })).toBeNull();
    expect(daysAfter({ rule: 'odd', blockedWeekdays: [weekday] })).toBeNull();
    expect(daysAfter({ rule: 'odd' })).toEqual({ rule: 'odd', blockedWeekdays: [weekday] });
    // Every 14 days is always the same weekday.
    const counted = { rule: 'interval', everyDays: 14 } as const;
    expect(daysAfter({ ...counted, firstDate: formatDate(ON) })).toBeNull();
    expect(daysAfter({ ...counted, firstDate: formatDate(ON + 1) })).toMatchObject({
      blockedWeekdays: [weekday],
    });
    const blocked = rest.slice(0, 5);
    expect(
      daysAfter({
        rule: 'interval',
        everyDays: 3,
        firstDate: formatDate(ON),
        blockedWeekdays: blocked,
      }),
    ).toMatchObject({
      blockedWeekdays: WEEKDAYS.filter((day) => day === weekday || blocked.includes(day)),
    });
  });

  test('moves a start to where the program has none yet', () => {
    const afternoon = { code: 'afternoon-start', severity: 'warning', where } as const;
    const fix = fixOf(plan({ starts: ['14:00'] }), afternoon, ON, null);
    if (fix?.does.what !== 'move-start') throw new Error('no move');
    const again = fixOf(plan({ starts: [fix.does.to, '14:00'] }), afternoon, ON, null);
    expect(again?.does).not.toMatchObject({ to: fix.does.to });
  });

  test('brings what is off the timer onto it: to the nearest step, no longer than it can', () => {
    const fixed = (limit: Extract<Finding, { code: 'not-on-timer' }>['limit'], station?: number) =>
      fixOf(
        plan({ starts: ['14:07', '23:58'] }),
        {
          code: 'not-on-timer',
          severity: 'error',
          limit,
          where: { program: 'A', ...(station === undefined ? {} : { station }) },
        },
        ON,
        null,
      )?.does;
    expect(fixed({ what: 'start-step', given: '14:07', stepMinutes: 15 })).toMatchObject({
      to: '14:00',
    });
    expect(fixed({ what: 'start-step', given: '23:58', stepMinutes: 15 })).toMatchObject({
      to: '00:00',
    });
    expect(fixed({ what: 'run-step', given: 95, stepSeconds: 60 }, 1)).toMatchObject({
      seconds: 120,
    });
    const longest = kind.longestRunSeconds;
    const beyond = { what: 'run-longest', given: longest + 999, mostSeconds: longest } as const;
    expect(fixed(beyond, 1)).toMatchObject({ seconds: longest });
    expect(fixed(beyond)).toBeUndefined();
  });

  test('sets the run to the need only where one program waters the station, at all', () => {
    const little = (of: Plan) =>
      fixOf(
        of,
        {
          code: 'too-little',
          severity: 'warning',
          given: 8400,
          wanted: 16_800,
          where: { station: 1 },
        },
        ON,
        briefFor(of, 1),
      );
    expect(little(plan())?.does).toEqual({ what: 'set-run', seconds: 2400 });
    expect(little(plan({}, [{ ...A, letter: 'B' }]))).toBeNull();
    expect(little(plan({ starts: [] }))).toBeNull();
  });
});
