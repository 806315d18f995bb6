/** Verdicts and findings as people read them, from real checks of small plans. */
import { describe, expect, test } from '@jest/globals';
import {
  daysOnTimer,
  type Days,
  hasPercent,
  check,
  checkReport,
  emptyPlan,
  epochDayOf,
  findingSentence,
  TIMER_KINDS,
  verdictWords,
  type OnOverlap,
  type Plan,
  type Program,
} from '@water-clock/core';

const kind = TIMER_KINDS[2];
if (!kind) throw new Error('no kinds');
const ON = epochDayOf({ year: 2027, month: 6, day: 7 });
const speech = { on: ON, clock: '12' } as const;
const program = (
  letter: string,
  start: string,
  minutes: number,
  more: Partial<Program> = {},
): Program => ({
  letter,
  starts: [start],
  runs: [{ station: letter.charCodeAt(0) - 64, seconds: minutes * 60 }],
  days: { rule: 'weekdays', weekdays: ['wed'] },
  ...more,
});
const plan = (programs: Program[], onOverlap: OnOverlap = 'queue'): Plan => ({
  ...emptyPlan({ ...kind, onOverlap }),
  programs,
});
const words = (given: Plan) => verdictWords(check(given, ON), given.timer.onOverlap, speech);

describe('a verdict', () => {
  const touching = [program('A', '04:00', 67), program('B', '05:00', 30)];
  test('names the first date, both starts and the minutes, and what this timer does', () => {
    expect(words(plan(touching)).headline).toBe(
      'Wed 9 June: B starts at 5:00 am while A is still running, 7 min of overlap.',
    );
    const details = (['queue', 'drop', 'cut', 'together', 'share'] as const).map(
      (one) => words(plan(touching, one)).detail,
    );
    expect(details).toEqual([
      'B waits until 5:07 am and finishes 7 min late. This happens about 52 times a year. No overlaps only up to 90 %.',
      'This timer skips the 5:00 am start of B, so that watering is lost. This happens about 52 times a year. No overlaps only up to 90 %.',
      'This timer cuts off A at 5:00 am. Its last 7 min of watering is lost. This happens about 52 times a year. No overlaps only up to 90 %.',
      'This timer runs both at once, so they share pressure for 7 min. This happens about 52 times a year. No overlaps only up to 90 %.',
      'This timer runs both at once, but never opens more stations than its limit. This happens about 52 times a year. No overlaps only up to 90 %.',
    ]);
  });

  test('tells a program that meets itself, two at one time, and one begun the day before', () => {
    const itself = program('A', '20:00', 1440 + 20, { days: { rule: 'daily' } });
    expect(words(plan([itself])).headline).toBe(
      'Tue 8 June: A starts again at 8:00 pm while its own cycle, started Mon 7 June at 8:00 pm, is still running, 20 min of overlap.',
    );
    expect(words(plan([program('A', '04:00', 20), program('B', '04:00', 9)])).headline).toBe(
      'Wed 9 June: A and B both start at 4:00 am, 9 min of overlap.',
    );
    const late = program('B', '00:10', 9, { days: { rule: 'weekdays', weekdays: ['thu'] } });
    expect(words(plan([program('A', '23:00', 80), late])).headline).toBe(
      'Thu 10 June: B starts at 12:10 am while A, started Wed 9 June at 11:00 pm, is still running, 9 min of overlap.',
    );
  });

  test('a percent that others move: the verdict is of its whole range', () => {
    const touching = [program('A', '04:00', 50), program('B', '05:00', 20)];
    const driven = (highest: number) =>
      words({
        ...plan(touching),
        settings: { percentDrivenBy: 'sensor', percentRange: { lowest: 20, highest } },
      });
    expect(driven(120)).toEqual({
      tone: 'clear',
      headline: 'No overlaps, up to 120 %',
      detail:
        'No two cycles overlap on any date. A sensor changes the percent. There are no overlaps at any percent between 20 and 120 %. At 130 %, A 4:00 am and B 5:00 am would overlap first, on Wed 9 June.',
    });
    const moves = check(
      {
        ...plan(touching),
        settings: { percentDrivenBy: 'service', percentRange: { lowest: 20, highest: 121 } },
      },
      ON,
    ).findings.find(({ code }) => code === 'percent-moves');
    expect(moves && findingSentence(moves, speech)).toBe(
      'An online service changes the percent, so run times differ from the settings. Settings may be overwritten. Between 20 and 121 %, cycles can overlap. Wed 9 June: B starts at 5:00 am while A is still running, 1 min of overlap.',
    );
    expect(driven(121)).toMatchObject({
      tone: 'overlap',
      headline: 'No overlaps as set, but a sensor changes the percent between 20 and 121 %',
    });
  });

  test('one start twice, several pairs, a timer that is off', () => {
    const doubled = program('A', '04:00', 20, { starts: ['04:00', '04:00'] });
    expect(words(plan([doubled])).headline).toBe(
      'Wed 9 June: A has start time 4:00 am twice, 20 min of overlap.',
    );
    const three = [program('A', '04:00', 70), program('B', '05:00', 70), program('C', '06:00', 9)];
    expect(words(plan(three)).detail).toMatch(/ 1 more pair of start times overlaps\./);
    const four = [...three.slice(0, 2), program('C', '05:30', 90), program('D', '06:00', 9)];
    expect(words(plan(four)).detail).toMatch(/ \d more pairs of start times overlap\./);
    const proven = check(plan([program('A', '04:00', 60)]), ON);
    expect(verdictWords(proven, 'queue', speech, { isOff: true }).headline).toBe(
      'The timer is switched off. When it is on: No overlaps, up to 150 %',
    );
  });

  test('clear as set, but not where the percent is lower', () => {
    const proven = { ...check(plan([program('A', '04:00', 60)]), ON), headroomPercent: null };
    expect(verdictWords(proven, 'queue', speech)).toMatchObject({
      headline: 'No overlaps as set',
      detail: 'No cycles overlap at the percents set, but some do at the lowest percent.',
    });
  });

  test('without a seasonal percent none is named, whether clear or not', () => {
    const clear = check(plan([program('A', '04:00', 60)]), ON);
    expect(verdictWords(clear, 'queue', speech, { hasPercent: false })).toEqual({
      tone: 'clear',
      headline: 'No overlaps',
      detail: 'No two cycles overlap on any date.',
    });
    const overlap = check(plan(touching), ON);
    expect(verdictWords(overlap, 'queue', speech).detail).toMatch(/No overlaps only up to \d+ %/);
    expect(verdictWords(overlap, 'queue', speech, { hasPercent: false }).detail).not.toMatch(/%/);
    const bare = emptyPlan({ ...kind, seasonal: { ...kind.seasonal, scope: 'none' } });
    expect([hasPercent(bare), hasPercent(plan([]))]).toEqual([false, true]);
  });

  test('clear, half set and empty say so', () => {
    expect(words(plan([program('A', '04:00', 60)]))).toEqual({
      tone: 'clear',
      headline: 'No overlaps, up to 150 %',
      detail: 'No two cycles overlap on any date.',
    });
    expect(words(plan([program('A', '04:00', 60, { days: null, runs: [] })])).headline).toBe(
      'A never waters: it needs a run time on an enabled station and watering days.',
    );
    expect(words(plan([program('A', '04:00', 0, { starts: [] })])).headline).toBe(
      'No watering yet',
    );
  });
});

