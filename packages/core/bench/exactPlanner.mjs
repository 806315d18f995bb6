/**
 * An exact formulation of one kind of brief for a general-purpose solver: timers that neither split runs nor water past midnight, one start
 * for each program, all watering after midnight, so that a night is a date. Minimises programs, then starts, then the sum of deviations,
 * each with the previous ones held. Checks by length at the wished headroom whether cycles meet.
 */
import { parseTime, WEEKDAYS } from '@water-clock/core';
import { seeded } from './plainPlanner.mjs';

/** A brief of that kind with a number of stations. */
export function nightBrief(seed, count) {
  const chance = seeded(seed * 7919 + count);
  const among = (...list) => list[chance(list.length)];
  const allowed = WEEKDAYS.filter(() => chance(2) === 0).slice(0, 4);
  return {
    format: 'water-clock-brief',
    version: 1,
    timer: {
      name: 'Night timer',
      stationCount: 12,
      programCount: 3,
      startsPerProgram: 1,
      startStepMinutes: among(1, 5, 15),
      runStepSeconds: 60,
      longestRunSeconds: 14_400,
      dayRules: ['weekdays'],
      longestIntervalDays: 1,
      oddDaysSkip31: true,
      seasonal: {
        scope: 'timer',
        lowestPercent: 10,
        highestPercent: 150,
        stepPercent: 10,
        byMonth: false,
        roundToSeconds: 1,
        rounding: 'nearest',
      },
      cycleSoak: 'none',
      longestStationDelaySeconds: 0,
      onOverlap: 'queue',
      inWindow: 'pause',
      stationsAtOnce: 1,
      followsDaylightSaving: false,
    },
    stations: Array.from({ length: count }, (_, i) => {
      const least = 1 + chance(2);
      return {
        number: i + 1,
        weeklySeconds: 600 * (2 + chance(14)),
        days: { least, most: least + chance(2) },
      };
    }),
    rules: { weekdays: allowed.length > 1 ? allowed : ['mon', 'wed', 'sat'] },
    wish: { notBefore: '00:00', finishBy: among('05:00', '07:00'), headroomPercent: 130 },
  };
}

const MINUTES = 60;
const BIG = 1440;

/** The minimum [programs, starts, thousandths off] for a brief of that kind; null if none is within the hours and a tenth of the need. */
export function exactCost(highs, brief) {
  const { timer, stations, rules, wish } = brief;
  const finish = (parseTime(wish.finishBy) ?? 0) / MINUTES;
  const patterns = [];
  for (let mask = 1; mask < 2 ** rules.weekdays.length; mask++)
    patterns.push({ mask, dates: rules.weekdays.filter((_, i) => mask & (1 << i)).length });
  const options = stations.map(({ weeklySeconds, days }) =>
    patterns.flatMap(({ dates }, p) => {
      if (dates < days.least || dates > days.most) return [];
      const runs = [];
      for (let minutes = 1; minutes <= 240; minutes++) {
        const off = Math.abs(minutes * 60 * dates - weeklySeconds) / weeklySeconds;
        if (off <= 0.1 + 1e-9) runs.push({ p, minutes, off });
      }
      return runs;
    }),
  );
  if (options.some((list) => list.length === 0)) return null;
  const step = timer.startStepMinutes;
  for (let count = 1; count <= timer.programCount; count++) {
    const rows = [];
    const binaries = [];
    const integers = [];
    const objective = [];
    const x = (i, j, r) => `x_${i}_${j}_${r}`;
    const slots = Array.from({ length: count }, (_, j) => j);
    for (const j of slots) {
      patterns.forEach((_, p) => binaries.push(`z_${j}_${p}`));
      rows.push(`${patterns.map((_, p) => `z_${j}_${p}`).join(' + ')} = 1`);
      integers.push(`s_${j}`);
    }
    options.forEach((list, i) => {
      const all = [];
      list.forEach(({ p, off }, r) => {
        for (const j of slots) {
          binaries.push(x(i, j, r));
          all.push(x(i, j, r));
          rows.push(`${x(i, j, r)} - z_${j}_${p} <= 0`);
          objective.push(`${(off * 1000).toFixed(6)} ${x(i, j, r)}`);
        }
      });
      rows.push(`${all.join(' + ')} = 1`);
    });
    // Minutes of a slot's cycle, at 100 percent and at the headroom.
    const length = (j, by) =>
      options
        .flatMap((list, i) => list.map(({ minutes }, r) => `${minutes * by} ${x(i, j, r)}`))
        .join(' + ');
    for (const j of slots) rows.push(`${step} s_${j} + ${length(j, 1)} <= ${finish}`);
    for (const j of slots)
      for (const k of slots.slice(j + 1)) {
        binaries.push(`m_${j}_${k}`, `o_${j}_${k}`);
        patterns.forEach((a, p) =>
          patterns.forEach((b, q) => {
            if (a.mask & b.mask) rows.push(`z_${j}_${p} + z_${k}_${q} - m_${j}_${k} <= 1`);
          }),
        );
        const apart = (first, second, order) =>
          `${step} s_${first} + ${length(first, 1.3)} - ${step} s_${second} + ${BIG} m_${j}_${k} ${order} ${BIG} o_${j}_${k}`;
        rows.push(`${apart(j, k, '+')} <= ${2 * BIG}`);
        rows.push(`${apart(k, j, '-')} <= ${BIG}`);
      }
    const model = [
      'Minimize',
      ` obj: ${objective.join(' + ')}`,
      'Subject To',
      ...rows.map((row, n) => ` c${n}: ${row}`),
      'Bounds',
      ...slots.map((j) => ` 0 <= s_${j} <= ${Math.floor(BIG / step)}`),
      'Binary',
      ` ${binaries.join(' ')}`,
      'General',
      ` ${integers.join(' ')}`,
      'End',
    ].join('\n');
    const solved = highs.solve(model, { time_limit: 20, mip_rel_gap: 0, mip_abs_gap: 0.1 });
    if (solved.Status === 'Optimal') return [count, count, solved.ObjectiveValue];
    if (solved.Status !== 'Infeasible') return 'unfinished';
  }
  return null;
}
