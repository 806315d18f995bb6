/** A timer's watering in formats other programs read. */
import {
  calendarWeekday,
  formatDate,
  formatTime,
  SECONDS_PER_DAY,
  simulate,
  wateringEvents,
  type EpochDay,
  type Plan,
  type WateringEvent,
} from '@water-clock/core';
import Papa from 'papaparse';
import { calendarOf, type CalendarEvent } from './calendar.ts';

const nameOf = (plan: Plan, station: number) =>
  plan.stations.find(({ number }) => number === station)?.name ?? `Station ${station}`;

const ruleOf = ({ rule }: WateringEvent): Pick<CalendarEvent, 'rule'> =>
  rule
    ? {
        rule: {
          freq: 'DAILY',
          interval: rule.everyDays,
          ...(rule.weekdays ? { byday: rule.weekdays.map(calendarWeekday) } : {}),
          ...(rule.monthDays ? { bymonthday: rule.monthDays } : {}),
        },
      }
    : {};

const two = (count: number) => String(count).padStart(2, '0');

/** `2026-11-28T04:05:00`. */
function secondText(second: number): string {
  const day = Math.floor(second / SECONDS_PER_DAY);
  const rest = second - day * SECONDS_PER_DAY;
  const minutes = Math.floor(rest / 60);
  return `${formatDate(day)}T${two(Math.floor(minutes / 60))}:${two(minutes % 60)}:${two(rest % 60)}`;
}

/**
 * Every run as an iCalendar event (RFC 5545) in the timer's local time: as a recurrence rule where one is exact, otherwise date by date for
 * two years.
 *
 * @param timerId makes event ids unique
 * @param made time of creation, ISO instant
 * @throws TooMuchWork
 */
export function wateringCalendar(
  plan: Plan,
  name: string,
  from: EpochDay,
  timerId: string,
  made: string,
): string {
  const events = wateringEvents(plan, from).map((event, i) => {
    const { station, program, on, seconds } = event;
    return {
      id: `${timerId}-${formatDate(from)}-${i + 1}@water-clock`,
      start: secondText(on),
      end: secondText(on + seconds),
      summary: `${nameOf(plan, station)} (station ${station}, program ${program})`,
      ...ruleOf(event),
    };
  });
  return calendarOf(`Watering: ${name}`, 'watering', made, events);
}

/**
 * Every run from a date on as CSV: one line a run, in order of start.
 *
 * @throws TooMuchWork
 */
export function runsTable(plan: Plan, from: EpochDay, days: number): string {
  const time = (second: number) => {
    const rest = second % 60;
    return `${formatTime(second - rest)}:${two(rest)}`;
  };
  const rows = simulate(plan, from, days).runs.map(({ station, letter, on, off }) => {
    const day = Math.floor(on / SECONDS_PER_DAY);
    return {
      date: formatDate(day),
      begins: time(on - day * SECONDS_PER_DAY),
      ends: time(((off % SECONDS_PER_DAY) + SECONDS_PER_DAY) % SECONDS_PER_DAY),
      seconds: off - on,
      station,
      name: nameOf(plan, station),
      program: letter,
    };
  });
  return Papa.unparse(rows, {
    columns: ['date', 'begins', 'ends', 'seconds', 'station', 'name', 'program'],
    newline: '\r\n',
    escapeFormulae: true,
  });
}
