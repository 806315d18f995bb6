/** The checks: which marks stand where, and the drawer with its groups, its preview of safe fixes, and what is accepted. */
import { expect, test } from '@jest/globals';
import type { Finding } from '@water-clock/core';
import { checkMarks } from '../src/checks/checkMarks.ts';

const SPEECH = { on: 20_000, clock: '24' } as const;
const twoPrograms = (station: number): Finding => ({
  code: 'station-in-two-programs',
  severity: 'warning',
  programs: ['A', 'B'],
  where: { station },
});

test('a mark stands at the place a finding is about, with all sentences and the weight of the worst', () => {
  const findings: Finding[] = [
    twoPrograms(3),
    {
      code: 'same-start-twice',
      severity: 'error',
      times: 2,
      where: { program: 'A', start: '05:00' },
    },
    { code: 'missing-days', severity: 'error', where: { program: 'B' } },
    { ...twoPrograms(3), severity: 'error', programs: ['A', 'C'] } as Finding,
    { ...twoPrograms(4), severity: 'note' },
  ];
  const marks = checkMarks(findings, SPEECH);
  expect(marks({ station: 3 })).toMatchObject({ severity: 'error' });
  expect(marks({ station: 3 })?.sentences).toHaveLength(2);
  expect(marks({ program: 'A', start: '05:00' })?.severity).toBe('error');
  expect(marks({ program: 'B' })?.sentences).toHaveLength(1);
  // Neither the program of a start, nor what is only good to know, nor anything else.
  expect(marks({ program: 'A' })).toBeNull();
  expect(marks({ station: 4 })).toBeNull();
  expect(marks({ station: 1 })).toBeNull();
});
