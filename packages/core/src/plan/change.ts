/**
 * The typed changes with which a plan is edited: each is one undoable step on screen, on the wire and in the record. The same function
 * applies them everywhere and returns the inverse.
 */
import { assert, type Fault, type Outcome, type Path } from '../document/fault.ts';
import type { Plan, Program, Run, Settings, Station, Timer } from './plan.ts';
import type { Days } from '../time/dayRules.ts';
import {
  readDaysShape,
  readLetter,
  readPlan,
  readProgramChange,
  readProgramShape,
  readRunSeconds,
  readSettingsChange,
  readStarts,
  readStationChange,
  readStationShape,
  readTimerShape,
  type ProgramExtras,
} from './readPlan.ts';
import {
  integer,
  list,
  nullable,
  object,
  oneOf,
  required,
  variant,
  type FieldsToSet,
  type Reader,
} from '../document/reader.ts';
import { say } from '../language/say.ts';

/** A run time to set, in seconds; null removes the run from the program. */
export interface RunEntry {
  readonly station: number;
  readonly seconds: number | null;
}

export type PlanChange =
  | { readonly type: 'set-starts'; readonly program: string; readonly starts: readonly string[] }
  | { readonly type: 'set-runs'; readonly program: string; readonly runs: readonly RunEntry[] }
  | { readonly type: 'set-days'; readonly program: string; readonly days: Days | null }
  | { readonly type: 'add-program'; readonly program: Program }
  | { readonly type: 'remove-program'; readonly program: string }
  | { readonly type: 'set-settings'; readonly settings: FieldsToSet<Settings> }
  | {
      readonly type: 'set-program';
      readonly program: string;
      readonly fields: FieldsToSet<ProgramExtras>;
    }
  | {
      readonly type: 'set-station';
      readonly station: number;
      readonly fields: FieldsToSet<Omit<Station, 'number'>>;
    }
  | { readonly type: 'add-station'; readonly station: Station }
  | { readonly type: 'remove-station'; readonly station: number }
  | { readonly type: 'set-timer'; readonly timer: Timer }
  /** Replaces everything but the site. */
  | { readonly type: 'replace-plan'; readonly plan: Plan }
  /** Several changes as one step, in order; not nested. */
  | { readonly type: 'several'; readonly changes: readonly PlanChange[] };

type Of<T extends PlanChange['type']> = Extract<PlanChange, { type: T }>;

const station = integer(1, 99);
const needed = <T>(read: Reader<T>) => required(read);
const tagged = <T extends PlanChange['type']>(type: T) => required(oneOf([type]));

const readPlanHere: Reader<Plan> = (value, path, faults) => {
  const read = readPlan(value);
  if (read.ok) return read.value;
  for (const fault of read.faults) faults.push({ ...fault, path: [...path, ...fault.path] });
  return undefined;
};

const single: Record<Exclude<PlanChange['type'], 'several'>, Reader<PlanChange>> = {
  'set-starts': object<Of<'set-starts'>>({
    type: tagged('set-starts'),
    program: needed(readLetter),
    starts: needed(readStarts),
  }),
  'set-runs': object<Of<'set-runs'>>({
    type: tagged('set-runs'),
    program: needed(readLetter),
    runs: needed(
      list(
        object<RunEntry>({ station: needed(station), seconds: needed(nullable(readRunSeconds)) }),
      ),
    ),
  }),
  'set-days': object<Of<'set-days'>>({
    type: tagged('set-days'),
    program: needed(readLetter),
    days: needed(readDaysShape),
  }),
  'add-program': object<Of<'add-program'>>({
    type: tagged('add-program'),
    program: needed(readProgramShape),
  }),
  'remove-program': object<Of<'remove-program'>>({
    type: tagged('remove-program'),
    program: needed(readLetter),
  }),
  'set-settings': object<Of<'set-settings'>>({
    type: tagged('set-settings'),
    settings: needed(readSettingsChange),
  }),
  'set-program': object<Of<'set-program'>>({
    type: tagged('set-program'),
    program: needed(readLetter),
    fields: needed(readProgramChange),
  }),
  'set-station': object<Of<'set-station'>>({
    type: tagged('set-station'),
    station: needed(station),
    fields: needed(readStationChange),
  }),
  'add-station': object<Of<'add-station'>>({
    type: tagged('add-station'),
    station: needed(readStationShape),
  }),
  'remove-station': object<Of<'remove-station'>>({
    type: tagged('remove-station'),
    station: needed(station),
  }),
  'set-timer': object<Of<'set-timer'>>({
    type: tagged('set-timer'),
    timer: needed(readTimerShape),
  }),
  'replace-plan': object<Of<'replace-plan'>>({
    type: tagged('replace-plan'),
    plan: needed(readPlanHere),
  }),
};

