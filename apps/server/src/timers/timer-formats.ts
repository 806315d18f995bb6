/** A timer's watering in formats that other programs read. */
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
import { ICalCalendar, ICalEventRepeatingFreq, type ICalWeekday } from 'ical-generator';
import Papa from 'papaparse';
import { oneLine } from '../platform/one-line.ts';

const nameOf = (plan: Plan, station: number) =>
  plan.stations.find(({ number }) => number === station)?.name ?? `Station ${station}`;

function ruleOf({ rule }: WateringEvent) {
  if (!rule) return {};
  return {
    repeating: {
      freq: ICalEventRepeatingFreq.DAILY,
      interval: rule.everyDays,
      // The cast holds: `MO` to `SU` are the library's own names of the days.
      ...(rule.weekdays ? { byDay: rule.weekdays.map(calendarWeekday) as ICalWeekday[] } : {}),
      ...(rule.monthDays ? { byMonthDay: [...rule.monthDays] } : {}),
    },
  };
}

/**
 * Every run as an event of iCalendar (RFC 5545), at the hours of the timer's own clock (floating times): by a rule where one is
 * exact, else date by date for two years.
 *
 * @param timerId makes the ids of its events its own.
 * @throws TooMuchWork
 */
export function wateringCalendar(
  plan: Plan,
  name: string,
  from: EpochDay,
  timerId: string,
): string {
  const calendar = new ICalCalendar({
    name: oneLine(`Watering: ${name}`),
    prodId: '//Water Clock//watering//EN',
  });
  wateringEvents(plan, from).forEach((event, i) => {
    const { station, program, on, seconds } = event;
    calendar.createEvent({
      id: `${timerId}-${formatDate(from)}-${i + 1}@water-clock`,
      floating: true,
      start: new Date(on * 1000),
      end: new Date((on + seconds) * 1000),
      summary: oneLine(`${nameOf(plan, station)} (station ${station}, program ${program})`),
      ...ruleOf(event),
    });
  });
  return calendar.toString();
}

/**
 * Every run from a date on as CSV: one line a run, in the order in which they begin.
 *
 * @throws TooMuchWork
 */
export function runsTable(plan: Plan, from: EpochDay, days: number): string {
  const time = (second: number) => {
    const rest = second % 60;
    return `${formatTime(second - rest)}:${String(rest).padStart(2, '0')}`;
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
