/**
 * Run-off: a valve open longer than the soil takes, or again before the water has soaked in (planning.md section 2, `runs-off` and
 * `soak-too-short`). Reports the first date of each for each station.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { joinedRuns, runsOfStation, type WetStart, type WetStarts } from '../engine/wetStarts.ts';
import { splitBy } from '../plan/linked.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import type { Finding } from './finding.ts';

/** A valve open without a break, seconds from 00:00 of the start's date. */
interface Open {
  readonly on: number;
  readonly off: number;
}

/** What one station does in a start's cycle: adjacent runs are joined; at least one. */
interface Soaking {
  readonly wet: WetStart;
  readonly runs: readonly Open[];
  readonly first: Open;
  readonly last: Open;
}

/** What a station takes: seconds without a break, and seconds between runs. */
interface Limits {
  readonly station: number;
  readonly cycle: number;
  readonly soak: number;
}

function limitsOf(plan: Plan, station: Station): Limits[] {
  const { cycleSeconds: cycle, soakSeconds: soak = 0 } = splitBy(plan, station);
  return cycle === undefined ? [] : [{ station: station.number, cycle, soak }];
}

/** A finding with the order of its starts, which decides between two on one date. */
interface Found {
  readonly finding: Finding;
  readonly date: EpochDay;
  readonly places: number;
}

/** Keeps the earliest finding of each of the two codes. */
class Earliest {
  private long: Found | null = null;
  private short: Found | null = null;

  add(found: Found): void {
    if (found.finding.code === 'runs-off') this.long = earlier(this.long, found);
    else this.short = earlier(this.short, found);
  }

  findings(): Finding[] {
    return [this.long, this.short].flatMap((found) => (found ? [found.finding] : []));
  }
}

const earlier = (known: Found | null, other: Found): Found =>
  known === null ||
  other.date < known.date ||
  (other.date === known.date && other.places < known.places)
    ? other
    : known;

/** @throws TooMuchWork */
export function runOffFindings(plan: Plan, wets: WetStarts): Finding[] {
  return plan.stations
    .flatMap((station) => limitsOf(plan, station))
    .flatMap((limits) => {
      const soakings = soakingsOf(wets, limits.station);
      const earliest = new Earliest();
      for (const found of withinCycles(wets, soakings, limits)) earliest.add(found);
      for (const found of betweenCycles(wets, soakings, limits)) earliest.add(found);
      return earliest.findings();
    });
}

function soakingsOf(wets: WetStarts, station: number): Soaking[] {
  return wets.of(station).flatMap((wet) => {
    wets.effort.spend(1 + (wet.runs.length >> 3));
    const runs = joinedRuns(runsOfStation(wet, station));
    const [first, last] = [runs[0], runs.at(-1)];
    return first && last ? [{ wet, runs, first, last }] : [];
  });
}

function runsOff(
  { wet }: Soaking,
  { station, cycle }: Limits,
  seconds: number,
  date: EpochDay,
): Finding {
  const where = { program: wet.program.letter, start: wet.start.start, station, date };
  return { code: 'runs-off', severity: 'warning', seconds, most: cycle, where };
}

function soakTooShort(
  { wet }: Soaking,
  { station, soak }: Limits,
  seconds: number,
  date: EpochDay,
): Finding {
  const where = { program: wet.program.letter, start: wet.start.start, station, date };
  return { code: 'soak-too-short', severity: 'warning', seconds, least: soak, where };
}

/** Within one cycle: the first run that is too long, and the first gap that is too short. */
function* withinCycles(
  { meetings }: WetStarts,
  soakings: readonly Soaking[],
  limits: Limits,
): Generator<Found> {
  for (const [places, soaking] of soakings.entries()) {
    const { wet, runs } = soaking;
    const long = runs.find(({ on, off }) => off - on > limits.cycle);
    const short = runs.findIndex(({ off }, i) => {
      const next = runs[i + 1];
      return next !== undefined && next.on - off < limits.soak && !wet.isPause(off, next.on);
    });
    if (!long && short < 0) continue;
    const date = assertDefined(
      meetings.firstOf(wet.dates, wet.least),
      'meetings.firstOf(wet.dates, wet.least)',
    );
    if (long) yield { finding: runsOff(soaking, limits, long.off - long.on, date), date, places };
    if (short >= 0) {
      const gap =
        assertDefined(runs[short + 1], 'runs[short + 1]').on -
        assertDefined(runs[short], 'runs[short]').off;
      yield { finding: soakTooShort(soaking, limits, gap, date), date, places };
    }
  }
}

/**
 * The last run of one cycle and the first of a later one, on whichever dates they come close. Only first runs that begin within the soak
 * after a last run are examined; they are sorted by time of day.
 */
function* betweenCycles(
  { meetings, effort }: WetStarts,
  soakings: readonly Soaking[],
  limits: Limits,
): Generator<Found> {
  const count = soakings.length;
  const byTime = soakings
    .map((soaking, place) => ({ soaking, place, time: modulo(soaking.first.on, SECONDS_PER_DAY) }))
    .sort((a, b) => a.time - b.time || a.place - b.place);
  for (const [place, a] of soakings.entries()) {
    const time = modulo(a.last.off, SECONDS_PER_DAY);
    const from = firstAtOrAfter(byTime, time);
    for (let step = 0; ; step++) {
      const next = byTime[(from + step) % count];
      if (!next) break;
      const days = Math.floor((from + step) / count);
      const gap = next.time - time + days * SECONDS_PER_DAY;
      // Two adjacent runs are one, whatever the soak.
      if (gap > 0 && gap >= limits.soak) break;
      effort.spend(2);
      const b = next.soaking;
      const seconds = a.last.off - a.last.on + b.first.off - b.first.on;
      if (gap === 0 && seconds <= limits.cycle) continue;
      const k = (a.last.off + gap - b.first.on) / SECONDS_PER_DAY;
      const least = Math.max(a.wet.least, b.wet.least - k);
      const day = meetings.first(a.wet.dates, b.wet.dates, k, least);
      if (day === null) continue;
      const date = day + k;
      const finding =
        gap === 0 ? runsOff(b, limits, seconds, date) : soakTooShort(b, limits, gap, date);
      yield { finding, date, places: count + place * count + next.place };
    }
  }
}

/** Index of the first entry at or after a time of day; the length of the list if there is none. */
function firstAtOrAfter(entries: readonly { readonly time: number }[], time: number): number {
  let low = 0;
  let high = entries.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (assertDefined(entries[middle], 'entries[middle]').time < time) low = middle + 1;
    else high = middle;
  }
  return low;
}
