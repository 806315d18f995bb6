/** A plan in the words of the planner's cards. No interface code. */
import {
  attempt,
  stationFlow,
  type Brief,
  type Survey,
  cycleShape,
  datesOfProgram,
  meanWeeklySeconds,
  daysWords,
  lengthWords,
  parseTime,
  programsByLetter,
  SECONDS_PER_DAY,
  timeWords,
  type ClockStyle,
  type DateOrder,
  type Days,
  type Plan,
  type Program,
  say,
  plural,
} from '@water-clock/core';

function intervalWords(
  { everyDays, blockedWeekdays }: Extract<Days, { rule: 'interval' }>,
  clock: ClockStyle,
  order: DateOrder,
): string {
  const often = plural(everyDays, 'every day', 'every # days');
  return blockedWeekdays
    ? say`${often}, not ${daysWords({ rule: 'weekdays', weekdays: blockedWeekdays }, clock, order)}`
    : often;
}

/** A day rule without its reference date. */
export const ruleWords = (days: Days | null, clock: ClockStyle, order: DateOrder): string =>
  days?.rule === 'interval' ? intervalWords(days, clock, order) : daysWords(days, clock, order);

/** End of each start's cycle, seconds of the day. */
export function endsOf(plan: Plan, program: Program): number[] {
  const { seconds } = cycleShape(plan, program, 100);
  return program.starts.map((start) => ((parseTime(start) ?? 0) + seconds) % SECONDS_PER_DAY);
}

/** `5:40 – 7:00`, for each start. */
export const spansWords = (plan: Plan, program: Program, clock: ClockStyle): string[] =>
  endsOf(plan, program).map(
    (end, i) =>
      `${timeWords(parseTime(program.starts[i] ?? '') ?? 0, clock)} – ${timeWords(end, clock)}`,
  );

/** Seconds a week for each station at 100 percent; none for a plan that takes too long. */
export function givenBy(plan: Plan): ReadonlyMap<number, number> {
  const worked = attempt(() => meanWeeklySeconds(plan));
  return worked.ok ? worked.value : new Map<number, number>();
}

/** Weekly seconds of water over all stations, at 100 percent. */
export function weekWords(plan: Plan): string {
  const seconds = [...givenBy(plan).values()].reduce((sum, own) => sum + own, 0);
  return lengthWords(Math.round(seconds / 60) * 60);
}

/** Litres a week at 100 percent; null if the flow of a station that waters is not known. */
export function litresAWeek(plan: Plan, survey: Survey): number | null {
  let litres = 0;
  for (const [number, seconds] of givenBy(plan)) {
    const station = plan.stations.find((one) => one.number === number);
    const litresPerMinute = station && stationFlow(station, survey).litresPerMinute;
    if (seconds > 0 && typeof litresPerMinute !== 'number') return null;
    litres += (seconds / 60) * (litresPerMinute ?? 0);
  }
  return litres;
}

/** Tolerated deviation from the need (planning.md section 3, cost 1). */
const CLOSE_TO_NEED = 0.1;

/** Stations more than a tenth off their need, furthest off first; `off` as a share of the need. */
export function offNeed(
  plan: Plan,
  brief: Brief,
): readonly { readonly station: number; readonly off: number }[] {
  const given = givenBy(plan);
  return brief.stations
    .filter(({ weeklySeconds }) => weeklySeconds > 0)
    .map(({ number, weeklySeconds }) => ({
      station: number,
      off: ((given.get(number) ?? 0) - weeklySeconds) / weeklySeconds,
    }))
    .filter(({ off }) => Math.abs(off) > CLOSE_TO_NEED)
    .sort((a, b) => Math.abs(b.off) - Math.abs(a.off));
}

export const datesText = (plan: Plan): string =>
  programsByLetter(plan)
    .map(
      (program) => `${program.letter} ${Math.round(datesOfProgram(plan, program).mean * 10) / 10}`,
    )
    .join(', ');
