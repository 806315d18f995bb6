/** Whether two plans set a timer the same way. */
import type { Plan } from './plan.ts';

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/** Whether two document values are equal, in any field order; an undefined field is absent. */
export function sameData(a: unknown, b: unknown): boolean {
  if (!isObject(a) || !isObject(b)) return a === b;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((key) =>
    sameData(a[key], b[key]),
  );
}

const byName = <T>(entries: readonly T[], name: (entry: T) => string | number) =>
  Object.fromEntries(entries.map((entry) => [name(entry), entry]));

/** Settings of a timer without the site, in a fixed order of stations and programs. */
const settingsOf = ({ timer, settings, stations, programs }: Plan) => ({
  timer,
  settings,
  stations: byName(stations, ({ number }) => number),
  programs: byName(
    programs.map((program) => ({
      ...program,
      runs: byName(program.runs, ({ station }) => station),
    })),
    ({ letter }) => letter,
  ),
});

/** Whether two plans set a timer the same way in every field; the site does not matter. */
export const samePlan = (a: Plan, b: Plan): boolean =>
  a === b || sameData(settingsOf(a), settingsOf(b));
