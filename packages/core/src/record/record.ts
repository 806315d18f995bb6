/**
 * The record of one timer: its settings and its survey under one version, so that a step touching both (a run-off test, copied or imported
 * stations) is one step to save, undo and show in the activity.
 */
import { applyChange, readChange, withFields, type PlanChange } from '../plan/change.ts';
import { assert, type Fault, type Outcome } from '../document/fault.ts';
import type { Plan } from '../plan/plan.ts';
import {
  integer,
  list,
  object,
  oneOf,
  required,
  variant,
  type FieldsToSet,
  type Reader,
} from '../document/reader.ts';
import { readSurvey, readSurveyChange, readSurveyStationChange } from '../survey/readSurvey.ts';
import { readVisitChange } from '../visit/readVisit.ts';
import type { VisitFields } from '../visit/visit.ts';
import type { Survey, SurveyFields, SurveyStation, SurveyStationFields } from '../survey/survey.ts';
import { say } from '../language/say.ts';

export interface TimerRecord {
  readonly plan: Plan;
  readonly survey: Survey;
}

type SingleChange =
  | PlanChange
  | {
      readonly type: 'note-station';
      readonly station: number;
      readonly fields: FieldsToSet<SurveyStationFields>;
    }
  | { readonly type: 'note'; readonly fields: FieldsToSet<SurveyFields> }
  /** Facts of the open visit. */
  | { readonly type: 'note-visit'; readonly fields: FieldsToSet<VisitFields> };

export type RecordChange =
  | SingleChange
  /** Several changes of both as one step, in order; not nested. */
  | { readonly type: 'together'; readonly changes: readonly SingleChange[] };

type Of<T extends RecordChange['type']> = Extract<RecordChange, { type: T }>;

const planChange: Reader<PlanChange> = (value, path, faults) => {
  const read = readChange(value);
  if (read.ok) return read.value;
  for (const fault of read.faults) faults.push({ ...fault, path: [...path, ...fault.path] });
  return undefined;
};

const surveyChanges = {
  'note-station': object<Of<'note-station'>>({
    type: required(oneOf(['note-station'])),
    station: required(integer(1, 99), '1 to 99'),
    fields: required(readSurveyStationChange, 'the facts to set'),
  }),
  note: object<Of<'note'>>({
    type: required(oneOf(['note'])),
    fields: required(readSurveyChange, 'the facts to set'),
  }),
  'note-visit': object<Of<'note-visit'>>({
    type: required(oneOf(['note-visit'])),
    fields: required(readVisitChange, 'the facts to set'),
  }),
};

const typeOf = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && 'type' in value ? value.type : undefined;

const single: Reader<SingleChange> = (value, path, faults) => {
  const type = typeOf(value);
  return typeof type === 'string' && Object.hasOwn(surveyChanges, type)
    ? variant<SingleChange>('type', surveyChanges)(value, path, faults)
    : planChange(value, path, faults);
};

/** Two for each station of the largest timer, plus adding it. */
const MOST_TOGETHER = 400;
const together = object<Of<'together'>>({
  type: required(oneOf(['together'])),
  changes: required(list(single, { most: MOST_TOGETHER }), 'a list of changes'),
});

/** Reads a change from a JSON value, as strictly as a document. */
export function readRecordChange(value: unknown): Outcome<RecordChange> {
  const faults: Fault[] = [];
  const read: Reader<RecordChange> = typeOf(value) === 'together' ? together : single;
  const change = read(value, [], faults);
  return change === undefined ? { ok: false, faults } : { ok: true, value: change };
}

/** Whether a change affects settings, not only notes. */
export const touchesPlan = (change: RecordChange): boolean =>
  change.type === 'together'
    ? change.changes.some((one) => touchesPlan(one))
    : !Object.hasOwn(surveyChanges, change.type);

export interface AppliedToRecord {
  readonly record: TimerRecord;
  /** Undoes the change when applied to `record`. */
  readonly inverse: RecordChange;
}

const done = (record: TimerRecord, inverse: RecordChange): Outcome<AppliedToRecord> => ({
  ok: true,
  value: { record, inverse },
});

function checked(record: TimerRecord, survey: Survey, inverse: RecordChange) {
  const sound = readSurvey(survey);
  return sound.ok ? done({ ...record, survey }, inverse) : sound;
}

/** Applies a change to a valid record: the result is valid, or the change is refused with faults. */
export function applyRecordChange(
  record: TimerRecord,
  change: RecordChange,
): Outcome<AppliedToRecord> {
  const { survey } = record;
  switch (change.type) {
    case 'note': {
      const { changed, before } = withFields(survey, change.fields);
      return checked(record, changed, { type: 'note', fields: before });
    }
    case 'note-visit': {
      if (!survey.visit)
        return {
          ok: false,
          faults: [{ code: 'missing-field', path: ['visit'], expected: say`a visit under way` }],
        };
      const { changed, before } = withFields(survey.visit, change.fields);
      return checked(record, { ...survey, visit: changed }, { ...change, fields: before });
    }
    case 'note-station': {
      const number = change.station;
      const found: SurveyStation = survey.stations.find((station) => station.number === number) ?? {
        number,
      };
      const { changed, before } = withFields(found, change.fields);
      const others = survey.stations.filter((station) => station.number !== number);
      // A station without any fact is removed, so that undo ends where it began.
      const known = Object.keys(changed).length > 1;
      const stations = [...others, ...(known ? [changed] : [])].sort((a, b) => a.number - b.number);
      return checked(record, { ...survey, stations }, { ...change, fields: before });
    }
    case 'together': {
      let current = record;
      const inverses: SingleChange[] = [];
      for (const [i, one] of change.changes.entries()) {
        const applied = applyRecordChange(current, one);
        if (!applied.ok)
          return {
            ok: false,
            faults: applied.faults.map((fault) => ({
              ...fault,
              path: ['changes', i, ...fault.path],
            })),
          };
        const { inverse } = applied.value;
        assert(inverse.type !== 'together', 'changes are not nested');
        inverses.unshift(inverse);
        current = applied.value.record;
      }
      return done(current, { type: 'together', changes: inverses });
    }
    default: {
      const applied = applyChange(record.plan, change);
      if (!applied.ok) return applied;
      const { plan, inverse } = applied.value;
      return done({ ...record, plan }, inverse);
    }
  }
}
