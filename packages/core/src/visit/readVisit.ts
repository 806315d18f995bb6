/** Reader of a visit and of changes to it, as strict as those of the plan. */
import { parseMoment } from '../time/calendar.ts';
import type { Fault, Outcome } from '../document/fault.ts';
import type { Plan } from '../plan/plan.ts';
import { readLetter, readPlan } from '../plan/readPlan.ts';
import { readDate } from '../time/timeReaders.ts';
import {
  boolean,
  decimal,
  fieldsToSet,
  integer,
  list,
  object,
  oneOf,
  optional,
  readLine,
  readNote,
  readUuid,
  required,
  textLike,
  variant,
  type Fields,
  type Reader,
} from '../document/reader.ts';
import {
  FIRST_SHOWN,
  HIDDEN_ANSWERS,
  KEY_IN_SCOPES,
  NEXT_REASONS,
  RUNGS,
  SIGNS,
  SWITCHED,
  TEST_RESULTS,
  WIRINGS,
  type AsFound,
  type ClosedVisit,
  type FollowUp,
  type Frozen,
  type KeyIn,
  type NextVisit,
  type PanelLooked,
  type RungTried,
  type SavedInside,
  type ShownText,
  type Sighting,
  type StationTest,
  type SwitchedForTest,
  type Tariff,
  type Undone,
  type Visit,
  type VisitFields,
} from './visit.ts';
import { say } from '../language/say.ts';

export const readMoment: Reader<string> = textLike(
  (t) => t.includes('T') && parseMoment(t) !== null,
  'a moment "YYYY-MM-DDTHH:MM", years 1970 to 9999',
);
const station = integer(1, 99);

const frozenPlan: Reader<Plan> = (value, path, faults) => {
  const read = readPlan(value);
  if (read.ok) return read.value;
  for (const fault of read.faults) faults.push({ ...fault, path: [...path, ...fault.path] });
  return undefined;
};

const frozenFields: Fields<Frozen> = {
  at: required(readMoment, 'a moment'),
  plan: required(frozenPlan, 'a plan'),
};

const sightingFields = object<Sighting>({
  saw: required(oneOf(['ran', 'dry']), 'ran or dry'),
  from: required(readMoment, 'a moment'),
  to: optional(readMoment),
  station: optional(station),
  minutes: optional(integer(1, 1440)),
  times: optional(integer(1, 99)),
  giveOrTake: optional(integer(1, 240)),
  ranBefore: optional(boolean),
  ranAfter: optional(boolean),
});

/** Only a dry span says what ran before and after. */
export const readSighting: Reader<Sighting> = (value, path, faults) => {
  const sighting = sightingFields(value, path, faults);
  if (!sighting || (sighting.saw === 'dry' && sighting.to !== undefined)) return sighting;
  for (const key of ['ranBefore', 'ranAfter'] as const)
    if (sighting[key])
      faults.push({
        code: 'malformed',
        path: [...path, key],
        expected: say`only when "saw" is "dry" and "to" is given`,
        actual: 'true',
      });
  return sighting;
};

/** No one sees more. Our own limit. */
export const MOST_SIGHTINGS = 60;
/** Every line of the largest panel. */
const MOST_TICKED = 4000;

const panelPhotos = list(readUuid, { most: 12, unique: true });
const lines = list(readLine, { most: MOST_TICKED, unique: true });
const shown = list(
  object<ShownText>({
    line: required(readLine, 'a line of the panel'),
    text: required(readLine, 'what the display showed'),
  }),
  { most: MOST_TICKED },
);

const visitFields: Fields<VisitFields> = {
  complaint: optional(readNote),
  asFound: optional(
    object<AsFound>({
      ...frozenFields,
      hidden: required(oneOf(HIDDEN_ANSWERS), HIDDEN_ANSWERS.join(', ')),
      notLooked: optional(lines),
      shown: optional(shown),
      photos: optional(panelPhotos),
    }),
  ),
  display: optional(oneOf(FIRST_SHOWN)),
  factoryBack: optional(boolean),
  panel: optional(
    object<PanelLooked>({
      looked: optional(lines),
      shown: optional(shown),
      photos: optional(panelPhotos),
    }),
  ),
  totals: optional(
    list(
      object<{ program: string; seconds: number }>({
        program: required(readLetter, 'a program'),
        seconds: required(integer(0, 8_640_000), 'seconds'),
      }),
      { most: 26 },
    ),
  ),
  sightings: optional(list(readSighting, { most: MOST_SIGHTINGS })),
  signs: optional(list(oneOf(SIGNS), { unique: true })),
  cause: optional(readNote),
  ladders: optional(
    list(
      object<RungTried>({
        station: required(station, '1 to 99'),
        rung: required(oneOf(RUNGS), RUNGS.join(', ')),
        good: required(boolean, 'true or false'),
        reading: optional(readLine),
      }),
      { most: 99 * RUNGS.length },
    ),
  ),
  keyIn: optional(
    object<KeyIn>({
      scope: required(oneOf(KEY_IN_SCOPES), KEY_IN_SCOPES.join(', ')),
      ticked: required(list(readLine, { most: MOST_TICKED, unique: true }), 'a list of lines'),
      slips: optional(integer(0, 1_000_000)),
      readsBack: optional(boolean),
    }),
  ),
  tests: optional(
    list(
      object<StationTest>({
        station: required(station, '1 to 99'),
        result: optional(oneOf(TEST_RESULTS)),
        wiring: optional(oneOf(WIRINGS)),
        reading: optional(readLine),
      }),
      { most: 99 },
    ),
  ),
  switched: optional(
    list(
      object<SwitchedForTest>({
        what: required(oneOf(SWITCHED), SWITCHED.join(', ')),
        putBack: required(boolean, 'true or false'),
        reason: optional(readLine),
      }),
      { most: SWITCHED.length },
    ),
  ),
  savedInside: optional(
    object<SavedInside>({
      at: required(readMoment, 'a moment'),
      state: required(oneOf(['as-found', 'as-left', 'other']), 'as-found, as-left or other'),
      note: optional(readNote),
    }),
  ),
  asLeft: optional(object<Frozen>(frozenFields)),
  done: optional(readNote),
  minutesSpent: optional(integer(0, 10_000)),
  photos: optional(list(readUuid, { most: 24, unique: true })),
};

