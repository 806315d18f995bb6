/**
 * The slow truth: what a timer does, second by second, and whether cycles overlap, date by date. Written from docs/spec/timing-rules.md
 * alone, as plainly as possible. It shares only calendar arithmetic (tested separately) and types with the engine.
 */
import {
  civilOf,
  parseDate,
  parseMoment,
  parseTime,
  SECONDS_PER_DAY,
  type Plan,
  type Program,
  type TimedPress,
} from '@water-clock/core';
import { dayOf, enabled, heldBack, TickingCycle, weekdayOf } from './tickingCycle.ts';

/** A cycle alone: what it occupies, and its runs, for a start due at a moment; null if a window cancels it or nothing runs. */
export function referenceNominal(
  plan: Plan,
  program: Program,
  percent: number,
  due: number,
): { begins: number; ends: number; runs: TickingCycle['runs'] } | null {
  let begins = due;
  while (heldBack(plan, program, begins)) {
    if (plan.timer.inWindow === 'cut') return null;
    begins += 60 - (begins % 60);
  }
  const cycle = new TickingCycle(plan, program, percent, begins);
  if (cycle.finished) return null;
  let held = false;
  for (let now = begins; !cycle.finished; now++) {
    if (now % 60 === 0) held = heldBack(plan, program, now);
    cycle.close(now);
    if (held && plan.timer.inWindow === 'cut' && !cycle.finished) cycle.stop(now);
    cycle.open(now, held);
  }
  return { begins, ends: cycle.ended, runs: cycle.runs };
}

export function percentIn(plan: Plan, program: Program, month: number): number {
  const { scope, byMonth } = plan.timer.seasonal;
  if (scope === 'none') return 100;
  if (scope === 'program') return program.seasonalPercent ?? 100;
  const monthly = byMonth ? plan.settings.monthlyPercent : undefined;
  return monthly?.[month - 1] ?? plan.settings.seasonalPercent ?? 100;
}

/** Section 2: the day rule and its blocked weekdays, for one date and second of the day. */
function keepsRule(plan: Plan, { days }: Program, day: number, second: number): boolean {
  if (days === null) return false;
  const weekday = weekdayOf(day);
  if ('blockedWeekdays' in days && days.blockedWeekdays?.includes(weekday)) return false;
  const dayOfMonth = civilOf(day).day;
  switch (days.rule) {
    case 'daily':
      return true;
    case 'weekdays':
      return days.weekdays.includes(weekday);
    case 'interval':
      return Math.abs(day - (parseDate(days.firstDate) ?? 0)) % days.everyDays === 0;
    case 'hours': {
      const first = parseMoment(days.first) ?? 0;
      return Math.abs(day * SECONDS_PER_DAY + second - first) % (days.everyHours * 3600) === 0;
    }
    case 'odd':
      return dayOfMonth % 2 === 1 && !(dayOfMonth === 31 && plan.timer.oddDaysSkip31);
    case 'even':
      return dayOfMonth % 2 === 0;
  }
}

/** Times of day at which a program can start: its own, or with an `hours` rule every hour at the minute of the first. */
export function timesOf({ starts, days }: Program): string[] {
  if (days?.rule !== 'hours') return [...starts];
  return Array.from({ length: 24 }, (_, hour) => {
    return `${String(hour).padStart(2, '0')}${days.first.slice(13)}`;
  });
}

const completeOf = new WeakMap<Plan, Program[]>();

export function complete(plan: Plan): Program[] {
  const known = completeOf.get(plan);
  if (known) return [...known];
  const found = plan.programs.filter((program) => {
    const times = timesOf(program);
    // Within 3,000 days every rule in the tests shows whether any date matches.
    const keeps = (day: number) =>
      times.some((time) => keepsRule(plan, program, day, parseTime(time) ?? 0));
    return (
      times.length > 0 &&
      program.runs.some((run) => run.seconds > 0 && enabled(plan, run.station)) &&
      Array.from({ length: 3000 }, (_, day) => day).some(keeps)
    );
  });
  completeOf.set(plan, found);
  return [...found];
}

/** End of a plan's rain delay. */
export const resumesOf = ({ settings }: Plan) =>
  parseMoment(settings.wateringResumes ?? '1970-01-01') ?? 0;

/** Section 2 for one date and time, without the rain delay. */
export function fires(plan: Plan, program: Program, day: number, second: number): boolean {
  const off = plan.settings.offDaysOfMonth?.includes(civilOf(day).day) ?? false;
  return keepsRule(plan, program, day, second) && !off;
}

interface Entry {
  program: string | null;
  start: string | null;
  due: number;
  outcome: 'ran' | 'cut' | 'lost';
  began: number | null;
  cycle: TickingCycle | null;
  percent: number;
  of: Program;
}

