/**
 * Timers of one site on one supply: when cycles of two of them run at the same time, over all dates, and how much water that takes.
 *
 * Each timer knows nothing of the others, so nothing waits: their nominal cycles coincide. Those form classes of dates with one period each
 * (overlap.ts explains why that is complete), so all pairs of classes, and all day distances within reach, are tried.
 */
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { wateringStations } from '../plan/linked.ts';
import { missingOf } from '../plan/program.ts';
import { resumesAt } from '../plan/starts.ts';
import {
  SECONDS_PER_DAY,
  type ClockSecond,
  type EpochDay,
  type TimeText,
} from '../time/calendar.ts';
import { canMeet, Meetings } from '../time/meetings.ts';
import { Effort } from './effort.ts';
import { namedStart, type Named, type Stretch } from './namedStarts.ts';
import { asSet, ProgramCycles } from './nominal.ts';

export interface HouseTimer {
  readonly id: string;
  readonly plan: Plan;
  /** Litres a minute by station; unknown ones are absent. */
  readonly flows: ReadonlyMap<number, number>;
}

export interface HouseCycle {
  readonly timer: string;
  readonly letter: string;
  readonly start: TimeText;
  /** The date on which the start was due. */
  readonly day: EpochDay;
  readonly begins: ClockSecond;
  /** Exclusive. */
  readonly ends: ClockSecond;
}

/** The highest flow at any time. */
export interface Flow {
  readonly litresPerMinute: number;
  /** False: a running station's flow is not known, so it is more than this. */
  readonly isWhole: boolean;
}

/** A period in which cycles of two timers both run. */
export interface HouseEvent {
  /** The one that begins earlier; if both begin together, that of the first timer. */
  readonly first: HouseCycle;
  readonly second: HouseCycle;
  readonly sharedSeconds: number;
  readonly flow: Flow;
}

/** Two starts of different timers that ever run at the same time. */
export interface HouseMeeting {
  /** The earliest time. */
  readonly next: HouseEvent;
  /** The first of those with the highest flow. */
  readonly worst: HouseEvent;
  /** In an average year. */
  readonly perYear: number;
}

interface Own {
  readonly timer: HouseTimer;
  readonly program: ProgramCycles;
  readonly named: Named;
}

function startsOf(timer: HouseTimer, on: EpochDay, meetings: Meetings, effort: Effort): Own[] {
  const { plan } = timer;
  if (plan.settings.mode === 'off') return [];
  const watering = wateringStations(plan);
  const span = { from: on, resumes: resumesAt(plan) };
  return programsByLetter(plan)
    .filter((program) => missingOf(program, watering).length === 0)
    .flatMap((one) => {
      const program = new ProgramCycles(plan, one, effort);
      return program.starts.map((start) => ({
        timer,
        program,
        named: namedStart(program, start, asSet(program), span, meetings),
      }));
    })
    .filter(({ named }) => named.stretches.length > 0);
}

const cycleOf = ({ timer, named }: Own, stretch: Stretch, day: EpochDay): HouseCycle => ({
  timer: timer.id,
  letter: named.letter,
  start: named.start.start,
  day,
  begins: day * SECONDS_PER_DAY + stretch.begins,
  ends: day * SECONDS_PER_DAY + stretch.ends,
});

/** Flow after each valve change of some cycles, within their common period. */
export function peakOf(
  cycles: readonly (readonly [Pick<Own, 'program' | 'timer'>, HouseCycle])[],
  from: ClockSecond,
  to: ClockSecond,
): Flow {
  const steps: { readonly at: number; readonly flow: number; readonly unknown: number }[] = [];
  for (const [{ program, timer }, { day, begins, ends }] of cycles)
    for (const { station, on, off } of program.runsOf(begins, ends, program.percentOn(day))) {
      const [opens, closes] = [Math.max(on, from), Math.min(off, to)];
      if (opens >= closes) continue;
      const known = timer.flows.get(station);
      const [flow, unknown] = [known ?? 0, known === undefined ? 1 : 0];
      steps.push({ at: opens, flow, unknown }, { at: closes, flow: -flow, unknown: -unknown });
    }
  // A closing valve makes room for one that opens at the same moment.
  steps.sort((a, b) => a.at - b.at || a.flow - b.flow || a.unknown - b.unknown);
  let [flow, unknown, most, isWhole] = [0, 0, 0, true];
  for (const step of steps) {
    flow += step.flow;
    unknown += step.unknown;
    most = Math.max(most, flow);
    if (unknown > 0) isWhole = false;
  }
  return { litresPerMinute: most, isWhole };
}

function eventOf(x: Own, a: HouseCycle, y: Own, b: HouseCycle): HouseEvent {
  const from = Math.max(a.begins, b.begins);
  const to = Math.min(a.ends, b.ends);
  const flow = peakOf(
    [
      [x, a],
      [y, b],
    ],
    from,
    to,
  );
  const [first, second] = a.begins <= b.begins ? [a, b] : [b, a];
  return { first, second, sharedSeconds: to - from, flow };
}

const beginOf = ({ second }: HouseEvent): ClockSecond => second.begins;

/** How two starts coincide; null: never. */
function meetingOf(x: Own, y: Own, meetings: Meetings, effort: Effort): HouseMeeting | null {
  let next: HouseEvent | null = null;
  let worst: HouseEvent | null = null;
  let inFourCenturies = 0;
  for (const a of x.named.stretches)
    for (const b of y.named.stretches) {
      const leastK = Math.floor((a.begins - b.ends) / SECONDS_PER_DAY) + 1;
      const mostK = Math.ceil((a.ends - b.begins) / SECONDS_PER_DAY) - 1;
      for (let k = leastK; k <= mostK; k++) {
        effort.spend(4);
        if (!canMeet(a, b, k)) continue;
        const least = Math.max(x.named.least, y.named.least - k);
        const day = meetings.first(a.dates, b.dates, k, least);
        if (day === null) continue;
        inFourCenturies += meetings.inFourCenturies(a.dates, b.dates, k);
        const event = eventOf(x, cycleOf(x, a, day), y, cycleOf(y, b, day + k));
        if (next === null || beginOf(event) < beginOf(next)) next = event;
        const more = event.flow.litresPerMinute - (worst?.flow.litresPerMinute ?? -1);
        if (worst === null || more > 0 || (more === 0 && beginOf(event) < beginOf(worst)))
          worst = event;
      }
    }
  return next && worst && { next, worst, perYear: inFourCenturies / 400 };
}

/**
 * All pairs of starts of different timers that ever run at the same time, earliest first. Timers that are off run nothing.
 *
 * Cost: pairs of starts × their classes.
 *
 * @param on earlier dates do not count
 * @throws TooMuchWork
 */
export function houseMeetings(
  timers: readonly HouseTimer[],
  on: EpochDay,
  effort = new Effort(),
): HouseMeeting[] {
  const meetings = new Meetings(effort);
  const all = timers.map((timer) => startsOf(timer, on, meetings, effort));
  const found: HouseMeeting[] = [];
  for (const [i, own] of all.entries())
    for (const others of all.slice(i + 1))
      for (const x of own)
        for (const y of others) {
          const meeting = meetingOf(x, y, meetings, effort);
          if (meeting) found.push(meeting);
        }
  return found.sort((x, y) => beginOf(x.next) - beginOf(y.next));
}