/** No one makes a larger step. Every cell of the largest timer is 26 × 99. */
const MOST_CHANGES_IN_ONE = 3000;

const anyChange = variant<PlanChange>('type', {
  ...single,
  several: object<Of<'several'>>({
    type: tagged('several'),
    changes: needed(list(variant<PlanChange>('type', single), { most: MOST_CHANGES_IN_ONE })),
  }),
});

/** Reads a change from a JSON value, as strictly as a document. */
export function readChange(value: unknown): Outcome<PlanChange> {
  const faults: Fault[] = [];
  const change = anyChange(value, [], faults);
  return change === undefined ? { ok: false, faults } : { ok: true, value: change };
}

export interface Applied {
  readonly plan: Plan;
  /** Undoes the change when applied to `plan`. */
  readonly inverse: PlanChange;
}

class Refused extends Error {
  readonly fault: Fault;
  constructor(fault: Fault) {
    super(fault.code);
    this.fault = fault;
  }
}

const by =
  <T>(key: (item: T) => string | number) =>
  (a: T, b: T) =>
    key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : 0;

function programOf(plan: Plan, letter: string, path: Path): Program {
  const program = plan.programs.find((program) => program.letter === letter);
  if (!program) throw new Refused({ code: 'unknown-program', path, program: letter });
  return program;
}

function stationOf(plan: Plan, number: number, path: Path): Station {
  const found = plan.stations.find((station) => station.number === number);
  if (!found) throw new Refused({ code: 'unknown-station', path, station: number });
  return found;
}

const withProgram = (plan: Plan, changed: Program): Plan => ({
  ...plan,
  programs: plan.programs.map((program) => (program.letter === changed.letter ? changed : program)),
});

/** Inserts runs, each replacing the station's own or before the first higher number. */
function withRuns(runs: readonly Run[], entries: readonly RunEntry[]): Run[] {
  const result = [...runs];
  for (const { station: number, seconds } of entries) {
    const at = result.findIndex((run) => run.station === number);
    if (seconds === null) {
      if (at >= 0) result.splice(at, 1);
    } else if (at >= 0) result[at] = { station: number, seconds };
    else {
      const next = result.findIndex((run) => run.station > number);
      result.splice(next < 0 ? result.length : next, 0, { station: number, seconds });
    }
  }
  return result;
}

/** A record with some optional fields set or removed, and their previous values. */
export function withFields<T extends object, F extends object>(
  record: T,
  fields: F,
): { readonly changed: T; readonly before: F } {
  const changed: Record<string, unknown> = Object.fromEntries(Object.entries(record));
  const before: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(fields)) {
    before[name] = changed[name] ?? null;
    if (value === null || value === undefined) delete changed[name];
    else changed[name] = value;
  }
  // Safe casts: only optional fields are set or removed, and `before` has the given fields.
  return { changed: changed as T, before: before as F };
}

