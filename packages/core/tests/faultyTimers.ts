/** Gardens with random faults, and what a homeowner would have seen. */
import {
  emptyPlan,
  factoryPlan,
  formatDate,
  formatTime,
  letterAt,
  SHIPPED_KINDS,
  WEEKDAYS,
  type Days,
  type Plan,
  type Program,
  type Sighting,
  type Cause,
} from '@water-clock/core';
import { happens, secondsOf, momentsTold, type Event, contradicts } from './watched.ts';

export type Random = () => number;

/** Mulberry32: small, even, and the same everywhere. */
export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

const whole = (random: Random, least: number, most: number) =>
  least + Math.floor(random() * (most - least + 1));
export const pick = <T>(random: Random, all: readonly T[]): T => {
  const item = all[Math.floor(random() * all.length)];
  if (item === undefined) throw new Error('nothing to pick from');
  return item;
};

export function some<T>(random: Random, all: readonly T[], count: number): T[] {
  const left = [...all];
  return Array.from({ length: Math.min(count, left.length) }, () =>
    left.splice(Math.floor(random() * left.length), 1),
  ).flat();
}

/** 2027-06-15, the day of the question. */
export const TODAY = 20_984;
export const DAY = 86_400;
/** Sightings are from the ten days before. */
export const WATCHED_DAYS = 10;

const KINDS = SHIPPED_KINDS.filter(
  ({ kind: { timer } }) => timer.stationCount >= 4 && timer.stationCount <= 12,
);

export interface Garden {
  readonly plan: Plan;
  readonly factory: Plan | null;
}

function daysFor(random: Random, { timer }: Plan): Days {
  const rule = pick(
    random,
    (['weekdays', 'weekdays', 'weekdays', 'interval', 'daily', 'odd', 'even'] as const).filter(
      (one) => timer.dayRules.includes(one),
    ),
  );
  if (rule === 'weekdays') {
    const chosen = some(random, WEEKDAYS, whole(random, 2, 4));
    return { rule, weekdays: WEEKDAYS.filter((one) => chosen.includes(one)) };
  }
  if (rule === 'interval') {
    const everyDays = whole(random, 2, 5);
    return { rule, everyDays, firstDate: formatDate(TODAY - whole(random, 0, everyDays - 1)) };
  }
  return { rule };
}

/** A garden as technicians leave it: one to three programs at night, each station in one of them. */
export function gardenFrom(random: Random): Garden {
  const { kind } = pick(random, KINDS);
  const { timer } = kind;
  const empty = emptyPlan(timer);
  const stations = some(random, empty.stations, whole(random, 3, timer.stationCount)).map(
    ({ number }) => number,
  );
  const count = Math.min(whole(random, 1, 3), timer.programCount, stations.length);
  const step = timer.startStepMinutes;
  const programs = Array.from({ length: count }, (_, i): Program => {
    const own = stations.filter((_station, k) => k % count === i).sort((a, b) => a - b);
    const first = whole(random, Math.ceil((20 * 60) / step), Math.floor((30 * 60) / step)) * step;
    return {
      letter: letterAt(i),
      starts: [formatTime((first * 60) % DAY)],
      runs: own.map((station) => ({ station, seconds: whole(random, 4, 30) * 60 })),
      days: daysFor(random, empty),
    };
  });
  const plan = { ...empty, programs };
  return { plan, factory: factoryPlan(plan, kind) };
}

const CLOCKS: readonly ((random: Random) => number)[] = [
  () => DAY / 2,
  () => -DAY / 2,
  (random) => pick(random, [3600, -3600]),
  (random) => pick(random, [1, -1, 2, -2, 3, -3]) * DAY,
  (random) => whole(random, 15, 7200) * 60 * pick(random, [1, -1]),
];

