/** Random plans that a timer could hold, with cycles that coincide often enough to be worth checking. */
import fc from 'fast-check';
import { formatDate, formatTime, WEEKDAYS, type Days, type Plan } from '@water-clock/core';

// A failure prints its seed and plan; shrinking it against the slow model would take minutes.
fc.configureGlobal({ endOnFailure: true });

const percent = fc.integer({ min: 0, max: 300 });
const someWeekdays = fc.subarray([...WEEKDAYS]);

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

/** Run time in seconds: mostly short, now and then most of a day. */
const seconds = fc.oneof(
  { weight: 20, arbitrary: fc.integer({ min: 0, max: 2400 }) },
  { weight: 1, arbitrary: fc.integer({ min: 0, max: 50_000 }) },
);

const blocked = fc.option(fc.subarray([...WEEKDAYS], { maxLength: 3 }), { nil: undefined });
const blockedWeekdays = blocked.map((days) => (days ? { blockedWeekdays: days } : {}));
/** Dates around the day of the checks, 2027-06-01. */
const date = fc.integer({ min: 20_900, max: 21_100 }).map(formatDate);

const weekly: fc.Arbitrary<Days> = fc.oneof(
  fc.constant({ rule: 'daily' as const }),
  someWeekdays.map((weekdays) => ({ rule: 'weekdays' as const, weekdays })),
);

const anyRule: fc.Arbitrary<Days> = fc.oneof(
  weekly,
  fc
    .tuple(fc.integer({ min: 1, max: 14 }), date, blockedWeekdays)
    .map(([everyDays, firstDate, rest]) => ({
      rule: 'interval' as const,
      everyDays,
      firstDate,
      ...rest,
    })),
  fc
    .tuple(fc.integer({ min: 5, max: 60 }), date, start, blockedWeekdays)
    .map(([everyHours, firstDate, time, rest]) => ({
      rule: 'hours' as const,
      everyHours,
      first: `${firstDate}T${time}`,
      ...rest,
    })),
  fc
    .tuple(fc.constantFrom('odd' as const, 'even' as const), blockedWeekdays)
    .map(([rule, rest]) => ({ rule, ...rest })),
);

const window = fc.record(
  { from: start, to: start, weekdays: someWeekdays },
  { requiredKeys: ['from', 'to'] },
);
const windows = fc.array(window, { maxLength: 2 });

const program = (
  letter: string,
  rule: fc.Arbitrary<Days>,
): fc.Arbitrary<Plan['programs'][number]> =>
  fc
    .record({
      starts: fc.array(start, { maxLength: 3 }),
      runSeconds: fc.array(seconds, { minLength: 1, maxLength: 3 }),
      days: fc.option(rule, { freq: 8 }),
      seasonalPercent: percent,
      cycleSeconds: fc.integer({ min: 60, max: 900 }),
      soakSeconds: fc.integer({ min: 0, max: 1200 }),
      noWaterWindows: windows,
      stationsAtOnce: fc.integer({ min: 1, max: 3 }),
    })
    .map(({ runSeconds, starts, ...rest }) => ({
      letter,
      ...rest,
      starts: rest.days?.rule === 'hours' ? [] : starts,
      runs: runSeconds.map((one, i) => ({ station: i + 1, seconds: one })),
    }));

interface Kind {
  readonly rule: fc.Arbitrary<Days>;
  readonly timer: fc.Arbitrary<Partial<Plan['timer']>>;
}

/** Plans of up to three programs on up to three stations. */
const plansOf = ({ rule, timer }: Kind): fc.Arbitrary<Plan> =>
  fc
    .record({
      seasonal,
      cycleSoak: fc.constantFrom('none', 'station', 'program'),
      onOverlap: fc.constantFrom('queue', 'drop', 'cut', 'together', 'share'),
      timer,
      settings: fc.record(
        {
          seasonalPercent: percent,
          monthlyPercent: fc.array(fc.constantFrom(0, 80, 100, 160), {
            minLength: 12,
            maxLength: 12,
          }),
          stationDelaySeconds: fc.integer({ min: 0, max: 90 }),
          wateringResumes: fc.constantFrom('2027-06-05', '2027-06-08T05:30'),
          offDaysOfMonth: fc.uniqueArray(fc.integer({ min: 1, max: 31 }), { maxLength: 4 }),
          noWaterWindows: windows,
          flowLimitLpm: fc.integer({ min: 5, max: 50 }),
          stationsAtOnce: fc.integer({ min: 1, max: 3 }),
        },
        { requiredKeys: [] },
      ),
      stations: fc.array(
        fc.record(
          {
            enabled: fc.constantFrom(true, true, true, false),
            cycleSeconds: fc.integer({ min: 60, max: 900 }),
            soakSeconds: fc.integer({ min: 0, max: 1200 }),
            flowLpm: fc.integer({ min: 0, max: 30 }),
          },
          { requiredKeys: [] },
        ),
        { minLength: 3, maxLength: 3 },
      ),
      programs: fc.tuple(program('A', rule), program('B', rule), program('C', rule)),
      programCount: fc.integer({ min: 1, max: 3 }),
    })
    .map(({ stations, programs, programCount, ...random }) => ({
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
        dayRules: ['daily', 'weekdays', 'interval', 'hours', 'odd', 'even'],
        longestIntervalDays: 31,
        oddDaysSkip31: false,
        seasonal: random.seasonal,
        cycleSoak: random.cycleSoak,
        longestStationDelaySeconds: 600,
        onOverlap: random.onOverlap,
        inWindow: 'ignore',
        stationsAtOnce: 1,
        followsDaylightSaving: false,
        ...random.timer,
      },
      settings: random.settings,
      stations: stations.map((station, i) => ({ number: i + 1, ...station })),
      programs: programs.slice(0, programCount),
    }));

const leavesTime = ({ settings, programs }: Plan) => {
  // Plainer than the reader's rule and slightly stricter: ten hours of each day are free.
  const all = [
    ...(settings.noWaterWindows ?? []),
    ...programs.flatMap((p) => p.noWaterWindows ?? []),
  ];
  const minutes = all.map(({ from, to }) => {
    const minute = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
    return (minute(to) - minute(from) + 1440) % 1440 || 1440;
  });
  return minutes.reduce((a, b) => a + b, 0) < 900;
};

/** Weekly day rules, one station at a time, windows that change nothing. */
export const weeklyPlan: fc.Arbitrary<Plan> = plansOf({
  rule: weekly,
  timer: fc.constant({}),
})
  .filter(leavesTime)
  .map((plan) => {
    const { offDaysOfMonth: _off, ...settings } = plan.settings;
    return { ...plan, settings };
  });

/** Everything in timing-rules.md, mixed. */
export const anyPlan: fc.Arbitrary<Plan> = plansOf({
  rule: anyRule,
  timer: fc.record({
    inWindow: fc.constantFrom('ignore', 'cut', 'pause'),
    stationsAtOnce: fc.constantFrom(1, 1, 2, 3),
    oddDaysSkip31: fc.boolean(),
  }),
}).filter(leavesTime);
