/** Differences between two plans, setting by setting, as text: for conflicts, suggestions and the logbook. */
import type { Difference } from '../plan/difference.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { sameData } from '../plan/samePlan.ts';
import {
  capitalized,
  daysWords,
  lengthWords,
  startWords,
  type ClockStyle,
} from '../words/words.ts';
import { factName, factValue } from './factWords.ts';
import { say } from '../language/say.ts';

export const NONE = '—';

/** Facts with facts inside, listed one by one. */
const NESTED = ['device', 'wish', 'overruled'];

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Facts in which two records differ, as text.
 *
 * @param owner such as `Station 3`; null: the timer
 * @param told facts listed elsewhere
 */
export function factDifferences(
  owner: string | null,
  before: object | undefined,
  after: object | undefined,
  clock: ClockStyle,
  told: readonly string[] = [],
): Difference[] {
  const a = (before ?? {}) as Readonly<Record<string, unknown>>;
  const b = (after ?? {}) as Readonly<Record<string, unknown>>;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((key) => !told.includes(key) && !sameData(a[key], b[key]))
    .flatMap((key) => {
      const [x, y] = [a[key], b[key]];
      if (NESTED.includes(key))
        return factDifferences(
          owner,
          isRecord(x) ? x : undefined,
          isRecord(y) ? y : undefined,
          clock,
        );
      const words = (value: unknown) =>
        value === undefined ? NONE : (factValue(key, value, clock) ?? say`recorded`);
      const name = factName(key);
      const [was, is] = [words(x), words(y)];
      return [
        {
          what: owner === null ? capitalized(name) : say`${owner}, ${name}`,
          before: was,
          after: was === is ? say`changed` : is,
        },
      ];
    });
}

function startsWords(program: Program | undefined, clock: ClockStyle): string {
  if (!program) return NONE;
  return program.starts.map((start) => startWords(start, clock)).join(', ') || say`none`;
}

function programDifferences(
  letter: string,
  before: Program | undefined,
  after: Program | undefined,
  clock: ClockStyle,
): Difference[] {
  const differences: Difference[] = [];
  const tell = (what: string, a: string, b: string) => {
    if (a !== b) differences.push({ what, before: a, after: b });
  };
  if (!before || !after)
    tell(say`Program ${letter}`, before ? say`there` : NONE, after ? say`there` : NONE);
  tell(say`${letter} start times`, startsWords(before, clock), startsWords(after, clock));
  if (!sameData(before?.days, after?.days))
    differences.push({
      what: say`${letter} days`,
      before: before ? daysWords(before.days, clock) : NONE,
      after: after ? daysWords(after.days, clock) : NONE,
    });
  const run = (program: Program | undefined, station: number) => {
    const found = program?.runs.find((run) => run.station === station);
    return found ? lengthWords(found.seconds) : NONE;
  };
  const stations = [...(before?.runs ?? []), ...(after?.runs ?? [])].map((run) => run.station);
  for (const station of [...new Set(stations)].sort((a, b) => a - b))
    tell(say`${letter} station ${station}`, run(before, station), run(after, station));
  const told = ['letter', 'starts', 'days', 'runs'];
  return [...differences, ...factDifferences(letter, before, after, clock, told)];
}

/** Every setting in which two plans differ, without the site; empty if they set a timer the same way. */
export function planDifferences(before: Plan, after: Plan, clock: ClockStyle): Difference[] {
  const differences: Difference[] = sameData(before.timer, after.timer)
    ? []
    : [
        {
          what: say`Timer kind`,
          before: before.timer.name,
          after: before.timer.name === after.timer.name ? say`changed` : after.timer.name,
        },
      ];
  differences.push(...factDifferences(null, before.settings, after.settings, clock));
  const stationIn = (plan: Plan, number: number) =>
    plan.stations.find((station) => station.number === number);
  const numbers = [...before.stations, ...after.stations].map((station) => station.number);
  for (const number of [...new Set(numbers)].sort((a, b) => a - b)) {
    const [a, b] = [stationIn(before, number), stationIn(after, number)];
    const name = say`Station ${number}`;
    if (!a || !b)
      differences.push({
        what: name,
        before: a ? (a.name ?? say`there`) : NONE,
        after: b ? (b.name ?? say`there`) : NONE,
      });
    else differences.push(...factDifferences(name, a, b, clock));
  }
  const programIn = (plan: Plan, letter: string) =>
    plan.programs.find((program) => program.letter === letter);
  const letters = [...before.programs, ...after.programs].map((program) => program.letter);
  for (const letter of [...new Set(letters)].sort())
    differences.push(
      ...programDifferences(letter, programIn(before, letter), programIn(after, letter), clock),
    );
  return differences;
}
