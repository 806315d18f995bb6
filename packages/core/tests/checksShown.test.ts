/** Findings as shown: grouped, worst first, nothing twice; overlaps that can be accepted; and what safe fixes leave, with reasons. */
import { describe, expect, test } from '@jest/globals';
import {
  applyChange,
  canBeAccepted,
  check,
  emptyPlan,
  epochDayOf,
  findingGroups,
  fixOf,
  fixWords,
  formatTime,
  groupSentence,
  leftSentences,
  overlapFindings,
  parseTime,
  runsSideBySide,
  safeFixes,
  TIMER_KINDS,
  verdictWords,
  withoutRepeats,
  withoutStart,
  type Brief,
  type Finding,
  type Plan,
  type Program,
} from '@water-clock/core';
import { aboutOf } from '../src/findings/accepted.ts';

const ON = epochDayOf({ year: 2027, month: 6, day: 1 });
const SPEECH = { on: ON, clock: '24' } as const;
const kind = TIMER_KINDS.find(({ stationCount }) => stationCount >= 24);
if (!kind) throw new Error('no large kind');
const A: Program = {
  letter: 'A',
  starts: ['04:00'],
  runs: [{ station: 1, seconds: 1200 }],
  days: { rule: 'daily' },
};
const garden = (more: Partial<Plan> = {}): Plan => ({
  ...emptyPlan(kind),
  stations: Array.from({ length: 24 }, (_, i) => ({ number: i + 1 })),
  programs: [A],
  ...more,
});

describe('lines', () => {
  const brief: Brief = {
    format: 'water-clock-brief',
    version: 1,
    timer: kind,
    stations: Array.from({ length: 24 }, (_, i) => ({
      number: i + 1,
      weeklySeconds: 8400,
      days: { least: 2, most: 7 },
    })),
  };

  test('many stations of one code are one line; what follows from it is not said again', () => {
    const { findings } = check(garden(), ON, { brief });
    const repeated = findings.filter(
      ({ code }) => code === 'too-few-days' || code === 'too-little',
    );
    expect(repeated.length).toBeGreaterThan(22);
    expect(withoutRepeats(findings)).toHaveLength(findings.length - repeated.length);
    const lines = findingGroups(findings);
    const none = lines.filter(({ code }) => code === 'station-in-none');
    expect(none.map((line) => groupSentence(line, SPEECH))).toEqual([
      '23 stations (2 to 24) are in no program and never water.',
    ]);
  });

  test('programs outside the hours are named as programs: a finding has only the first station of each', () => {
    const numbers = [1, 9, 17, 25];
    const plan = garden({
      timer: { ...kind, stationCount: 32 },
      stations: Array.from({ length: 32 }, (_, i) => ({ number: i + 1 })),
      programs: ['A', 'B', 'C', 'D'].map((letter, i) => ({
        ...A,
        letter,
        starts: [`${String(10 + 2 * i).padStart(2, '0')}:00`],
        runs: Array.from({ length: 8 }, (_, k) => ({ station: 8 * i + k + 1, seconds: 300 })),
      })),
    });
    const wide = {
      ...brief,
      timer: plan.timer,
      stations: plan.stations.map(({ number }) => ({ number, weeklySeconds: 2100 })),
      wish: { notBefore: '03:00', finishBy: '06:00' },
      rules: { noWaterWindows: [{ from: '09:00', to: '18:00' }] },
    };
    const { findings } = check(plan, ON, { brief: wide });
    const late = findings.filter(({ code }) => code === 'late-finish');
    expect(late.map(({ where }) => where.station)).toEqual(numbers);
    const said = findingGroups(findings).map((line) => groupSentence(line, SPEECH));
    expect(said).toContain('Programs A, B, C and D water outside the preferred hours.');
    expect(said).toContain('Programs A, B, C and D water at an hour the rules do not allow.');
    expect(said.join(' ')).not.toMatch(/4 stations/);
    const twice = { ...plan, programs: [{ ...A, starts: ['10:00', '14:00'] }] };
    const again = findingGroups(check(twice, ON, { brief: wide }).findings);
    expect(again.map((line) => groupSentence(line, SPEECH))).toContain(
      'A waters outside the preferred hours, with 2 start times.',
    );
  });

  test('the worst stands first, and no finding is lost', () => {
    const warning = { severity: 'warning' } as const;
    const found: Finding[] = [
      { severity: 'note', code: 'past-midnight', where: { program: 'A', date: ON } },
      { ...warning, code: 'too-much', given: 2, wanted: 1, where: { station: 3 } },
      { ...warning, code: 'afternoon-start', where: { program: 'A', start: '13:00' } },
      { ...warning, code: 'station-in-none', where: { station: 2 } },
      { ...warning, code: 'too-much', given: 2, wanted: 1, where: { station: 1 } },
      { severity: 'error', code: 'forbidden-day', where: { program: 'A', station: 1, date: ON } },
      { severity: 'error', code: 'missing-days', where: { program: 'B' } },
    ];
    const lines = findingGroups(found);
    expect(lines.map(({ code, findings }) => `${code} ${findings.length}`)).toEqual([
      'forbidden-day 1',
      'missing-days 1',
      'station-in-none 1',
      'too-much 2',
      'afternoon-start 1',
      'past-midnight 1',
    ]);
    expect(lines.flatMap(({ findings }) => findings)).toHaveLength(found.length);
  });
});

