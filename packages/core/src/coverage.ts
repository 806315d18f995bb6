/**
 * What this version of the engine computes. A plan that uses more is refused by path, never answered by guesswork.
 *
 * Covered: timing-rules.md sections 1 to 5 for one station at a time, with the day rules `daily` and `weekdays`. Not yet:
 * the other day rules, off days of the month, windows that hold water back, several stations at once.
 */
import type { Fault, Path } from './fault.ts';
import type { Plan, Program } from './plan.ts';
import { STATION_DEFAULTS } from './program.ts';

/** Pieces in one cycle at the highest percent; keeps every answer well under a tenth of a second. Ours, not the spec's. */
export const MOST_PIECES_PER_CYCLE = 5000;

const HIGHEST_PERCENT_ANYWHERE = 500;

function piecesAtMost(plan: Plan, program: Program): number {
  const soak = plan.timer.cycleSoak;
  let pieces = 0;
  for (const { station: number, seconds } of program.runs) {
    const station = plan.stations.find((one) => one.number === number) ?? STATION_DEFAULTS;
    const from = soak === 'station' ? station : soak === 'program' ? program : {};
    const split = from.cycleSeconds !== undefined && from.soakSeconds !== undefined;
    const longest = (seconds * HIGHEST_PERCENT_ANYWHERE) / 100 + 60;
    pieces += split ? Math.ceil(longest / (from.cycleSeconds ?? 1)) : 1;
  }
  return pieces;
}

/** Every part of a sound plan that this version does not compute, as faults. Empty: all of it is covered. */
export function notCovered(plan: Plan): Fault[] {
  const faults: Fault[] = [];
  const refuse = (path: Path, feature: string, instead: string) =>
    faults.push({ code: 'not-covered', path, feature, instead });

  const { timer, settings } = plan;
  const windowsHold = timer.inWindow !== 'ignore';
  if (settings.offDaysOfMonth && settings.offDaysOfMonth.length > 0)
    refuse(['settings', 'offDaysOfMonth'], 'off days of the month', 'an empty list or none');
  if (windowsHold && settings.noWaterWindows && settings.noWaterWindows.length > 0)
    refuse(['settings', 'noWaterWindows'], 'no-water windows', 'an empty list or none');

  plan.programs.forEach((program, i) => {
    const path: Path = ['programs', i];
    const { days } = program;
    if (days !== null && days.rule !== 'daily' && days.rule !== 'weekdays')
      refuse(
        [...path, 'days', 'rule'],
        `the day rule ${days.rule}`,
        'daily or weekdays, or null for not set',
      );
    if (windowsHold && program.noWaterWindows && program.noWaterWindows.length > 0)
      refuse([...path, 'noWaterWindows'], 'no-water windows', 'an empty list or none');
    if (piecesAtMost(plan, program) > MOST_PIECES_PER_CYCLE)
      refuse(
        [...path, 'runs'],
        `a cycle that cycle-and-soak cuts into more than ${MOST_PIECES_PER_CYCLE} pieces at 500 %`,
        'longer pieces or shorter runs',
      );
    const limits: [number, Path][] = [
      [program.stationsAtOnce ?? 99, [...path, 'stationsAtOnce']],
      [settings.stationsAtOnce ?? 99, ['settings', 'stationsAtOnce']],
      [timer.stationsAtOnce, ['timer', 'stationsAtOnce']],
    ];
    const smallest = Math.min(...limits.map(([limit]) => limit));
    const at = limits.find(([limit]) => limit === smallest);
    if (smallest > 1 && at && !faults.some((f) => f.path.join() === at[1].join()))
      refuse(at[1], 'several stations at once', '1');
  });
  return faults;
}