function applyOne(plan: Plan, change: PlanChange): Applied {
  switch (change.type) {
    case 'set-starts': {
      const program = programOf(plan, change.program, ['program']);
      return {
        plan: withProgram(plan, { ...program, starts: change.starts }),
        inverse: { ...change, starts: program.starts },
      };
    }
    case 'set-runs': {
      const program = programOf(plan, change.program, ['program']);
      const before = change.runs.map(({ station: number }, i): RunEntry => {
        stationOf(plan, number, ['runs', i, 'station']);
        const run = program.runs.find((run) => run.station === number);
        return { station: number, seconds: run ? run.seconds : null };
      });
      return {
        plan: withProgram(plan, { ...program, runs: withRuns(program.runs, change.runs) }),
        inverse: { ...change, runs: before },
      };
    }
    case 'set-days': {
      const program = programOf(plan, change.program, ['program']);
      return {
        plan: withProgram(plan, { ...program, days: change.days }),
        inverse: { ...change, days: program.days },
      };
    }
    case 'add-program': {
      const { letter } = change.program;
      if (plan.programs.some((program) => program.letter === letter))
        throw new Refused({
          code: 'already-exists',
          path: ['program', 'letter'],
          what: say`program ${letter}`,
        });
      const programs = [...plan.programs, change.program].sort(by((program) => program.letter));
      return { plan: { ...plan, programs }, inverse: { type: 'remove-program', program: letter } };
    }
    case 'remove-program': {
      const program = programOf(plan, change.program, ['program']);
      const programs = plan.programs.filter((one) => one !== program);
      return { plan: { ...plan, programs }, inverse: { type: 'add-program', program } };
    }
    case 'set-settings': {
      const { changed, before } = withFields(plan.settings, change.settings);
      return { plan: { ...plan, settings: changed }, inverse: { ...change, settings: before } };
    }
    case 'set-program': {
      const program = programOf(plan, change.program, ['program']);
      const { changed, before } = withFields(program, change.fields);
      return { plan: withProgram(plan, changed), inverse: { ...change, fields: before } };
    }
    case 'set-station': {
      const found = stationOf(plan, change.station, ['station']);
      const { changed, before } = withFields(found, change.fields);
      const stations = plan.stations.map((station) => (station === found ? changed : station));
      return { plan: { ...plan, stations }, inverse: { ...change, fields: before } };
    }
    case 'add-station': {
      const { number } = change.station;
      if (plan.stations.some((station) => station.number === number))
        throw new Refused({
          code: 'already-exists',
          path: ['station', 'number'],
          what: say`station ${number}`,
        });
      const stations = [...plan.stations, change.station].sort(by((station) => station.number));
      return { plan: { ...plan, stations }, inverse: { type: 'remove-station', station: number } };
    }
    case 'remove-station': {
      const found = stationOf(plan, change.station, ['station']);
      const programs = plan.programs
        .filter(({ runs }) => runs.some((run) => run.station === change.station))
        .map(({ letter }) => letter);
      if (programs.length > 0)
        throw new Refused({
          code: 'still-used',
          path: ['station'],
          station: change.station,
          programs,
        });
      const stations = plan.stations.filter((station) => station !== found);
      return { plan: { ...plan, stations }, inverse: { type: 'add-station', station: found } };
    }
    case 'set-timer':
      return {
        plan: { ...plan, timer: change.timer },
        inverse: { type: 'set-timer', timer: plan.timer },
      };
    case 'replace-plan': {
      const { site: _theirs, ...rest } = change.plan;
      const replaced: Plan = plan.site === undefined ? rest : { ...rest, site: plan.site };
      return { plan: replaced, inverse: { type: 'replace-plan', plan } };
    }
    case 'several': {
      const inverses: PlanChange[] = [];
      let current = plan;
      change.changes.forEach((change, i) => {
        assert(change.type !== 'several', 'changes are not nested');
        try {
          const applied = applyOne(current, change);
          current = applied.plan;
          inverses.unshift(applied.inverse);
        } catch (error) {
          if (!(error instanceof Refused)) throw error;
          const { fault } = error;
          throw new Refused({ ...fault, path: ['changes', i, ...fault.path] });
        }
      });
      return { plan: current, inverse: { type: 'several', changes: inverses } };
    }
  }
}

/**
 * Applies a change to a valid plan. The result is valid again, or the change is refused with faults: of the change by its own path, of the
 * resulting plan by the path there.
 */
export function applyChange(plan: Plan, change: PlanChange): Outcome<Applied> {
  let applied: Applied;
  try {
    applied = applyOne(plan, change);
  } catch (error) {
    if (error instanceof Refused) return { ok: false, faults: [error.fault] };
    throw error;
  }
  const sound = readPlan(applied.plan);
  if (!sound.ok) return sound;
  return { ok: true, value: applied };
}

/**
 * Links a station to another, or unlinks it with null. A linked station has no run times of its own, so they are removed, and stations
 * linked to it are linked to the other.
 */
export function linkStationChange(plan: Plan, number: number, to: number | null): PlanChange {
  const fields = { linkedTo: to };
  if (to === null) return { type: 'set-station', station: number, fields };
  const followers = plan.stations.filter(({ linkedTo }) => linkedTo === number);
  return {
    type: 'several',
    changes: [
      ...runsOut(plan, number),
      ...followers.map(
        (station) => ({ type: 'set-station', station: station.number, fields }) as const,
      ),
      { type: 'set-station', station: number, fields },
    ],
  };
}

const runsOut = ({ programs }: Plan, number: number): PlanChange[] =>
  programs
    .filter(({ runs }) => runs.some((run) => run.station === number))
    .map(({ letter }) => ({
      type: 'set-runs',
      program: letter,
      runs: [{ station: number, seconds: null }],
    }));

/** Removes a station with its runs in one step. */
export function removeStationChange(plan: Plan, number: number): PlanChange {
  const followers = plan.stations.filter(({ linkedTo }) => linkedTo === number);
  return {
    type: 'several',
    changes: [
      ...runsOut(plan, number),
      ...followers.map(
        (station) =>
          ({ type: 'set-station', station: station.number, fields: { linkedTo: null } }) as const,
      ),
      { type: 'remove-station', station: number },
    ],
  };
}