/** One fault; null if the chosen one is not possible in this garden. */
function slipFrom(random: Random, { plan, factory }: Garden): Cause | null {
  const program = pick(random, plan.programs);
  const { letter, starts, runs, days } = program;
  const step = plan.timer.startStepMinutes * 60;
  const moment = (TODAY - whole(random, 2, WATCHED_DAYS - 1)) * DAY;
  const kind = pick(random, [
    'clock',
    'clock',
    'clock',
    'extra-start',
    'extra-start',
    'other-start',
    'extra-program',
    'percent',
    'phase',
    'days',
    'run',
    'half-set',
    'rain-delay',
    'off',
    'sensor',
    'manual',
    'dead-station',
    'power-failure',
  ] as const);
  switch (kind) {
    case 'clock':
      return { type: kind, ahead: pick(random, CLOCKS)(random) };
    case 'extra-start': {
      const start = formatTime(whole(random, 0, DAY / step - 1) * step);
      return starts.includes(start) ? null : { type: kind, program: letter, start };
    }
    case 'other-start': {
      const [start = '00:00'] = starts;
      const hour = (Number(start.slice(0, 2)) + 12) % 24;
      const to = `${String(hour).padStart(2, '0')}${start.slice(2)}`;
      return { type: kind, program: letter, start, to };
    }
    case 'extra-program': {
      const [preset] = factory?.programs ?? [];
      if (!preset || plan.programs.length === plan.timer.programCount) return null;
      return { type: kind, program: { ...preset, letter: letterAt(plan.programs.length) } };
    }
    case 'percent': {
      const { scope, lowestPercent, highestPercent, stepPercent } = plan.timer.seasonal;
      if (scope === 'none') return null;
      const steps = Math.floor((highestPercent - Math.max(lowestPercent, 10)) / stepPercent);
      const percent = Math.max(lowestPercent, 10) + whole(random, 0, steps) * stepPercent;
      if (Math.abs(percent - 100) < 25) return null;
      return scope === 'timer' ? { type: kind, percent } : { type: kind, program: letter, percent };
    }
    case 'phase':
      if (days?.rule !== 'interval') return null;
      return { type: kind, program: letter, days: whole(random, 1, days.everyDays - 1) };
    case 'days': {
      if (days?.rule === 'odd' || days?.rule === 'even')
        return {
          type: kind,
          program: letter,
          days: { rule: days.rule === 'odd' ? 'even' : 'odd' },
        };
      if (days?.rule !== 'weekdays') return null;
      const wrong = pick(random, WEEKDAYS);
      const weekdays = WEEKDAYS.filter((one) => days.weekdays.includes(one) !== (one === wrong));
      return { type: kind, program: letter, days: { rule: 'weekdays', weekdays } };
    }
    case 'run': {
      const run = pick(random, runs);
      const seconds = whole(random, 1, 60) * 60;
      if (Math.abs(seconds - run.seconds) < 300) return null;
      return { type: kind, program: letter, station: run.station, seconds };
    }
    case 'half-set':
      return { type: kind, program: letter };
    case 'rain-delay':
      return { type: kind, until: formatDate(TODAY - whole(random, 0, 5)) };
    case 'off':
      return { type: kind };
    case 'sensor':
      return { type: kind, from: moment - 6 * 3600, to: moment + whole(random, 12, 60) * 3600 };
    case 'manual':
      return {
        type: kind,
        station: pick(random, runs).station,
        at: moment + whole(random, 8 * 12, 20 * 12) * 300,
        seconds: whole(random, 3, 20) * 60,
      };
    case 'dead-station':
      return { type: kind, station: pick(random, runs).station };
    case 'power-failure':
      return factory && factory.programs.length > 0
        ? { type: kind, ahead: whole(random, -1400, 1400) * 60 }
        : null;
  }
}

/** An action on it in the observed days; null if not possible. */
export function deedFrom(random: Random, garden: Garden): Cause | null {
  const { plan } = garden;
  const runs = happens(garden, []);
  const met = runs.length > 0 ? pick(random, runs) : null;
  if (!met) return null;
  const within = met.on + Math.round(((met.off - met.on) * (0.2 + 0.5 * random())) / 60) * 60;
  const noon = (TODAY - whole(random, 2, WATCHED_DAYS - 2)) * DAY + DAY / 2;
  const kind = pick(random, [
    'manual',
    'manual-program',
    'stopped',
    'outage',
    'outage',
    'percent-changed',
    'rain-delay-set',
  ] as const);
  switch (kind) {
    case 'manual':
      // In the middle of what the timer does by itself.
      return { type: kind, station: pick(random, runs).station, at: within, seconds: 600 };
    case 'manual-program':
      return { type: kind, program: pick(random, plan.programs).letter, at: noon };
    case 'stopped':
      return { type: kind, at: within };
    case 'outage': {
      const from = random() < 0.5 ? within : met.on - whole(random, 5, 90) * 60;
      return { type: kind, from, to: from + whole(random, 20, 300) * 60 };
    }
    case 'percent-changed': {
      const { scope, lowestPercent, highestPercent, stepPercent } = plan.timer.seasonal;
      if (scope !== 'timer') return null;
      const steps = Math.floor((highestPercent - Math.max(lowestPercent, 20)) / stepPercent);
      const after = Math.max(lowestPercent, 20) + whole(random, 0, steps) * stepPercent;
      return Math.abs(after - 100) < 30 ? null : { type: kind, at: noon, before: 100, after };
    }
    case 'rain-delay-set':
      return { type: kind, at: noon, hours: 24 * whole(random, 1, 4) };
  }
}

/** Faults that hide or exclude each other. */
function goTogether(a: Cause, b: Cause): boolean {
  const whole: readonly Cause['type'][] = ['off', 'power-failure'];
  return a.type !== b.type && !whole.includes(a.type) && !whole.includes(b.type);
}

export function slipsFrom(random: Random, garden: Garden, count: 1 | 2): Cause[] | null {
  const slips: Cause[] = [];
  for (let tries = 0; tries < 20 && slips.length < count; tries++) {
    const slip = slipFrom(random, garden);
    if (slip && slips.every((cause) => goTogether(cause, slip))) slips.push(slip);
  }
  return slips.length === count ? slips : null;
}