/** A manual run as a program of its own: unsplit runs, one after the other. */
function byHand(plan: Plan, press: TimedPress & { do: 'manual' }): [Plan, Program] {
  const { station: only, seconds = 0 } = press;
  const runs = plan.stations
    .filter(({ number }) => only === undefined || number === only)
    .map(({ number }) => ({ station: number, seconds }));
  const { timer } = plan;
  const seasonal = { ...timer.seasonal, roundToSeconds: 1 as const };
  return [
    { ...plan, timer: { ...timer, seasonal, cycleSoak: 'none', stationsAtOnce: 1 } },
    { letter: '-', starts: [], runs, days: null },
  ];
}

/**
 * Sections 5, 6 and 9, by stepping through every second of true time. Moments are true, `due` is on the timer's clock, which is `ahead`
 * seconds ahead at the start.
 */
export function referenceSimulate(
  given: Plan,
  from: number,
  days: number,
  events: readonly TimedPress[] = [],
  ahead = 0,
) {
  const programs = complete(given).sort((a, b) => a.letter.localeCompare(b.letter));
  const { onOverlap, inWindow, onRain, manualDuring, powerLoss, clockAfterReset } = given.timer;
  let plan = given;
  let clock = 0;
  let isWet = false;
  let outSince: number | null = null;
  let resumes = resumesOf(given);
  const held = new Map<Program, { minute: number; is: boolean }>();
  const isHeld = ({ start, of }: Entry) => {
    if (start === null) return false;
    const minute = Math.floor(clock / 60);
    let known = held.get(of);
    if (known?.minute !== minute)
      held.set(of, (known = { minute, is: heldBack(given, of, clock) }));
    return known.is;
  };
  const acts = () => isWet && (plan.settings.sensor ?? 'active') === 'active';
  const obeys = (station: number) =>
    given.stations.find(({ number }) => number === station)?.obeysRainSensor !== false;
  const losesToRain = ({ of }: Entry) =>
    acts() &&
    onRain === 'lose' &&
    of.runs.every(
      ({ station, seconds }) => seconds === 0 || !enabled(given, station) || obeys(station),
    );
  const entries: Entry[] = [];
  let active: Entry[] = [];
  let atWindowsEnd: Entry[] = [];
  let queue: Entry[] = [];
  const dry = new Set<number>();
  const begin = (entry: Entry, now: number, of: Plan = plan) => {
    entry.outcome = 'ran';
    entry.began = now;
    entry.cycle = new TickingCycle(of, entry.of, entry.percent, now);
    active.push(entry);
  };
  const stop = (entry: Entry, now: number) => {
    entry.cycle?.stop(now);
    entry.outcome = 'cut';
    active = active.filter((one) => one !== entry);
  };
  const stopAll = (now: number) => {
    for (const entry of [...active]) stop(entry, now);
    queue = [];
    atWindowsEnd = [];
  };
  const rainTakes = (now: number) => {
    if (!acts()) return;
    for (const entry of [...active]) if (losesToRain(entry)) stop(entry, now);
    queue = queue.filter((entry) => !losesToRain(entry));
  };
  const manual = (press: TimedPress & { do: 'manual' }, now: number) => {
    const program = given.programs.find(({ letter }) => letter === press.program);
    if (plan.settings.mode === 'off' || (press.program !== undefined && !program)) return;
    const [as, of]: [Plan, Program] = program ? [plan, program] : byHand(plan, press);
    const percent = program ? percentIn(plan, program, civilOf(dayOf(clock)).month) : 100;
    const entry: Entry = {
      ...{ program: press.program ?? null, start: null, due: clock, percent, of },
      ...{ outcome: 'lost', began: null, cycle: null },
    };
    if (new TickingCycle(as, of, percent, now).finished || losesToRain(entry)) return;
    if (active.length > 0 && manualDuring === 'refuse') return;
    for (const running of [...active]) stop(running, now);
    entries.push(entry);
    begin(entry, now, as);
  };
  const happen = (press: TimedPress, now: number) => {
    if (outSince !== null && !['wet', 'dry', 'powerOn'].includes(press.do)) return;
    const acted = acts();
    if (press.do === 'manual') manual(press, now);
    if (press.do === 'stop') stopAll(now);
    if (press.do === 'mode') {
      plan = { ...plan, settings: { ...plan.settings, mode: press.to } };
      if (press.to === 'off') stopAll(now);
    }
    if (press.do === 'rainDelay') {
      resumes = press.hours === 0 ? 0 : clock + press.hours * 3600;
      if (press.hours > 0) stopAll(now);
    }
    if (press.do === 'percent')
      plan = { ...plan, settings: { ...plan.settings, seasonalPercent: press.to } };
    if (press.do === 'sensor') plan = { ...plan, settings: { ...plan.settings, sensor: press.to } };
    if (press.do === 'clock') {
      clock = secondOf(press.to);
      ahead = clock - now;
    }
    if (press.do === 'wet' || press.do === 'dry') isWet = press.do === 'wet';
    if (press.do === 'powerOff') {
      stopAll(now);
      outSince = clock;
    }
    if (press.do === 'powerOn' && outSince !== null) {
      if (powerLoss?.clock === 'stops') clock = outSince;
      if (powerLoss?.clock === 'resets')
        clock = parseMoment(clockAfterReset ?? '2020-01-01T00:00') ?? 0;
      ahead = clock - now;
      outSince = null;
    }
    if (!acted) rainTakes(now);
  };
  const moments = events.map((event) => [secondOf(event.at), event] as const);
  const first = from * SECONDS_PER_DAY;
  const last = (from + days) * SECONDS_PER_DAY;
  for (let now = first; ; now++) {
    if (now >= last && active.length + queue.length + atWindowsEnd.length === 0) break;
    clock = now + ahead;
    for (const { cycle } of active) cycle?.close(now);
    active = active.filter(({ cycle }) => !cycle?.finished);
    for (const [at, event] of moments) if (at === now) happen(event, now);
    if (inWindow === 'cut') for (const entry of active) if (isHeld(entry)) stop(entry, now);
    const coming = atWindowsEnd.filter((entry) => !isHeld(entry));
    atWindowsEnd = atWindowsEnd.filter((entry) => isHeld(entry));
    const runsOn = outSince === null && plan.settings.mode !== 'off';
    if (now < last && runsOn && clock % 60 === 0 && clock >= resumes) {
      const day = dayOf(clock);
      const second = clock % SECONDS_PER_DAY;
      for (const program of programs)
        for (const start of timesOf(program)) {
          if (parseTime(start) !== second || !fires(given, program, day, second)) continue;
          const percent = percentIn(plan, program, civilOf(day).month);
          if (new TickingCycle(plan, program, percent, 0).finished) continue;
          const entry: Entry = {
            ...{ program: program.letter, start, due: clock, percent, of: program },
            ...{ outcome: 'lost', began: null, cycle: null },
          };
          entries.push(entry);
          if (inWindow === 'pause' && isHeld(entry)) atWindowsEnd.push(entry);
          else coming.push(entry);
        }
    }
    for (const entry of coming) {
      if (losesToRain(entry)) continue;
      if (onOverlap === 'queue') {
        queue.push(entry);
        continue;
      }
      if (isHeld(entry) || (onOverlap === 'drop' && active.length > 0)) continue;
      if (onOverlap === 'cut') for (const running of [...active]) stop(running, now);
      begin(entry, now);
    }
    for (let next = queue[0]; next && active.length === 0; next = queue[0]) {
      if (isHeld(next) && inWindow === 'pause') break;
      queue.shift();
      if (!isHeld(next)) begin(next, now);
    }
    // What a window closes is closed before anything opens.
    for (const entry of active) if (isHeld(entry)) entry.cycle?.hold(now);
    const all = active.flatMap(({ cycle }) => (cycle ? [cycle] : []));
    const most = Math.min(plan.timer.stationsAtOnce, plan.settings.stationsAtOnce ?? 99);
    if (onOverlap === 'share')
      for (const entry of active) if (!isHeld(entry)) entry.cycle?.resume(now, all, most);
    for (const entry of active)
      if (onOverlap === 'share') entry.cycle?.open(now, isHeld(entry), all, most);
      else entry.cycle?.open(now, isHeld(entry));
    if (acts()) dry.add(now);
  }
  const byOn = (a: { on: number; station: number }, b: { on: number; station: number }) =>
    a.on - b.on || a.station - b.station;
  return entries.map(({ cycle, of: _of, percent: _percent, ...entry }) => ({
    ...entry,
    ended: cycle ? cycle.ended : null,
    runs: (cycle ? cycle.runs : [])
      .flatMap((run) => (obeys(run.station) ? whileNot(dry, run) : [run]))
      .sort(byOn),
  }));
}

const secondOf = (moment: string) => Date.parse(`${moment}Z`) / 1000;

interface OneRun {
  readonly station: number;
  readonly on: number;
  readonly off: number;
}

/** The part of a run outside some seconds. */
function whileNot(dry: ReadonlySet<number>, { station, on, off }: OneRun): OneRun[] {
  if (dry.size === 0) return [{ station, on, off }];
  const runs: OneRun[] = [];
  let since: number | null = null;
  for (let now = on; now <= off; now++) {
    const flows = now < off && !dry.has(now);
    if (flows) since ??= now;
    else if (since !== null) {
      runs.push({ station, on: since, off: now });
      since = null;
    }
  }
  return runs;
}
