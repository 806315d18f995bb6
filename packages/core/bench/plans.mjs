/** Plans for the benchmarks, generated so that size can grow one dimension at a time. */
import { emptyPlan, formatTime, readPlan, TIMER_KINDS, WEEKDAYS } from '@water-clock/core';

const letter = (p) => String.fromCharCode(65 + p);

/** All day rules in turn, so that programs meet in every combination. */
const mixedDays = (p) =>
  [
    {
      rule: 'interval',
      everyDays: 2 + (p % 12),
      firstDate: `2027-03-${String(1 + p).padStart(2, '0')}`,
      blockedWeekdays: [WEEKDAYS[p % 7]],
    },
    { rule: 'odd', blockedWeekdays: [WEEKDAYS[(p + 3) % 7]] },
    { rule: 'weekdays', weekdays: WEEKDAYS.filter((_, w) => (w + p) % 2 === 0) },
    { rule: 'even' },
    { rule: 'daily' },
  ][p % 5];

function sound(plan) {
  const read = readPlan(plan);
  if (!read.ok) throw new Error(`the bench plan is not sound: ${JSON.stringify(read.faults[0])}`);
  return read.value;
}

/**
 * A realistic full timer: `stations` divided among `programs`, whose starts are spread evenly between each other's over the day; cycle and
 * soak on every third station; interval, odd and weekday rules.
 *
 * @param fill approximate share of the time between two starts that a cycle takes
 */
export function realisticPlan(stations, programs, starts, fill = 0.5) {
  const timer = {
    ...TIMER_KINDS[4],
    name: 'Bench timer',
    stationCount: stations,
    programCount: programs,
    startsPerProgram: starts,
    startStepMinutes: 1,
    stationsAtOnce: 1,
    onOverlap: 'queue',
  };
  const each = Math.max(1, Math.floor(stations / programs));
  const between = 1440 / (programs * starts);
  const seconds = Math.max(60, Math.floor((between * 60 * fill) / each / 60) * 60);
  const days = [
    { rule: 'interval', everyDays: 3, firstDate: '2027-03-02', blockedWeekdays: ['sat'] },
    { rule: 'odd' },
    { rule: 'weekdays', weekdays: ['mon', 'wed', 'fri'] },
    { rule: 'interval', everyDays: 2, firstDate: '2027-03-01' },
  ];
  return sound({
    ...emptyPlan(timer),
    settings: { stationDelaySeconds: 5 },
    stations: Array.from({ length: stations }, (_, i) => ({
      number: i + 1,
      ...(i % 3 === 0 ? { cycleSeconds: Math.max(60, seconds / 2), soakSeconds: 300 } : {}),
    })),
    programs: Array.from({ length: programs }, (_, p) => ({
      letter: letter(p),
      starts: Array.from({ length: starts }, (_, s) =>
        formatTime(Math.floor((s * programs + p) * between) * 60),
      ),
      runs: Array.from({ length: each }, (_, i) => ({
        station: ((p * each + i) % stations) + 1,
        seconds,
      })).filter((run, i, all) => all.findIndex((one) => one.station === run.station) === i),
      days: days[p % days.length],
    })),
  });
}

/** The largest timer the format allows, with all rules mixed; runs of `minutes`. */
export function worstPlan(minutes, inWindow = 'pause', hours = false) {
  const timer = {
    ...TIMER_KINDS[4],
    name: 'Worst timer',
    stationCount: 99,
    programCount: 26,
    startsPerProgram: 24,
    startStepMinutes: 1,
    dayRules: ['daily', 'weekdays', 'interval', 'hours', 'odd', 'even'],
    longestIntervalDays: 365,
    seasonal: { ...TIMER_KINDS[4].seasonal, lowestPercent: 1, highestPercent: 300, stepPercent: 1 },
    inWindow,
    stationsAtOnce: 3,
    onOverlap: 'together',
  };
  return sound({
    ...emptyPlan(timer),
    settings: {
      stationDelaySeconds: 7,
      offDaysOfMonth: [13, 31],
      monthlyPercent: [150, 140, 120, 100, 80, 60, 50, 70, 90, 110, 130, 145],
      noWaterWindows: [
        { from: '10:00', to: '16:00', weekdays: ['mon', 'tue', 'wed'] },
        { from: '12:00', to: '14:30', weekdays: ['sat', 'sun'] },
      ],
      flowLimitLpm: 90,
    },
    stations: Array.from({ length: 99 }, (_, i) => ({
      number: i + 1,
      flowLpm: 10 + (i % 40),
      ...(i % 2 === 0 ? { cycleSeconds: 120, soakSeconds: 600 } : {}),
    })),
    programs: Array.from({ length: 26 }, (_, p) => ({
      letter: letter(p),
      starts:
        hours && p % 2
          ? []
          : Array.from({ length: 24 }, (_, s) => formatTime((s * 60 + ((p * 2) % 60)) * 60)),
      runs: Array.from({ length: 99 }, (_, i) => ({
        station: i + 1,
        seconds: minutes * 60,
      })).filter((_, i) => minutes > 1 || i % 26 === p),
      days:
        hours && p % 2
          ? { rule: 'hours', everyHours: 5 + 14 * p, first: `2027-03-01T00:${String(p + 10)}` }
          : mixedDays(p),
      ...(p % 4 === 1
        ? { noWaterWindows: [{ from: '03:00', to: '03:30', weekdays: ['thu'] }] }
        : {}),
    })),
  });
}
