/** What differs between two plans, setting by setting, in words: for two tabs in conflict, for undo, for a record. */
import type { Plan, Program } from './plan.ts';
import { daysWords, lengthWords, startWords, type ClockStyle } from '../words/words.ts';
import { say } from '../language/say.ts';

export interface Difference {
  /** The setting, such as `B starts` or `A station 3`. */
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

export const NONE = '—';

function startsWords(program: Program | undefined, clock: ClockStyle): string {
  if (!program) return NONE;
  return program.starts.map((start) => startWords(start, clock)).join(', ') || say`none`;
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A value of a document for a person. */
function valueWords(value: unknown): string {
  if (value === undefined) return NONE;
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/**
 * The fields of two records that differ, those named in `told` left out; records inside are tried field by field, so
 * the order in which fields stand makes no difference.
 */
export function fieldDifferences(
  what: string,
  before: object | undefined,
  after: object | undefined,
  told: readonly string[] = [],
): Difference[] {
  const a = (before ?? {}) as Record<string, unknown>;
  const b = (after ?? {}) as Record<string, unknown>;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((key) => !told.includes(key))
    .flatMap((key) => valueDifferences(`${what} ${key}`, a[key], b[key]));
}

function valueDifferences(what: string, a: unknown, b: unknown): Difference[] {
  if (isRecord(a) && isRecord(b)) return fieldDifferences(what, a, b);
  if (Array.isArray(a) && Array.isArray(b) && a.length === b.length)
    return a.some((one, i) => valueDifferences(what, one, b[i]).length > 0)
      ? [{ what, before: valueWords(a), after: valueWords(b) }]
      : [];
  const [before, after] = [valueWords(a), valueWords(b)];
  return before === after ? [] : [{ what, before, after }];
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
    tell(say`program ${letter}`, before ? say`there` : NONE, after ? say`there` : NONE);
  tell(say`${letter} start times`, startsWords(before, clock), startsWords(after, clock));
  tell(
    say`${letter} days`,
    before ? daysWords(before.days) : NONE,
    after ? daysWords(after.days) : NONE,
  );
  const run = (program: Program | undefined, station: number) => {
    const found = program?.runs.find((run) => run.station === station);
    return found ? lengthWords(found.seconds) : NONE;
  };
  const stations = [...(before?.runs ?? []), ...(after?.runs ?? [])].map((run) => run.station);
  for (const station of [...new Set(stations)].sort((a, b) => a - b))
    tell(say`${letter} station ${station}`, run(before, station), run(after, station));
  const told = ['letter', 'starts', 'days', 'runs'];
  return [...differences, ...fieldDifferences(letter, before, after, told)];
}

/** Every setting in which two plans differ, sites apart; empty where they set a timer alike. */
export function planDifferences(before: Plan, after: Plan, clock: ClockStyle): Difference[] {
  const differences = [
    ...fieldDifferences(say`timer`, before.timer, after.timer),
    ...fieldDifferences(say`setting`, before.settings, after.settings),
  ];
  const stationIn = (plan: Plan, number: number) =>
    plan.stations.find((station) => station.number === number);
  const numbers = [...before.stations, ...after.stations].map((station) => station.number);
  for (const number of [...new Set(numbers)].sort((a, b) => a - b)) {
    const [a, b] = [stationIn(before, number), stationIn(after, number)];
    if (!a || !b)
      differences.push({
        what: say`station ${number}`,
        before: a ? (a.name ?? say`there`) : NONE,
        after: b ? (b.name ?? say`there`) : NONE,
      });
    else differences.push(...fieldDifferences(say`station ${number}`, a, b));
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

/** Whether two plans set a timer alike, down to the last field. */
export function samePlan(a: Plan, b: Plan): boolean {
  return a === b || planDifferences(a, b, '24').length === 0;
}
