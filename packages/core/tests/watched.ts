/** What people see of a timer and report: runs, dry periods, counts; and whether two accounts agree. */
import {
  type Cause,
  type Program,
  formatDate,
  simulate,
  simulateEvents,
  formatMoment,
  type Sighting,
  type Ask,
  type Plan,
  type TimedPress,
} from '@water-clock/core';
import { type Garden, TODAY, WATCHED_DAYS, DAY, type Random, some } from './faultyTimers.ts';

export interface Event {
  readonly station: number;
  readonly on: number;
  readonly off: number;
}

/** What really happens with these faults, in true time, on the observed days. Written independently of the search. */
export function happens({ plan, factory }: Garden, slips: readonly Cause[]): Event[] {
  let set = plan;
  let ahead = 0;
  const program = (letter: string, change: (program: Program) => Program) => {
    set = {
      ...set,
      programs: set.programs.map((program) =>
        program.letter === letter ? change(program) : program,
      ),
    };
  };
  for (const slip of slips) {
    if (slip.type === 'power-failure' && factory) set = factory;
    if (slip.type === 'clock' || slip.type === 'power-failure') ahead = slip.ahead;
    if (slip.type === 'extra-start')
      program(slip.program, (program) => ({ ...program, starts: [...program.starts, slip.start] }));
    if (slip.type === 'other-start')
      program(slip.program, (program) => ({
        ...program,
        starts: program.starts.map((start) => (start === slip.start ? slip.to : start)),
      }));
    if (slip.type === 'extra-program') set = { ...set, programs: [...set.programs, slip.program] };
    if (slip.type === 'percent' && slip.program === undefined)
      set = { ...set, settings: { ...set.settings, seasonalPercent: slip.percent } };
    if (slip.type === 'percent' && slip.program !== undefined)
      program(slip.program, (program) => ({ ...program, seasonalPercent: slip.percent }));
    if (slip.type === 'phase')
      program(slip.program, (program) => {
        if (program.days?.rule !== 'interval') return program;
        const first = Date.parse(program.days.firstDate) / 86400000 + slip.days;
        return { ...program, days: { ...program.days, firstDate: formatDate(first) } };
      });
    if (slip.type === 'days') program(slip.program, (program) => ({ ...program, days: slip.days }));
    if (slip.type === 'run')
      program(slip.program, (program) => ({
        ...program,
        runs: program.runs.map((run) =>
          run.station === slip.station ? { ...run, seconds: slip.seconds } : run,
        ),
      }));
    if (slip.type === 'half-set') program(slip.program, (program) => ({ ...program, days: null }));
    if (slip.type === 'rain-delay')
      set = { ...set, settings: { ...set.settings, wateringResumes: slip.until } };
    if (slip.type === 'off') set = { ...set, settings: { ...set.settings, mode: 'off' } };
  }
  const from = (TODAY - WATCHED_DAYS) * DAY;
  const first = Math.floor((from + ahead) / DAY) - 3;
  const done = slips.flatMap(eventsOf).sort((a, b) => (a.at < b.at ? -1 : 1));
  const left = simulate(set, first, WATCHED_DAYS + 6).runs.map(({ station, on, off }) => ({
    ...{ station, on: on - ahead, off: off - ahead },
  }));
  const events: Event[] = (done.length > 0 ? pressedBy(set, ahead, done) : left).filter((event) =>
    slips.every((slip) => !(slip.type === 'dead-station' && slip.station === event.station)),
  );
  return events
    .filter(({ on, off }) => off > from && on < TODAY * DAY)
    .sort((a, b) => a.on - b.on || a.station - b.station);
}

/** A fault applied to the timer. */
function eventsOf(slip: Cause): TimedPress[] {
  const at = (second: number) => ({ at: formatMoment(second) });
  switch (slip.type) {
    case 'manual':
      return [{ do: 'manual', station: slip.station ?? 0, seconds: slip.seconds, ...at(slip.at) }];
    case 'manual-program':
      return [{ do: 'manual', program: slip.program, ...at(slip.at) }];
    case 'stopped':
      return [{ do: 'stop', ...at(slip.at) }];
    case 'outage':
      return [
        { do: 'powerOff', ...at(slip.from) },
        { do: 'powerOn', ...at(slip.to) },
      ];
    case 'sensor':
      return [
        { do: 'wet', ...at(slip.from) },
        { do: 'dry', ...at(slip.to) },
      ];
    case 'percent-changed':
      return [{ do: 'percent', to: slip.after, ...at(slip.at) }];
    case 'rain-delay-set':
      return [{ do: 'rainDelay', hours: slip.hours, ...at(slip.at) }];
    default:
      return [];
  }
}

