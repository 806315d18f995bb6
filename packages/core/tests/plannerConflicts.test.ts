/** Conflicting demands: each is reported, with the smallest change that helps. */
import { describe, expect, test } from '@jest/globals';
import { planReport, workOut, type Brief } from '@water-clock/core';
import { conflictsOf } from '../src/planner/conflicts.ts';
import { searchPlan } from '../src/planner/searchPlan.ts';
import { briefOf } from './plannerBriefs.ts';

const hours = (count: number) => count * 3600;

describe('where there is no plan, each demand that is in the way is told with the least change that helps', () => {
  const often = { times: 4, from: '09:00', to: '10:00' } as const;
  test.each<readonly [string, string, string, Brief]>([
    [
      'wish.starts',
      'Each program has one start time.',
      'Let the planner choose.',
      briefOf([{ weeklySeconds: 5040, oftenADay: { times: 3, from: '06:00', to: '20:00' } }], {
        wish: { starts: 'one' },
      }),
    ],
    [
      'wish.days',
      'Days are set as an interval.',
      'Let the planner choose.',
      briefOf([{ weeklySeconds: 1800, days: { least: 2, most: 2 } }], {
        wish: { days: 'interval' },
      }),
    ],
    [
      'wish.programs',
      'There is only one program.',
      'Allow more programs.',
      briefOf(
        [
          { weeklySeconds: 1800, days: { least: 1, most: 1 } },
          { weeklySeconds: 1800, days: { least: 5, most: 5 } },
        ],
        { wish: { programs: 'one' } },
      ),
    ],
    [
      'wish.apart[0]',
      'Lawn and beds never share a program.',
      'Let them share a program.',
      briefOf(
        [
          { weeklySeconds: 1800, group: 'lawn' },
          { weeklySeconds: 1800, group: 'beds' },
        ],
        { wish: { apart: [['lawn', 'beds']] }, timer: { programCount: 1 } },
      ),
    ],
    [
      'mowing',
      'The lawn must be dry for mowing on Tue Fri, and the day before.',
      'Keep the lawn dry only on Tue Fri.',
      briefOf([{ weeklySeconds: 3600, days: { least: 4, most: 7 } }], {
        mowing: { weekdays: ['tue', 'fri'], dayBefore: true },
      }),
    ],
    [
      'mowing',
      'The lawn must be dry for mowing on Fri.',
      'Mow on any day and accept wet grass.',
      briefOf([{ weeklySeconds: 3600, days: { least: 7, most: 7 } }], {
        mowing: { weekdays: ['fri'] },
      }),
    ],
    [
      'settings.offDaysOfMonth',
      'The timer skips these days of the month: 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27, 28, 29, 30 and 31.',
      'Allow every day of the month.',
      briefOf([{ weeklySeconds: 3600 }], {
        settings: { offDaysOfMonth: Array.from({ length: 31 }, (_, i) => i + 1) },
      }),
    ],
    [
      'rules.parity',
      'Watering is allowed here only on odd dates.',
      'Ask whether other dates can be allowed.',
      briefOf([{ weeklySeconds: 3600, days: { least: 2, most: 7 } }], {
        rules: { parity: 'odd' },
        timer: { dayRules: ['weekdays'] },
      }),
    ],
    [
      'rules.weekdays',
      'Watering is allowed here only on Mon Wed Sat.',
      'Ask whether Tue can be allowed too.',
      briefOf([{ weeklySeconds: 3600, days: { least: 4, most: 7 } }], {
        rules: { weekdays: ['mon', 'wed', 'sat'] },
      }),
    ],
    [
      'rules.noWaterWindows',
      'Watering is not allowed here from 8:00 to 18:00 on Mon.',
      'Ask whether watering can be allowed outside 12:00 to 18:00.',
      briefOf([{ weeklySeconds: 5040, oftenADay: { times: 3, from: '09:00', to: '16:00' } }], {
        rules: { noWaterWindows: [{ from: '08:00', to: '18:00', weekdays: ['mon'] }] },
        timer: { dayRules: ['interval'], longestIntervalDays: 3 },
      }),
    ],
    [
      'stations[0].cycleSeconds',
      'Station 1 can run 4 min before water runs off.',
      'Let station 1 run 10 min without a break.',
      briefOf([{ weeklySeconds: 3600, cycleSeconds: 240, soakSeconds: 1200 }], {
        timer: { runStepSeconds: 600 },
      }),
    ],
    [
      'stations[0].oftenADay',
      'Station 1 needs to run 4 times a day between 9:00 and 10:00.',
      'Let station 1 run 3 times a day.',
      briefOf([{ weeklySeconds: hours(20), oftenADay: often }]),
    ],
    [
      'timer.startsPerProgram',
      'The timer has 2 start times for each program.',
      'A timer with 4 start times per program would work.',
      briefOf([{ weeklySeconds: 5040, oftenADay: { times: 4, from: '06:00', to: '20:00' } }], {
        timer: { startsPerProgram: 2 },
      }),
    ],
    [
      'timer.dayRules',
      'The timer does not have every day rule.',
      'A timer like “Two-station battery timer” would work.',
      briefOf([{ weeklySeconds: 3600, days: { least: 3, most: 4 } }], {
        rules: { parity: 'even' },
        timer: { dayRules: ['weekdays'] },
      }),
    ],
  ])('%s', (path, demand, change, brief) => {
    const worked = workOut(brief);
    expect(worked.plan).toBeNull();
    const told = planReport(brief, worked).report.conflicts ?? [];
    expect(told.map(({ apply: _apply, ...rest }) => rest)).toContainEqual({ path, demand, change });
    for (const { change } of conflictsOf(brief))
      if (change) expect(searchPlan(change.brief).found).not.toBeNull();
  });
});
