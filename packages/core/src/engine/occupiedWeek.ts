/** Hours of a week in which a timer may water on some coming date, so that others can avoid them. */
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';
import { resumesAt } from '../plan/starts.ts';
import { formatTime, SECONDS_PER_DAY, WEEKDAYS, type EpochDay } from '../time/calendar.ts';
import { Meetings } from '../time/meetings.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import { Effort } from './effort.ts';
import { namedStart } from './namedStarts.ts';
import { asSet, ProgramCycles } from './nominal.ts';

const SECONDS_PER_WEEK = 7 * SECONDS_PER_DAY;
const MINUTE = 60;

/** Minutes of a week, Monday first, end exclusive. */
interface Stretch {
  readonly from: number;
  to: number;
}

/** Each day's part of a range of minutes, wrapping at the end of the week. */
function byDay({ from, to }: Stretch): (readonly [weekday: number, from: number, to: number])[] {
  const parts: (readonly [number, number, number])[] = [];
  for (let at = from; at < to;) {
    const midnight = (Math.floor(at / 1440) + 1) * 1440;
    const end = Math.min(to, midnight);
    parts.push([Math.floor(at / 1440) % 7, at % 1440, end - (midnight - 1440)]);
    at = end;
  }
  return parts;
}

/**
 * Windows in which a timer may water, in whole minutes, by weekday: every date of a start counts, even if it comes only every third week.
 * None if it is off.
 *
 * @param on earlier dates do not count
 * @throws TooMuchWork
 */
export function occupiedWeek(plan: Plan, on: EpochDay, effort = new Effort()): NoWaterWindow[] {
  if (plan.settings.mode === 'off') return [];
  const meetings = new Meetings(effort);
  const watering = wateringStations(plan);
  const span = { from: on, resumes: resumesAt(plan) };
  const minutes: Stretch[] = [];
  for (const program of programsByLetter(plan)) {
    if (missingOf(program, watering).length > 0) continue;
    const cycles = new ProgramCycles(plan, program, effort);
    for (const start of cycles.starts)
      for (const { begins, ends, dates } of namedStart(cycles, start, asSet(cycles), span, meetings)
        .stretches)
        for (let weekday = 0; weekday < 7; weekday++) {
          const days = meetings.classOf(start.days, dates.weekdays & (1 << weekday), dates.months);
          if (!(days.weekdays & (1 << weekday)) || meetings.firstOf(days, on) === null) continue;
          const from = Math.floor((weekday * SECONDS_PER_DAY + begins) / MINUTE);
          const to = Math.ceil((weekday * SECONDS_PER_DAY + ends) / MINUTE);
          minutes.push({ from, to: Math.min(to, from + SECONDS_PER_WEEK / MINUTE) });
        }
  }
  const parts = minutes.flatMap(byDay);
  return WEEKDAYS.flatMap((weekday, index) => {
    const apart: Stretch[] = [];
    for (const [, from, to] of parts.filter(([day]) => day === index).sort((a, b) => a[1] - b[1])) {
      const last = apart.at(-1);
      if (last && from <= last.to) last.to = Math.max(last.to, to);
      else apart.push({ from, to });
    }
    return apart.map(({ from, to }) => ({
      from: formatTime(from * MINUTE),
      // To the end of the day.
      to: formatTime((to % 1440) * MINUTE),
      weekdays: [weekday],
    }));
  });
}
