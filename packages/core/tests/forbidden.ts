/** Whether a plan waters when a brief's rules forbid it, by the slow model: (nearly) second by second. */
import {
  parseTime,
  SECONDS_PER_DAY,
  WEEKDAYS,
  weekdayIndexOf,
  type Brief,
  type Plan,
} from '@water-clock/core';
import { referenceNominal } from './reference.ts';
import { referenceCycles } from './referenceCycles.ts';

/** Seconds at which a bound station is wet although the rules forbid it; the rules are interpreted again here. */
export function forbiddenSeconds(brief: Brief, plan: Plan, percent: number, on: number): number {
  const { weekdays, parity, noWaterWindows = [], dripExempt } = brief.rules ?? {};
  const bound = new Set(
    brief.stations
      .filter((station) => station.overhead !== false || !dripExempt)
      .map((station) => station.number),
  );
  let seconds = 0;
  for (const cycle of referenceCycles(plan, on, 35, percent)) {
    const program = plan.programs.find(({ letter }) => letter === cycle.letter);
    const nominal = program && referenceNominal(plan, program, percent, cycle.begins);
    for (const run of nominal?.runs ?? []) {
      if (!bound.has(run.station)) continue;
      for (let now = run.on; now < run.off; now += 30) {
        const day = Math.floor(now / SECONDS_PER_DAY);
        const second = now - day * SECONDS_PER_DAY;
        const date = new Date(now * 1000).getUTCDate();
        const isOut =
          (weekdays && !weekdays.includes(WEEKDAYS[weekdayIndexOf(day)] ?? 'mon')) ??
          (parity && (date % 2 === 1) !== (parity === 'odd'));
        const isHeld = noWaterWindows.some(
          ({ from, to }) => second >= (parseTime(from) ?? 0) && second < (parseTime(to) ?? 0),
        );
        if (isOut || isHeld) seconds += 30;
      }
    }
  }
  return seconds;
}
