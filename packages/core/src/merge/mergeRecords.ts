/** Merges two people's versions of a timer; and finds the change that turns one record into another. */
import { readPlan } from '../plan/readPlan.ts';
import type { RecordChange, TimerRecord } from '../record/record.ts';
import { readSurvey } from '../survey/readSurvey.ts';
import { RECORD } from './facts.ts';
import { mergeParts, same, valueAt, type Clash, type Side } from './mergeParts.ts';

export interface MergedRecords {
  /** With the chosen sides, otherwise theirs. Valid. */
  readonly record: TimerRecord;
  /** Questions to ask. */
  readonly open: readonly Clash[];
}

/** Chosen side of each clash, by path. */
export type Choices = ReadonlyMap<string, Side>;
export const NO_CHOICES: Choices = new Map();

const recordOf = ({ plan, survey }: TimerRecord): TimerRecord => ({ plan, survey });

const HALVES = ['plan', 'survey'] as const;
const isSound = (record: TimerRecord, half: (typeof HALVES)[number]): boolean =>
  half === 'plan' ? readPlan(record.plan).ok : readSurvey(record.survey).ok;

/**
 * Merges two versions of a valid record, fact by fact (docs/sync.md). If the facts do not fit together, such as a run of a station the
 * other side removed, the whole plan or survey is one clash.
 */
export function mergeRecords(
  base: TimerRecord,
  mine: TimerRecord,
  theirs: TimerRecord,
  choices: Choices = NO_CHOICES,
): MergedRecords {
  const three = { base: recordOf(base), mine: recordOf(mine), theirs: recordOf(theirs) };
  const { merged, open } = mergeParts(RECORD, three, choices);
  let record = merged;
  let left = open;
  for (const half of HALVES) {
    if (isSound(record, half)) continue;
    const side = choices.get(half);
    record = { ...record, [half]: (side === 'mine' ? mine : theirs)[half] };
    left = left.filter(({ at }) => !at.startsWith(`${half}/`));
    if (side === undefined)
      left = [...left, { at: half, base: base[half], mine: mine[half], theirs: theirs[half] }];
  }
  return { record, open: left };
}

export const sameRecord = (a: TimerRecord, b: TimerRecord): boolean =>
  same(recordOf(a), recordOf(b));

/** Fields in which two records differ, as values to set; null: remove. */
function fieldsBetween(
  from: object,
  to: object,
  except: readonly string[] = [],
): Record<string, unknown> | null {
  const [before, after] = [Object.entries(from), Object.entries(to)].map(
    (all) => new Map<string, unknown>(all),
  ) as [Map<string, unknown>, Map<string, unknown>];
  const names = [...new Set([...before.keys(), ...after.keys()])].filter(
    (name) => !except.includes(name) && !same(before.get(name), after.get(name)),
  );
  if (names.length === 0) return null;
  return Object.fromEntries(names.map((name) => [name, after.get(name) ?? null]));
}

type Single = Exclude<RecordChange, { type: 'together' }>;

/** The change that turns one record of a timer into another; null: they are equal. It replaces the plan as a whole. */
export function changeBetween(from: TimerRecord, to: TimerRecord): RecordChange | null {
  const changes: Single[] = [];
  if (!same(from.plan, to.plan)) changes.push({ type: 'replace-plan', plan: to.plan });
  const { visit: visitBefore, stations: before, ...surveyBefore } = from.survey;
  const { visit: visitAfter, stations: after, ...surveyAfter } = to.survey;
  const isSameVisit =
    visitBefore && visitAfter
      ? visitBefore.began === visitAfter.began
      : !visitBefore && !visitAfter;
  const noted = {
    ...fieldsBetween(surveyBefore, surveyAfter),
    ...(isSameVisit ? {} : { visit: visitAfter ?? null }),
  };
  // Safe casts: the fields are those of the records.
  if (Object.keys(noted).length > 0) changes.push({ type: 'note', fields: noted });
  const visited =
    isSameVisit && visitBefore && visitAfter && fieldsBetween(visitBefore, visitAfter);
  if (visited) changes.push({ type: 'note-visit', fields: visited });
  const numbers = new Set([...before, ...after].map(({ number }) => number));
  for (const number of numbers) {
    const of = (list: typeof before) => list.find((one) => one.number === number) ?? { number };
    const fields = fieldsBetween(of(before), of(after), ['number']);
    if (fields) changes.push({ type: 'note-station', station: number, fields });
  }
  const [only, ...more] = changes;
  if (!only) return null;
  return more.length === 0 ? only : { type: 'together', changes };
}

/** Value of a fact in a record, by a clash's path; undefined: absent. */
export const factAt = (record: TimerRecord, at: string): unknown => valueAt(RECORD, record, at);
