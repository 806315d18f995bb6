/** The events document, version 1: what people, weather and power do to a timer (timing-rules.md section 9). */
import type { Fault, Outcome } from '../document/fault.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  integer,
  list,
  object,
  oneOf,
  optional,
  required,
  variant,
  type Reader,
} from '../document/reader.ts';
import { readLetter } from '../plan/readPlan.ts';
import {
  formatMoment,
  parseSecond,
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
} from '../time/calendar.ts';
import { readSecond } from '../time/timeReaders.ts';
import { assertDefined } from '../document/assertDefined.ts';
import type { Plan } from '../plan/plan.ts';
import { say } from '../language/say.ts';

export const EVENTS_FORMAT = 'water-clock-events';
export const EVENTS_VERSION = 1;

/** An action on a timer. */
export type Press =
  /** One station, one program, or neither: every station. */
  | {
      readonly do: 'manual';
      readonly station?: number;
      readonly program?: string;
      readonly seconds?: number;
    }
  | { readonly do: 'mode'; readonly to: 'run' | 'off' }
  /** 0: none. */
  | { readonly do: 'rainDelay'; readonly hours: number }
  | { readonly do: 'percent'; readonly to: number }
  | { readonly do: 'sensor'; readonly to: 'active' | 'bypass' }
  /** What the timer's clock then shows, "YYYY-MM-DDTHH:MM:SS". */
  | { readonly do: 'clock'; readonly to: string }
  | { readonly do: 'stop' | 'wet' | 'dry' | 'powerOff' | 'powerOn' };

/** An action with its moment in true time, "YYYY-MM-DDTHH:MM:SS". */
export type TimedPress = Press & { readonly at: string };

export interface Events {
  readonly format: typeof EVENTS_FORMAT;
  readonly version: typeof EVENTS_VERSION;
  readonly clockAheadSeconds?: number;
  /** In order. */
  readonly events: readonly TimedPress[];
}

/** Most seconds between a clock showing another date and true time. */
const FARTHEST_AHEAD = 8030 * 366 * SECONDS_PER_DAY;
const MOST_RAIN_HOURS = 4800;
const at = required(readSecond, 'a moment');
const seconds = required(integer(0, SECONDS_PER_DAY), '0 to 86400');

type Manual = TimedPress & { do: 'manual' };

/** A manual run of a station, a program or all stations, told apart by their fields. */
const readManual: Reader<Manual> = (value, path, faults) => {
  const given = typeof value === 'object' && value !== null ? Object.keys(value) : [];
  const by = { do: required(oneOf(['manual'])), at };
  if (given.includes('program'))
    return object<{ do: 'manual'; at: string; program: string }>({
      ...by,
      program: required(readLetter, say`one letter`),
    })(value, path, faults);
  if (given.includes('station'))
    return object<{ do: 'manual'; at: string; station: number; seconds: number }>({
      ...by,
      station: required(integer(1, 99), say`1 to 99`),
      seconds,
    })(value, path, faults);
  return object<{ do: 'manual'; at: string; seconds: number }>({ ...by, seconds })(
    value,
    path,
    faults,
  );
};

const plain = (name: 'stop' | 'wet' | 'dry' | 'powerOff' | 'powerOn') =>
  object<Extract<TimedPress, { do: typeof name }>>({ do: required(oneOf([name])), at });

export const readTimedPress: Reader<TimedPress> = variant<TimedPress>('do', {
  manual: readManual,
  stop: plain('stop'),
  mode: object<Extract<TimedPress, { do: 'mode' }>>({
    do: required(oneOf(['mode'])),
    at,
    to: required(oneOf(['run', 'off']), 'run or off'),
  }),
  rainDelay: object<Extract<TimedPress, { do: 'rainDelay' }>>({
    do: required(oneOf(['rainDelay'])),
    at,
    hours: required(integer(0, MOST_RAIN_HOURS), say`0 to ${MOST_RAIN_HOURS}`),
  }),
  percent: object<Extract<TimedPress, { do: 'percent' }>>({
    do: required(oneOf(['percent'])),
    at,
    to: required(integer(0, 500), '0 to 500'),
  }),
  sensor: object<Extract<TimedPress, { do: 'sensor' }>>({
    do: required(oneOf(['sensor'])),
    at,
    to: required(oneOf(['active', 'bypass']), 'active or bypass'),
  }),
  clock: object<Extract<TimedPress, { do: 'clock' }>>({
    do: required(oneOf(['clock'])),
    at,
    to: required(readSecond, 'a moment'),
  }),
  wet: plain('wet'),
  dry: plain('dry'),
  powerOff: plain('powerOff'),
  powerOn: plain('powerOn'),
});

const eventsShape = object<Events>({
  format: required(oneOf([EVENTS_FORMAT]), `"${EVENTS_FORMAT}"`),
  version: required(oneOf([EVENTS_VERSION]), `${EVENTS_VERSION}`),
  clockAheadSeconds: optional(integer(-FARTHEST_AHEAD, FARTHEST_AHEAD)),
  events: required(list(readTimedPress), 'a list of events'),
});

/** Reads an events document: strict, with events in order of time. */
export function readEvents(value: unknown): Outcome<Events> {
  const other = foreignDocument(value, EVENTS_FORMAT, EVENTS_VERSION);
  if (other) return { ok: false, faults: [other] };
  const faults: Fault[] = [];
  const events = eventsShape(value, [], faults);
  if (!events) return { ok: false, faults };
  // Moments of equal length compare as text.
  events.events.forEach((event, i) => {
    const before = events.events[i - 1];
    if (before && event.at < before.at)
      faults.push({ code: 'out-of-order', path: ['events', i, 'at'], before: before.at });
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: events };
}

/** Reads an events document from a file's text. */
export const readEventsText = (json: string): Outcome<Events> => readJson(json, readEvents);

export const momentOf = (event: TimedPress): ClockSecond =>
  assertDefined(parseSecond(event.at), 'parseSecond(event.at)');

/** Faults of events that cannot be simulated over some days on a plan's timer. */
export function eventFaults(
  { events, clockAheadSeconds = 0 }: Events,
  { timer }: Plan,
  from: EpochDay,
  days: number,
): Fault[] {
  const faults: Fault[] = [];
  const [begin, end] = [from * SECONDS_PER_DAY, (from + days) * SECONDS_PER_DAY];
  if (begin + clockAheadSeconds < 0)
    faults.push({
      code: 'out-of-range',
      path: ['clockAheadSeconds'],
      actual: clockAheadSeconds,
      least: -begin,
      most: FARTHEST_AHEAD,
    });
  events.forEach((event, i) => {
    const moment = momentOf(event);
    if (moment < begin || moment >= end)
      faults.push({
        code: 'outside-span',
        path: ['events', i, 'at'],
        from: formatMoment(begin),
        to: formatMoment(end - 1),
      });
    if (event.do === 'powerOff' && timer.powerLoss?.settings === 'factory')
      faults.push({ code: 'factory-not-known', path: ['events', i, 'do'] });
  });
  return faults;
}