function pressedBy(plan: Plan, ahead: number, events: readonly TimedPress[]): Event[] {
  const [from, days] = [TODAY - WATCHED_DAYS - 3, WATCHED_DAYS + 6];
  const [first, last] = [formatMoment(from * DAY), formatMoment((from + days) * DAY)];
  const made = simulateEvents(plan, from, days, {
    ...{ format: 'water-clock-events', version: 1, clockAheadSeconds: ahead },
    // A wrong explanation may name any moment.
    events: events.filter(({ at }) => at >= first && at < last),
  });
  if (!made.ok) throw new Error(JSON.stringify(made.faults));
  return made.value.runs.map(({ station, on, off }) => ({ station, on, off }));
}

const moment = (second: number) => formatMoment(second).slice(0, 16);
export const secondsOf = (text: string) => Date.parse(`${text}Z`) / 1000;
/** A run as reported: to five minutes, often with the station, sometimes with the length. */
function told(random: Random, { station, on, off }: Event): Sighting {
  const minutes = Math.max(1, Math.round((off - on) / 60));
  return {
    saw: 'ran',
    from: moment(Math.round(on / 300) * 300),
    ...(random() < 0.9 ? { station } : {}),
    ...(random() < 0.7 ? { minutes: minutes > 20 ? Math.round(minutes / 5) * 5 : minutes } : {}),
  };
}

/** A station that should have run on a night and did not: reported for all consecutive days on which it did not. */
function missed({ station, on }: Event, events: readonly Event[]): Sighting {
  const own = events.filter((event) => event.station === station);
  const [first, last] = [(TODAY - WATCHED_DAYS) * DAY, TODAY * DAY];
  const before = Math.max(first, ...own.map(({ off }) => off).filter((off) => off <= on));
  const after = Math.min(last, ...own.map((event) => event.on).filter((begin) => begin >= on));
  const from = Math.ceil(before / 3600) * 3600;
  const to = Math.floor(after / 3600) * 3600;
  // If nothing else ran either, people say so.
  const nothing = !events.some((event) => event.on < to && event.off > from);
  return {
    saw: 'dry',
    from: moment(from),
    to: moment(to),
    ...(nothing ? {} : { station }),
    ...(before > first ? { ranBefore: true } : {}),
    ...(after < last ? { ranAfter: true } : {}),
  };
}

/** How often a station ran in the night in which it did. */
function counted({ station, on }: Event, events: readonly Event[]): Sighting {
  const noon = Math.floor((on - DAY / 2) / DAY) * DAY + DAY / 2;
  const own = events.filter(
    (event) => event.station === station && event.on < noon + DAY && event.off > noon,
  );
  const times = own.filter(
    (event, i) => i === 0 || event.on - (own[i - 1]?.off ?? 0) > 2700,
  ).length;
  return { saw: 'ran', from: moment(noon), to: moment(noon + DAY), station, times };
}

/** Whether events contradict a sighting, by a plain rule of its own. */
export function contradicts(sighting: Sighting, events: readonly Event[]): boolean {
  const from = secondsOf(sighting.from);
  const own = events.filter(
    ({ station }) => sighting.station === undefined || station === sighting.station,
  );
  if (sighting.saw === 'dry') {
    const to = secondsOf(sighting.to ?? sighting.from);
    const ran = (begin: number, end: number) => own.some(({ on, off }) => on < end && off > begin);
    // What ran before and after is reported to ten minutes.
    const [before, after] = [sighting.ranBefore ? 600 : 0, sighting.ranAfter ? 600 : 0];
    return (
      ran(from + before, to - after) ||
      (before > 0 && !ran(from - 5400, from + before)) ||
      (after > 0 && !ran(to - after, to + 5400))
    );
  }
  if (sighting.to !== undefined) {
    const to = secondsOf(sighting.to);
    const within = own.filter(({ on, off }) => on < to && off > from);
    const times = within.filter(
      (event, i) => i === 0 || event.on - (within[i - 1]?.off ?? 0) > 2700,
    );
    return times.length !== sighting.times;
  }
  return !own.some(({ on, off }) => {
    const seconds = (sighting.minutes ?? 0) * 60;
    const long =
      sighting.minutes === undefined || Math.abs(off - on - seconds) <= 0.3 * seconds + 60;
    const isOn = sighting.minutes === undefined && on <= from && off > from;
    return (isOn || Math.abs(on - from) <= 900) && long;
  });
}

/** Moments at which something ran, as far as these sightings say: for a night, every hour of it. */
export function momentsTold({ saw, from, to, ranBefore, ranAfter }: Sighting): number[] {
  const [first, last] = [secondsOf(from), secondsOf(to ?? from)];
  if (saw === 'dry')
    return [...(ranBefore ? [first - 1800] : []), ...(ranAfter ? [last + 1800] : [])];
  return Array.from({ length: Math.floor((last - first) / 3600) + 1 }, (_, i) => first + i * 3600);
}

