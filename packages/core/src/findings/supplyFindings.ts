/** Stations that together take more than the supply gives, and a pump that runs against closed valves (planning.md section 2). */
import { attempt } from '../engine/effort.ts';
import { nightsFrom } from '../engine/night.ts';
import type { Overlap } from '../engine/overlap.ts';
import type { WetStart, WetStarts } from '../engine/wetStarts.ts';
import type { Plan } from '../plan/plan.ts';
import { SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import type { Finding } from './finding.ts';

/** Known facts about a timer's water supply. */
export interface SupplyNoted {
  /** Litres a minute of the supply; null: not measured. */
  readonly litresPerMinute: number | null;
  /** Litres a minute by station; unknown ones are absent. */
  readonly flows: ReadonlyMap<number, number>;
  /** Null: no pump. `runsOn`: whether it keeps running with no valve open; null: not known. */
  readonly pump: { readonly runsOn: boolean | null } | null;
}

/** Overlaps whose water is examined; the first ones. */
const MOST_OVERLAPS = 50;

interface Open {
  readonly station: number;
  readonly on: number;
  readonly off: number;
}

/** Stations open together at a moment that take too much, or may. */
interface Drawn {
  readonly at: ClockSecond;
  readonly stations: readonly number[];
  /** Litres a minute of those whose flow is known. */
  readonly litresPerMinute: number;
  readonly unknown: readonly number[];
}

/** The first moment at which open stations take too much; otherwise the first at which they may. */
function firstTooMuch(runs: readonly Open[], supply: number, flows: SupplyNoted['flows']) {
  let sure: Drawn | null = null;
  let possible: Drawn | null = null;
  for (const { on: at } of [...runs].sort((a, b) => a.on - b.on)) {
    const open = runs.filter(({ on, off }) => on <= at && at < off);
    const stations = [...new Set(open.map(({ station }) => station))].sort((a, b) => a - b);
    const unknown = stations.filter((station) => !flows.has(station));
    const litresPerMinute = stations.reduce((sum, one) => sum + (flows.get(one) ?? 0), 0);
    const drawn = { at, stations, litresPerMinute, unknown };
    if (litresPerMinute > supply) sure ??= drawn;
    // One station alone was tried when it was installed; for several, no one can tell.
    else if (unknown.length > 0 && stations.length > 1) possible ??= drawn;
  }
  return { sure, possible };
}

const earlier = (one: Drawn | null, other: Drawn | null): Drawn | null =>
  one && other ? (one.at <= other.at ? one : other) : (one ?? other);

function supplyFinding(
  plan: Plan,
  wets: WetStarts,
  overlaps: readonly Overlap[],
  { litresPerMinute: supply, flows }: SupplyNoted,
): Finding[] {
  if (supply === null) return [];
  let sure: Drawn | null = null;
  let possible: Drawn | null = null;
  const look = (runs: readonly Open[], begin: ClockSecond) => {
    wets.effort.spend(1 + runs.length);
    const found = firstTooMuch(runs, supply, flows);
    const from = (drawn: Drawn | null) => drawn && { ...drawn, at: drawn.at + begin };
    sure = earlier(sure, from(found.sure));
    possible = earlier(possible, from(found.possible));
  };
  for (const wet of wets.all) {
    const first = wets.meetings.firstOf(wet.dates, wet.least);
    if (first !== null) look(wet.runs, first * SECONDS_PER_DAY);
  }
  // Cycles of two starts that run at once, as the timer really opens its valves.
  if (plan.timer.onOverlap === 'together' || plan.timer.onOverlap === 'share')
    for (const { second } of overlaps.slice(0, MOST_OVERLAPS)) {
      const day = Math.floor(second.begins / SECONDS_PER_DAY);
      const worked = attempt(() => nightsFrom(plan, day - 1, 2, { effort: wets.effort }));
      const runs = (worked.ok ? worked.value : []).flatMap((night) => night.runs);
      look(
        runs.flatMap(({ station, on, off }) => ({ station, on, off })),
        0,
      );
    }
  const drawn = earlier(sure, null) ?? earlier(possible, null);
  if (!drawn) return [];
  const { at, stations, litresPerMinute, unknown } = drawn;
  return [
    {
      code: 'supply',
      severity: sure ? 'error' : 'warning',
      at,
      stations,
      litresPerMinute,
      unknown: sure ? [] : unknown,
      supply,
      where: { station: stations[0] ?? 0, date: Math.floor(at / SECONDS_PER_DAY) },
    },
  ];
}

/** How often in a cycle no valve is open between two runs, not counting pauses for no-water hours. */
function gapsOf({ runs, isPause }: WetStart): number {
  let open = -Infinity;
  let gaps = 0;
  for (const { on, off } of runs) {
    if (open !== -Infinity && on > open && !isPause(open, on)) gaps++;
    open = Math.max(open, off);
  }
  return gaps;
}

function pumpFinding({ settings }: Plan, wets: WetStarts, { pump }: SupplyNoted): Finding[] {
  const seconds = settings.stationDelaySeconds ?? 0;
  if (!pump || pump.runsOn === false || seconds === 0) return [];
  const times = Math.max(0, ...wets.all.map(gapsOf));
  return times === 0
    ? []
    : [
        {
          code: 'pump-shut',
          severity: 'warning',
          seconds,
          times,
          isSure: pump.runsOn === true,
          where: { field: 'settings.stationDelaySeconds' },
        },
      ];
}

/** @throws TooMuchWork */
export function supplyFindings(
  plan: Plan,
  wets: WetStarts,
  overlaps: readonly Overlap[],
  noted: SupplyNoted | null,
): Finding[] {
  if (!noted) return [];
  return [...supplyFinding(plan, wets, overlaps, noted), ...pumpFinding(plan, wets, noted)];
}