test('findings: what the timer cannot hold, doubled starts, little headroom, stations in two programs', () => {
  const odd: Plan = {
    ...plan([
      program('A', '04:07', 400, { starts: ['04:07', '04:07', '12:00', '13:00', '14:00'] }),
      program('B', '20:00', 10, { runs: [{ station: 1, seconds: 90 }], days: { rule: 'daily' } }),
    ]),
    settings: { seasonalPercent: 155, mode: 'off', wateringResumes: '2027-06-08T05:00' },
  };
  const found = check(odd, ON).findings.filter(({ code }) => code !== 'overlap');
  expect(
    found.map(
      (finding) =>
        `${finding.code} ${finding.where.field ?? ''}: ${findingSentence(finding, speech)}`,
    ),
  ).toMatchInlineSnapshot(`
   [
     "same-start-twice : A has start time 4:07 am 2 times and waters each time. Delete the duplicates.",
     "not-on-timer settings.seasonalPercent: 155 % cannot be set on this timer, which goes from 10 to 150 % in steps of 10.",
     "not-on-timer programs[0].starts: A: 5 start times are set, but a program on this timer can have 4.",
     "not-on-timer programs[0].starts[0]: A: start time 4:07 am does not match this timer’s 15 min steps.",
     "not-on-timer programs[0].starts[1]: A: start time 4:07 am does not match this timer’s 15 min steps.",
     "not-on-timer programs[0].runs[0].seconds: A station 1: run time 6 h 40 min is longer than this timer allows (6 h).",
     "not-on-timer programs[1].runs[0].seconds: B station 1: run time 1 min 30 s does not match this timer’s steps of 1 min.",
     "station-in-two-programs : Station 1 is in A and B and is watered by each of them.",
     "timer-off settings.mode: The timer is switched off. No watering until it is switched on.",
     "afternoon-start : A starts at 12:00 pm. In the afternoon, much of the water is lost to wind and sun.",
     "afternoon-start : A starts at 1:00 pm. In the afternoon, much of the water is lost to wind and sun.",
     "afternoon-start : A starts at 2:00 pm. In the afternoon, much of the water is lost to wind and sun.",
     "starts-taken-for-stations : A has 5 start times for one station, each during the cycle before it. A start time runs the whole program, not one station. Keep the first.",
     "leftover-program : Every station of A is also in another program. If A is left over, delete it.",
     "leftover-program : Every station of B is also in another program. If B is left over, delete it.",
     "station-in-none : Station 2 is in no program and never waters.",
     "station-in-none : Station 3 is in no program and never waters.",
     "station-in-none : Station 4 is in no program and never waters.",
     "station-in-none : Station 5 is in no program and never waters.",
     "station-in-none : Station 6 is in no program and never waters.",
     "station-in-none : Station 7 is in no program and never waters.",
     "station-in-none : Station 8 is in no program and never waters.",
     "rain-delay settings.wateringResumes: Rain delay: no watering before Tue 8 June, 5:00 am.",
     "leftover-start : A waters 5 times a day, but none of its stations needs that. Keep one start time if it gives enough water.",
     "percent-not-100 settings.seasonalPercent: The seasonal percent is 155 %, so run times differ from those entered.",
     "past-midnight : A runs past midnight and still waters on Thu 10 June, which is not one of its days.",
   ]
  `);
  const both = plan([program('A', '04:00', 55), program('B', '05:00', 30)]);
  const tight = { ...both, stations: both.stations.slice(0, 2) };
  const report = checkReport(check(tight, ON));
  expect(report.findings).toEqual([
    {
      code: 'little-headroom',
      severity: 'warning',
      message:
        'No overlaps only up to 100 %; the programs should allow 130 %. Move the start times apart.',
      where: {},
    },
  ]);
});

test.each<[Days, boolean, string]>([
  [{ rule: 'odd' }, true, 'odd dates except the 31st'],
  [{ rule: 'odd' }, false, 'odd dates including the 31st'],
  [{ rule: 'odd', blockedWeekdays: ['sat'] }, true, 'odd dates except the 31st, not Sat'],
  [{ rule: 'even' }, true, 'even dates'],
  [{ rule: 'even', blockedWeekdays: ['sun'] }, false, 'even dates, not Sun'],
  [{ rule: 'weekdays', weekdays: ['fri', 'mon'] }, false, 'Mon Fri'],
  [
    { rule: 'interval', everyDays: 6, firstDate: '2027-06-09', blockedWeekdays: ['sat'] },
    true,
    'every 6 days from Wed 9 June 2027, not Sat',
  ],
  [
    { rule: 'hours', everyHours: 36, first: '2027-06-09T05:00' },
    true,
    'every 36 h from Wed 9 June 2027, 5:00 am',
  ],
])('%j on a timer that skips the 31st: %s is “%s”', (days, oddDaysSkip31, words) => {
  expect(daysOnTimer(days, { oddDaysSkip31 }, '12')).toBe(words);
});