describe('side by side within one limit', () => {
  const B: Program = { ...A, letter: 'B', starts: ['04:10'], runs: [{ station: 2, seconds: 900 }] };
  const C: Program = { ...A, letter: 'C', starts: ['04:12'], runs: [{ station: 3, seconds: 900 }] };
  const shared = garden({
    timer: { ...kind, onOverlap: 'share', stationsAtOnce: 2 },
    programs: [A, { ...B, starts: ['04:10', '04:15'] }, C],
  });
  const { overlaps } = check(shared, ON);
  const accept = (findings: readonly Finding[], plan = shared) =>
    findings.map((finding) => ({
      code: finding.code,
      about: aboutOf(finding, plan, null),
      reason: 'two valves at once are enough for this supply',
    }));

  test('each two programs can be accepted, and all together they are no alarm', () => {
    const findings = overlapFindings(shared, overlaps);
    expect(findings.map((one) => one.code === 'overlap' && one.overlap.second.letter)).toHaveLength(
      new Set(overlaps.map(({ first, second }) => [first.letter, second.letter].sort().join('')))
        .size,
    );
    expect(findings.every(canBeAccepted)).toBe(true);
    expect(runsSideBySide(shared, overlaps, accept(findings), ON)).toBe(true);
    expect(runsSideBySide(shared, overlaps, accept(findings.slice(1)), ON)).toBe(false);
    const proven = check(shared, ON);
    const said = verdictWords(proven, 'share', SPEECH, { sideBySide: true });
    expect(said).toMatchObject({
      tone: 'clear',
      headline: 'Programs run side by side, as accepted',
    });
    // Another start of either ends it; so does another limit.
    const later = { ...shared, programs: [A, B, C] };
    const again = check(later, ON).overlaps;
    expect(runsSideBySide(later, again, accept(findings), ON)).toBe(false);
    const wider = { ...shared, settings: { stationsAtOnce: 1 } };
    expect(runsSideBySide(wider, check(wider, ON).overlaps, accept(findings), ON)).toBe(false);
  });

  test('on a timer that has no such limit an overlap cannot be accepted away', () => {
    const queued = { ...shared, timer: { ...shared.timer, onOverlap: 'queue' as const } };
    const findings = overlapFindings(queued, overlaps);
    expect(findings).toHaveLength(1);
    expect(findings.some(canBeAccepted)).toBe(false);
    expect(runsSideBySide(queued, overlaps, accept(findings, queued), ON)).toBe(false);
  });
});

