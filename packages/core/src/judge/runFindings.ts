/** What the runs of a plan have wrong by themselves, without a brief (planning.md section 2). */
import { SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';
import type { Plan } from '../plan/plan.ts';
import type { Finding } from './findings.ts';
import { daysOf, joinedRuns, type WetStart, type WetStarts } from '../engine/wetStarts.ts';

/** Dates of a start that are looked at, where its rule is no matter of weekdays alone. */
const DATES_LOOKED_AT = 60;

/** A station's first and last second in a cycle. */
interface Part {
  readonly wet: WetStart;
  readonly first: { readonly on: number; readonly off: number };
  readonly last: { readonly on: number; readonly off: number };
}

/** A valve open for too long, and soaks cut short, by station. */
export function soakFindings(plan: Plan, wets: WetStarts): Finding[] {
  const findings: Finding[] = [];
  for (const { number, cycleSeconds, soakSeconds = 0 } of plan.stations) {
    if (cycleSeconds === undefined) continue;
    let long: Finding | null = null;
    let short: Finding | null = null;
    const parts: Part[] = [];
    for (const wet of wets.all) {
      const joined = joinedRuns(wet.runs, number);
      const [first, last] = [joined[0], joined.at(-1)];
      if (!first || !last) continue;
      parts.push({ wet, first, last });
      const date = wets.meetings.firstOf(wet.dates, wet.least) ?? wet.least;
      const where = {
        program: wet.program.letter,
        start: wet.start.start,
        station: number,
        date,
      };
      for (const [i, { on, off }] of joined.entries()) {
        if (off - on > cycleSeconds)
          long = earlier(long, {
            code: 'runs-off',
            severity: 'warning',
            seconds: off - on,
            most: cycleSeconds,
            where,
          });
        const next = joined[i + 1];
        if (next && next.on - off < soakSeconds && !wet.isPause(off, next.on))
          short = earlier(short, {
            code: 'soak-too-short',
            severity: 'warning',
            seconds: next.on - off,
            least: soakSeconds,
            where,
          });
      }
    }
    for (const a of parts)
      for (const b of parts) {
        const found = between(wets, a, b, number, cycleSeconds, soakSeconds);
        if (found?.code === 'runs-off') long = earlier(long, found);
        else if (found) short = earlier(short, found);
      }
    if (long) findings.push(long);
    if (short) findings.push(short);
  }
  return findings;
}

const earlier = (known: Finding | null, other: Finding): Finding =>
  known && (known.where.date ?? 0) <= (other.where.date ?? 0) ? known : other;

/** The last run of one cycle and the first of a later one, on whichever dates they come close. */
function between(
  { meetings }: WetStarts,
  a: Part,
  b: Part,
  station: number,
  cycleSeconds: number,
  soakSeconds: number,
): Finding | null {
  const most = Math.ceil((a.last.off + soakSeconds) / SECONDS_PER_DAY);
  for (let k = -2; k <= most; k++) {
    const gap = b.first.on + k * SECONDS_PER_DAY - a.last.off;
    if (gap < 0 || (gap > 0 && gap >= soakSeconds)) continue;
    const day = meetings.first(a.wet.dates, b.wet.dates, k, Math.max(a.wet.least, b.wet.least - k));
    if (day === null) continue;
    const where = {
      program: b.wet.program.letter,
      start: b.wet.start.start,
      station,
      date: day + k,
    };
    if (gap > 0)
      return {
        code: 'soak-too-short',
        severity: 'warning',
        seconds: gap,
        least: soakSeconds,
        where,
      };
    const seconds = a.last.off - a.last.on + b.first.off - b.first.on;
    if (seconds > cycleSeconds)
      return { code: 'runs-off', severity: 'warning', seconds, most: cycleSeconds, where };
  }
  return null;
}

/** Programs that water on dates on which their day rule does not. */
export function midnightFindings(wets: WetStarts): Finding[] {
  const found = new Map<string, Finding>();
  for (const wet of wets.all) {
    const { letter } = wet.program;
    if (found.has(letter)) continue;
    const days = new Set(wet.runs.flatMap((run) => [...daysOf(run)]));
    for (const later of days) {
      if (later === 0) continue;
      const date = dryDate(wets, wet, later);
      if (date === null) continue;
      found.set(letter, {
        code: 'past-midnight',
        severity: 'note',
        where: { program: letter, start: wet.start.start, date },
      });
      break;
    }
  }
  return [...found.values()];
}

/** The first date, so many days after one of a start's, on which its program's rule does not water; null: none. */
function dryDate({ meetings, starts }: WetStarts, wet: WetStart, later: number): EpochDay | null {
  const series = meetings.series(wet.dates, wet.dates, 0, wet.least);
  for (let place = 0; place < DATES_LOOKED_AT; place++) {
    const date = series.at(place);
    if (!date) return null;
    const day = date.day + later;
    if (!(starts.get(wet.program.letter) ?? []).some(({ days }) => isIn(days, day))) return day;
  }
  return null;
}
