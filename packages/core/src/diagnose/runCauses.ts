/** Run times that would explain a sighting: the length seen, no run, or a length that shifts the next run to when it was seen. */
import { monthOf, SECONDS_PER_DAY as DAY, type ClockSecond } from '../time/calendar.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { effectivePercent } from '../plan/program.ts';
import type { Cause, World } from './causes.ts';
import { AROUND_DRY, type Seen, type SeenRun, type Timeline } from './timeline.ts';

/** A run starting this close to its time was not late, seconds. */
const IN_TIME = 240;
/** A run this long before another may delay it, seconds. */
const HOLDS_UP = 3 * 3600;

interface Late {
  readonly due: SeenRun;
  /** Seconds by which it ran late; negative: early. */
  readonly late: number;
}

/** Runs that must move later or earlier for a sighting to fit, by the timer's clock. */
function latenessOf(seen: Seen, timeline: Timeline, ahead: number): Late[] {
  if (seen.station === null) return [];
  const near = (from: ClockSecond, to: ClockSecond) => timeline.within(seen.station, from, to);
  const [from, to] = [seen.from + ahead, (seen.to ?? seen.from) + ahead];
  if (seen.saw === 'ran')
    return seen.to === null
      ? near(from - HOLDS_UP, from + HOLDS_UP).map((due) => ({ due, late: from - due.on }))
      : [];
  // It ran just before the span but ended too early; it ran just after the span but was due too soon.
  return [
    ...(seen.ranBefore ? near(from - HOLDS_UP, from) : []).map((due) => ({
      due,
      late: from - AROUND_DRY / 3 - due.off,
    })),
    ...(seen.ranAfter ? near(to - HOLDS_UP, to) : []).map((due) => ({
      due,
      late: to + AROUND_DRY / 12 - due.on,
    })),
  ].filter(({ late }) => late > 0);
}

class RunCauses {
  private readonly plan: Plan;
  private readonly programs: readonly Program[];
  private readonly found = new Map<string, Cause>();

  constructor(plan: Plan, programs: readonly Program[]) {
    this.plan = plan;
    this.programs = programs;
  }

  /** @param change displayed and current value, both in seconds at the current percent */
  add(
    letter: string | undefined,
    station: number | null,
    day: number,
    change: (now: number) => number,
  ) {
    const program = this.programs.find((program) => program.letter === letter);
    const present = program?.runs.find((run) => run.station === station)?.seconds;
    if (!program || station === null || present === undefined) return;
    const percent = effectivePercent(this.plan, program, monthOf(day));
    if (percent === 0) return;
    const { runStepSeconds: step, longestRunSeconds: longest } = this.plan.timer;
    const wanted = (change((present * percent) / 100) * 100) / percent;
    const seconds = Math.min(longest, Math.max(0, Math.round(wanted / step) * step));
    if (seconds === present) return;
    const cause: Cause = { type: 'run', program: program.letter, station, seconds };
    this.found.set(JSON.stringify(cause), cause);
  }

  all(): Cause[] {
    return [...this.found.values()];
  }
}

/** @param programs those with runs */
export function runCauses(
  world: World,
  seen: readonly Seen[],
  timeline: Timeline,
  programs: readonly Program[],
): Cause[] {
  const causes = new RunCauses(world.plan, programs);
  for (const sighting of seen) {
    addAsSeen(causes, sighting, world, timeline, programs);
    addAsLate(causes, sighting, world, timeline);
  }
  return causes.all();
}

const dayOf = ({ from }: Seen, { ahead }: World) => Math.floor((from + ahead) / DAY);

/** Runs as long as they were seen to be, or none if the station was dry. */
function addAsSeen(
  causes: RunCauses,
  sighting: Seen,
  world: World,
  timeline: Timeline,
  programs: readonly Program[],
): void {
  const { saw, seconds } = sighting;
  const stations =
    sighting.station === null ? beganThen(sighting, world, timeline) : [sighting.station];
  for (const { letter, runs } of programs)
    for (const { station } of runs) {
      if (!stations.includes(station)) continue;
      if (saw === 'dry') causes.add(letter, station, dayOf(sighting, world), () => 0);
      if (seconds !== null) causes.add(letter, station, dayOf(sighting, world), () => seconds);
    }
}

/** Stations due to begin when something was seen to run, at an unknown station. */
function beganThen(
  { saw, from, to }: Seen,
  { ahead }: World,
  timeline: Timeline,
): (number | null)[] {
  if (saw !== 'ran' || to !== null) return [];
  const shown = from + ahead;
  return timeline
    .within(null, shown - IN_TIME, shown + IN_TIME)
    .filter(({ on }) => Math.abs(shown - on) < IN_TIME)
    .map(({ station }) => station);
}

/** Longer and shorter runs of what ran before: in the station's own cycle, or in one it waited for. */
function addAsLate(causes: RunCauses, sighting: Seen, world: World, timeline: Timeline): void {
  const waits = world.plan.timer.onOverlap === 'queue';
  const day = dayOf(sighting, world);
  for (const { due, late } of latenessOf(sighting, timeline, world.ahead)) {
    if (Math.abs(late) < IN_TIME) continue;
    const longer = (now: number) => now + late;
    if (sighting.ranBefore) causes.add(due.letter, due.station, day, longer);
    for (const { off, cycle, letter, station } of timeline.within(null, due.on - HOLDS_UP, due.on))
      if (off <= due.on && (cycle === due.cycle || waits)) causes.add(letter, station, day, longer);
  }
}