/**
 * Three sightings of what happened, at least one (or `tellingEach`) of each fault that would be impossible without it. Null if some fault
 * shows in nothing.
 */
export function sightingsFrom(
  random: Random,
  garden: Garden,
  slips: readonly Cause[],
  { tellingEach = 1, count = 3 } = {},
): Sighting[] | null {
  const events = happens(garden, slips);
  const expected = happens(garden, []);
  const all: Sighting[] = [
    ...events.map((event) => told(random, event)),
    // No one counts a night that is not over.
    ...events
      .filter(({ on }) => on < (TODAY - 0.5) * DAY && random() < 0.15)
      .map((event) => counted(event, events)),
    ...expected
      .filter(
        ({ station, on, off }) =>
          !events.some((event) => event.station === station && event.on < off && event.off > on),
      )
      .map((event) => missed(event, events))
      .filter(({ from, to = from }) => secondsOf(to) - secondsOf(from) >= 6 * 3600),
  ].filter((sighting) => !contradicts(sighting, events));
  const seen = new Set<string>();
  const distinct = all.filter((sighting) => {
    const text = JSON.stringify(sighting);
    const isNew = !seen.has(text);
    seen.add(text);
    return isNew;
  });
  const chosen: Sighting[] = [];
  for (const slip of slips) {
    const without = happens(
      garden,
      slips.filter((cause) => cause !== slip),
    );
    const telling = distinct.filter(
      (sighting) => !chosen.includes(sighting) && contradicts(sighting, without),
    );
    if (telling.length < tellingEach) return null;
    chosen.push(...some(random, telling, tellingEach));
  }
  const rest = some(
    random,
    distinct.filter((sighting) => !chosen.includes(sighting)),
    count - chosen.length,
  );
  return chosen.length + rest.length === count ? [...chosen, ...rest] : null;
}

/** A homeowner's answer to whether a station ran in a night. */
export function answerTo({ station, from, to }: Ask, events: readonly Event[]): Sighting {
  const own = events.filter(
    (event) => event.station === station && event.on < to && event.off > from,
  );
  const [first] = own;
  const span = { from: moment(from), to: moment(to), station };
  if (!first) return { saw: 'dry', ...span };
  const minutes = Math.max(1, Math.round((first.off - first.on) / 60));
  return { saw: 'ran', from: moment(Math.round(first.on / 300) * 300), station, minutes };
}

/** Whether two courses of events look alike to an observer. */
export function lookAlike(a: readonly Event[], b: readonly Event[]): boolean {
  return (
    a.length === b.length &&
    a.every(
      ({ station, on, off }, i) =>
        station === b[i]?.station &&
        Math.abs(on - (b[i]?.on ?? 0)) <= 600 &&
        Math.abs(off - (b[i]?.off ?? 0)) <= 600,
    )
  );
}

/** Minutes between two times of day. */
const apartOnClock = (a: number, b: number) => {
  const minutes = Math.abs(Math.round((a - b) / 60)) % 1440;
  return Math.min(minutes, 1440 - minutes);
};

/**
 * Whether an explanation names the same cause: the same setting at the same place, in the same direction, so that one checks the right
 * thing and finds it wrong. Clocks are compared by time of day: a wrong date shows at the same check.
 */
export function namesSame(a: Cause, b: Cause): boolean {
  if (a.type === 'clock' || a.type === 'power-failure')
    return a.type === b.type && 'ahead' in b && apartOnClock(a.ahead, b.ahead) <= 10;
  if (a.type === 'percent' && b.type === 'percent')
    return a.program === b.program && a.percent > 100 === b.percent > 100;
  if (a.type === 'percent-changed' && b.type === 'percent-changed')
    return a.after > a.before === b.after > b.before;
  if (a.type === 'outage' || a.type === 'stopped') return a.type === b.type;
  if (a.type === 'manual-program' && b.type === 'manual-program') return a.program === b.program;
  if (a.type === 'run' && b.type === 'run')
    return a.program === b.program && a.station === b.station;
  if ((a.type === 'days' && b.type === 'days') || (a.type === 'phase' && b.type === 'phase'))
    return a.program === b.program;
  if (a.type === 'extra-start' && b.type === 'extra-start') return a.program === b.program;
  // Either way one asks who was at the timer then.
  if (a.type === 'manual' && b.type === 'manual')
    return (
      a.station === null ||
      b.station === null ||
      a.station === b.station ||
      Math.abs(a.at - b.at) <= 900
    );
  const keepDry = ['sensor', 'rain-delay', 'rain-delay-set'];
  if (a.type === 'sensor' || a.type === 'rain-delay') return a.type === b.type;
  if (a.type === 'rain-delay-set') return keepDry.includes(b.type);
  return JSON.stringify(a) === JSON.stringify(b);
}