describe('fixes', () => {
  test('where nothing is safe, why; where something is, what is left', () => {
    const twice = garden({ programs: [A, { ...A, letter: 'B', starts: ['13:00'] }] });
    const made = safeFixes(twice, ON, null);
    expect(made.change).not.toBeNull();
    const left = leftSentences(made);
    expect(left.length).toBeGreaterThan(0);
    expect(left.join(' ')).toMatch(/\d+ findings? (needs?|have?s?) /);
    expect(
      leftSentences({ change: null, fixed: [], left: { decision: 1, 'no-fix': 2, harm: 0 } }),
    ).toEqual([
      '1 finding needs your decision, because a fix changes how much or on which days it waters.',
      '2 findings have no automatic fix.',
    ]);
  });

  test('a left-over start can be deleted', () => {
    const two = garden({ programs: [{ ...A, starts: ['04:00', '15:10'] }] });
    const [program] = two.programs;
    const made = program && applyChange(two, withoutStart(program, '15:10'));
    expect(made?.ok && made.value.plan.programs[0]?.starts).toEqual(['04:00']);
  });

  test('a timer without cycle and soak gets more start times with shorter runs, if there are any left', () => {
    const none = (startsPerProgram: number) =>
      garden({
        timer: { ...kind, cycleSoak: 'none', startsPerProgram, startStepMinutes: 1 },
        stations: [{ number: 1, cycleSeconds: 420, soakSeconds: 1800 }, { number: 2 }],
        programs: [{ ...A, runs: [1, 2].map((station) => ({ station, seconds: 720 })) }],
      });
    const fixOfRunOff = (plan: Plan) => {
      const runsOff = check(plan, ON).findings.find(({ code }) => code === 'runs-off');
      return runsOff ? fixOf(plan, runsOff, ON, null) : null;
    };
    const plan = none(4);
    const fix = fixOfRunOff(plan);
    const first = A.starts[0] ?? '';
    // Six minutes and half an hour of soak.
    const later = formatTime((parseTime(first) ?? 0) + 36 * 60);
    expect(fix?.does).toEqual({ what: 'more-starts', starts: [first, later] });
    expect(fix && fixWords(fix, '24')).toBe('Split into 2 starts from 4:00');
    const fixed = fix && applyChange(plan, fix.change);
    if (!fixed?.ok) throw new Error('it can be set');
    expect(fixed.value.plan.programs[0]?.runs.map(({ seconds }) => seconds)).toEqual([360, 360]);
    const after = check(fixed.value.plan, ON).findings.map(({ code }) => code);
    for (const code of ['runs-off', 'soak-too-short', 'leftover-start', 'overlap'])
      expect(after).not.toContain(code);
    expect(fixOfRunOff(none(1))).toBeNull();
  });

  test('a timer that splits a whole program splits it as short as its most delicate station', () => {
    const byProgram = garden({
      timer: { ...kind, cycleSoak: 'program' },
      stations: [
        { number: 1, cycleSeconds: 420, soakSeconds: 1800 },
        { number: 2, cycleSeconds: 300, soakSeconds: 900 },
      ],
      programs: [{ ...A, runs: [1, 2].map((station) => ({ station, seconds: 720 })) }],
    });
    const { findings } = check(byProgram, ON);
    const runsOff = findings.find(({ code }) => code === 'runs-off');
    const fix = runsOff && fixOf(byProgram, runsOff, ON, null);
    expect(fix?.does).toEqual({
      what: 'split',
      program: 'A',
      pieceSeconds: 300,
      soakSeconds: 1800,
    });
    const fixed = fix && applyChange(byProgram, fix.change);
    if (!fixed?.ok) throw new Error('it can be set');
    const after = check(fixed.value.plan, ON).findings.map(({ code }) => code);
    expect(after).not.toContain('runs-off');
    expect(after).not.toContain('soak-too-short');
  });
});