const began = required(readMoment, 'when it began');
export const readVisitShape: Reader<Visit> = object<Visit>({ began, ...visitFields });
/** Visit facts to set; null makes one unknown. */
export const readVisitChange = fieldsToSet<VisitFields>(visitFields);

export const readNextVisits: Reader<readonly NextVisit[]> = list(
  object<NextVisit>({
    date: required(readDate, 'a date'),
    reason: required(oneOf(NEXT_REASONS), NEXT_REASONS.join(', ')),
    everyMonths: optional(integer(1, 60)),
    note: optional(readLine),
  }),
  { most: 50 },
);

export const readFollowUp: Reader<FollowUp> = object<FollowUp>({
  program: required(readLetter, 'a program'),
  due: required(readMoment, 'a moment'),
  stations: required(list(station, { most: 99 }), 'a list of stations'),
  seenOn: optional(readDate),
  seenBy: optional(readLine),
  note: optional(readNote),
});

const litres = decimal(0, 1_000_000_000);
export const readTariff: Reader<Tariff> = object<Tariff>({
  currency: required(
    textLike((t) => /^\S{1,5}$/.test(t), '1 to 5 characters without a space'),
    'a currency',
  ),
  periodDays: required(integer(1, 366), '1 to 366'),
  steps: required(
    list(
      object<Tariff['steps'][number]>({
        upToLitres: optional(litres),
        perCubicMetre: required(decimal(0, 100_000), 'a price'),
      }),
      { least: 1, most: 12 },
    ),
    'a list of steps',
  ),
  houseLitres: optional(litres),
});

type UndoneOf<W extends Undone['what']> = Extract<Undone, { what: W }>;
const plainUndone = <
  W extends 'no-as-found' | 'no-as-left' | 'as-left-is-older' | 'clock-not-looked',
>(
  what: W,
) => object<{ readonly what: W }>({ what: required(oneOf([what])) });

/** What was left undone. */
export const readUndone: Reader<readonly Undone[]> = list(
  variant<Undone>('what', {
    'no-as-found': plainUndone('no-as-found'),
    'no-as-left': plainUndone('no-as-left'),
    'as-left-is-older': plainUndone('as-left-is-older'),
    'clock-not-looked': plainUndone('clock-not-looked'),
    switched: object<UndoneOf<'switched'>>({
      what: required(oneOf(['switched'])),
      switched: required(oneOf(SWITCHED), SWITCHED.join(', ')),
    }),
    'clock-wrong': object<UndoneOf<'clock-wrong'>>({
      what: required(oneOf(['clock-wrong'])),
      ahead: required(integer(-1_000_000_000, 1_000_000_000), 'seconds'),
    }),
    'not-keyed': object<UndoneOf<'not-keyed'>>({
      what: required(oneOf(['not-keyed'])),
      lines: required(integer(1, MOST_TICKED), 'how many lines'),
    }),
    'not-tested': object<UndoneOf<'not-tested'>>({
      what: required(oneOf(['not-tested'])),
      stations: required(list(station, { least: 1, most: 99 }), 'a list of stations'),
    }),
  }),
  { most: 20 },
);

const closedShape = object<ClosedVisit>({
  began,
  ...visitFields,
  closed: required(readMoment, 'when it was closed'),
  asLeft: required(object<Frozen>(frozenFields), 'the state as left'),
  next: required(readNextVisits, 'a list of planned visits'),
  followUp: optional(readFollowUp),
  undone: optional(readUndone),
  faults: required(
    list(
      object<ClosedVisit['faults'][number]>({
        station: required(station, '1 to 99'),
        fault: required(readLine, 'a fault'),
        open: required(boolean, 'true or false'),
      }),
      { most: 2000 },
    ),
    'a list of faults',
  ),
});

/** Reads a closed visit from a JSON value. Strict. */
export function readClosedVisit(value: unknown): Outcome<ClosedVisit> {
  const faults: Fault[] = [];
  const visit = closedShape(value, [], faults);
  return visit === undefined ? { ok: false, faults } : { ok: true, value: visit };
}

/** Reads what is left undone from a JSON value. Strict. */
export function readUndonePoints(value: unknown): Outcome<readonly Undone[]> {
  const faults: Fault[] = [];
  const points = readUndone(value, [], faults);
  return points === undefined ? { ok: false, faults } : { ok: true, value: points };
}