/** Every single fault of the plainest kinds: if one explains the sightings, a second has nothing to explain. */
function* plainSlips({ plan, factory }: Garden, sightings: readonly Sighting[]): Generator<Cause> {
  yield { type: 'off' };
  const { scope, lowestPercent, highestPercent } = plan.timer.seasonal;
  if (scope !== 'none')
    for (let percent = Math.max(10, lowestPercent); percent <= highestPercent; percent += 10)
      for (const { letter } of scope === 'program' ? plan.programs : plan.programs.slice(0, 1))
        yield scope === 'program'
          ? { type: 'percent', program: letter, percent }
          : { type: 'percent', percent };
  // A clock error that moves some run to a sighting.
  for (const { saw, from, to, station } of sightings)
    if (saw === 'ran' && to === undefined)
      for (const event of happens({ plan, factory }, []))
        if (station === undefined || event.station === station)
          yield { type: 'clock', ahead: Math.round((event.on - secondsOf(from)) / 60) * 60 };
  for (const { minutes } of sightings)
    if (minutes !== undefined)
      for (const { letter, runs } of plan.programs)
        for (const { station } of runs)
          yield { type: 'run', program: letter, station, seconds: minutes * 60 };
  for (const ahead of [DAY / 2, -DAY / 2, 3600, -3600]) yield { type: 'clock', ahead };
  for (let days = 1; days <= 3; days++)
    for (const ahead of [days * DAY, -days * DAY]) yield { type: 'clock', ahead };
  for (const { letter, starts, days } of plan.programs) {
    yield { type: 'half-set', program: letter };
    if (days?.rule === 'odd' || days?.rule === 'even')
      yield { type: 'days', program: letter, days: { rule: days.rule === 'odd' ? 'even' : 'odd' } };
    for (const start of starts) {
      const hour = (Number(start.slice(0, 2)) + 12) % 24;
      const to = `${String(hour).padStart(2, '0')}${start.slice(2)}`;
      yield { type: 'other-start', program: letter, start, to };
    }
    if (days?.rule === 'weekdays')
      for (const wrong of WEEKDAYS) {
        const weekdays = WEEKDAYS.filter((one) => days.weekdays.includes(one) !== (one === wrong));
        yield { type: 'days', program: letter, days: { rule: 'weekdays', weekdays } };
      }
    if (days?.rule === 'interval')
      for (let by = 1; by < days.everyDays; by++)
        yield { type: 'phase', program: letter, days: by };
  }
  for (const { number } of plan.stations) yield { type: 'dead-station', station: number };
  for (let back = 0; back <= WATCHED_DAYS; back++)
    yield { type: 'rain-delay', until: formatDate(TODAY - back) };
  const [preset] = factory?.programs ?? [];
  if (preset && plan.programs.length < plan.timer.programCount)
    yield { type: 'extra-program', program: { ...preset, letter: letterAt(plan.programs.length) } };
}

/** Every start that moves some run to a sighting, as a leftover or a replacement. */
function* startSlips(garden: Garden, sightings: readonly Sighting[]): Generator<Cause> {
  const { plan } = garden;
  const step = plan.timer.startStepMinutes * 60;
  const starts = new Set<string>();
  for (const { letter, starts: set, runs } of plan.programs)
    for (const sighting of sightings)
      for (const moment of sighting.saw === 'ran' && sighting.to !== undefined
        ? []
        : momentsTold(sighting)) {
        let offset = 0;
        for (const { station, seconds } of runs) {
          if (sighting.station === undefined || sighting.station === station)
            starts.add(`${letter} ${set[0]} ${Math.round((moment - offset) / step) * step}`);
          offset += seconds;
        }
      }
  for (const text of starts) {
    const [program = '', start = '', at] = text.split(' ');
    const to = formatTime(((Number(at) % DAY) + DAY) % DAY);
    if (to === start) continue;
    yield { type: 'extra-start', program, start: to };
    yield { type: 'other-start', program, start, to };
  }
}

/** Whether one fault alone, or none, explains everything. */
export function oneIsEnough(
  garden: Garden,
  sightings: readonly Sighting[],
  known: readonly Cause[],
): boolean {
  const fits = (events: readonly Event[]) =>
    sightings.every((sighting) => !contradicts(sighting, events));
  const events = happens(garden, known);
  if (fits(events)) return true;
  // Some manual run.
  const stations = garden.plan.stations.map(({ number }) => number);
  for (const sighting of sightings)
    for (const on of momentsTold(sighting))
      for (const station of sighting.station === undefined ? stations : [sighting.station])
        if (fits([...events, { station, on, off: on + 60 * (sighting.minutes ?? 10) }]))
          return true;
  // A sensor over any span of days, to six hours.
  for (let from = TODAY - WATCHED_DAYS; from < TODAY; from += 0.25)
    for (let to = from + 0.25; to <= TODAY; to += 0.25)
      if (fits(events.filter(({ on, off }) => on >= to * DAY || off <= from * DAY))) return true;
  for (const slips of [plainSlips(garden, sightings), startSlips(garden, sightings)])
    for (const slip of slips) if (fits(happens(garden, [...known, slip]))) return true;
  return false;
}
