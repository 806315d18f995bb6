/** Random plans that a timer could hold, and that meet each other often enough to be worth checking. */
import fc from 'fast-check';
import { formatTime, WEEKDAYS, type Plan } from '@water-clock/core';

const percent = fc.integer({ min: 0, max: 300 });

const seasonal: fc.Arbitrary<Plan['timer']['seasonal']> = fc.record({
  scope: fc.constantFrom('none', 'timer', 'program'),
  lowestPercent: fc.constantFrom(0, 10, 50),
  highestPercent: fc.constantFrom(100, 150, 200),
  stepPercent: fc.constantFrom(10, 25, 30),
  byMonth: fc.boolean(),
  roundToSeconds: fc.constantFrom(1, 60),
  rounding: fc.constantFrom('nearest', 'down', 'up'),
});

const start = fc
  .oneof(
    { weight: 3, arbitrary: fc.integer({ min: 60, max: 84 }) },
    { weight: 1, arbitrary: fc.integer({ min: 0, max: 287 }) },
  )
  .map((fives) => formatTime(fives * 300));

/** Seconds of a run: mostly short, now and then most of a day. */
const seconds = fc.oneof(
  { weight: 8, arbitrary: fc.integer({ min: 0, max: 2400 }) },
  { weight: 1, arbitrary: fc.integer({ min: 0, max: 50_000 }) },
);

const program = (letter: string): fc.Arbitrary<Plan['programs'][number]> =>
  fc
    .record({
      starts: fc.array(start, { maxLength: 3 }),
      runSeconds: fc.array(seconds, { minLength: 1, maxLength: 3 }),
      days: fc.option(
        fc.oneof(
          fc.constant({ rule: 'daily' as const }),
          fc.subarray([...WEEKDAYS]).map((weekdays) => ({ rule: 'weekdays' as const, weekdays })),
        ),
        { freq: 8 },
      ),
      seasonalPercent: percent,
      cycleSeconds: fc.integer({ min: 60, max: 900 }),
      soakSeconds: fc.integer({ min: 0, max: 1200 }),
    })
    .map(({ runSeconds, ...rest }) => ({
      letter,
      ...rest,
      runs: runSeconds.map((one, i) => ({ station: i + 1, seconds: one })),
    }));

/** Plans of up to three programs on up to three stations, with the weekly rules and everything else that is covered. */
export const randomPlan: fc.Arbitrary<Plan> = fc
  .record({
    seasonal,
    cycleSoak: fc.constantFrom('none', 'station', 'program'),
    onOverlap: fc.constantFrom('queue', 'drop', 'cut', 'together'),
    settings: fc.record(
      {
        seasonalPercent: percent,
        monthlyPercent: fc.array(fc.constantFrom(0, 80, 100, 160), {
          minLength: 12,
          maxLength: 12,
        }),
        stationDelaySeconds: fc.integer({ min: 0, max: 90 }),
        wateringResumes: fc.constantFrom('2027-06-05', '2027-06-08T05:30'),
      },
      { requiredKeys: [] },
    ),
    stations: fc.array(
      fc.record(
        {
          enabled: fc.constantFrom(true, true, true, false),
          cycleSeconds: fc.integer({ min: 60, max: 900 }),
          soakSeconds: fc.integer({ min: 0, max: 1200 }),
        },
        { requiredKeys: [] },
      ),
      { minLength: 3, maxLength: 3 },
    ),
    programs: fc.tuple(program('A'), program('B'), program('C')),
    programCount: fc.integer({ min: 1, max: 3 }),
  })
  .map(
    ({ seasonal: adjust, cycleSoak, onOverlap, settings, stations, programs, programCount }) => ({
      format: 'water-clock-plan',
      version: 1,
      timer: {
        name: 'Random timer',
        stationCount: 3,
        programCount: 3,
        startsPerProgram: 4,
        startStepMinutes: 5,
        runStepSeconds: 1,
        longestRunSeconds: 86_400,
        dayRules: ['daily', 'weekdays'],
        longestIntervalDays: 31,
        oddDaysSkip31: false,
        seasonal: adjust,
        cycleSoak,
        longestStationDelaySeconds: 600,
        onOverlap,
        inWindow: 'ignore',
        stationsAtOnce: 1,
        followsDaylightSaving: false,
      },
      settings,
      stations: stations.map((station, i) => ({ number: i + 1, ...station })),
      programs: programs.slice(0, programCount),
    }),
  );
