/**
 * One visit to a timer: what was found, seen, keyed in, tested and left. While open it is part of the survey, so that every step is saved,
 * undone and synced like the rest; once closed it never changes.
 */
import type { Plan } from '../plan/plan.ts';

/** A saved state of the timer, at a local time at the site (`YYYY-MM-DDTHH:MM`). */
export interface Frozen {
  readonly at: string;
  /** Without its `site`. */
  readonly plan: Plan;
}

/** Whether someone checked for hidden programs or starts. */
export const HIDDEN_ANSWERS = ['none-found', 'some-found', 'cannot-hide', 'not-looked'] as const;
export type HiddenAnswer = (typeof HIDDEN_ANSWERS)[number];

export interface AsFound extends Frozen {
  readonly hidden: HiddenAnswer;
  /** Ids of panel lines no one had looked at; their values are only planned. */
  readonly notLooked?: readonly string[];
  /** What the display showed if settings are not shown as such, as typed. */
  readonly shown?: readonly ShownText[];
  /** Photos of the panel. */
  readonly photos?: readonly string[];
}

/** What was looked at on the panel before saving as found. */
export interface PanelLooked {
  /** Ids of its lines. */
  readonly looked?: readonly string[];
  /** For those, what the display showed if settings are not shown as such. */
  readonly shown?: readonly ShownText[];
  readonly photos?: readonly string[];
}

export interface ShownText {
  /** Id of the panel line. */
  readonly line: string;
  readonly text: string;
}

/** A sighting, at a moment or within a span of local time. */
export interface Sighting {
  /** Water ran; or none did. */
  readonly saw: 'ran' | 'dry';
  readonly from: string;
  /** Absent: at that moment. */
  readonly to?: string;
  /** Absent: somewhere; with `dry`: nowhere. */
  readonly station?: number;
  /** Approximate duration. */
  readonly minutes?: number;
  /** Tolerance in minutes; absent: as people give times, to five minutes. */
  readonly giveOrTake?: number;
  /** Number of times within the span. */
  readonly times?: number;
  /** With `dry`: it ran when the span begins, for the last time before it; it ran again when the span ends. */
  readonly ranBefore?: boolean;
  readonly ranAfter?: boolean;
}

/** What the timer itself shows (field guide, "What the box itself shows"). */
export const SIGNS = [
  'blinking-program',
  'steady-light',
  'station-error',
  'pump-error',
  'says-off',
  'water-sign',
  'blank-screen',
  'flashing-clock',
  'buttons-dead',
  'sensor-off',
] as const;
export type Sign = (typeof SIGNS)[number];

/** What the display does before anyone touches it. */
export const FIRST_SHOWN = ['steady', 'flashing', 'blank'] as const;
export type FirstShown = (typeof FIRST_SHOWN)[number];

/** Steps of finding a dead station, in order. */
export const RUNGS = ['power', 'settings', 'module', 'wire', 'valve'] as const;
export type DiagnosticStep = (typeof RUNGS)[number];

export interface RungTried {
  readonly station: number;
  readonly rung: DiagnosticStep;
  readonly good: boolean;
  readonly reading?: string;
}

export const TEST_RESULTS = ['waters', 'weak', 'dead', 'does-not-stop'] as const;
export type TestResult = (typeof TEST_RESULTS)[number];
export const WIRINGS = ['good', 'open', 'short'] as const;
export type Wiring = (typeof WIRINGS)[number];

export interface StationTest {
  readonly station: number;
  readonly result?: TestResult;
  readonly wiring?: Wiring;
  readonly reading?: string;
}

/** What people switch for a test and forget. */
export const SWITCHED = ['bypass', 'off', 'delay', 'manual', 'disabled'] as const;
export type Switched = (typeof SWITCHED)[number];

export interface SwitchedForTest {
  readonly what: Switched;
  readonly putBack: boolean;
  /** Why it was left that way. */
  readonly reason?: string;
}

/** Contents of the timer's own save and restore. */
export interface SavedInside {
  readonly at: string;
  readonly state: 'as-found' | 'as-left' | 'other';
  readonly note?: string;
}

export const KEY_IN_SCOPES = ['changes', 'everything', 'factory'] as const;
export type KeyInScope = (typeof KEY_IN_SCOPES)[number];

export interface KeyIn {
  readonly scope: KeyInScope;
  /** Ids of lines (`panel/lines.ts`), each with the value keyed in: another value is another line. */
  readonly ticked: readonly string[];
  /** Entries read back wrong, and corrected. */
  readonly slips?: number;
  /** The display's value is typed and compared. */
  readonly readsBack?: boolean;
}

export interface Visit {
  readonly began: string;
  readonly complaint?: string;
  readonly asFound?: AsFound;
  readonly display?: FirstShown;
  /** After a power cut: whether the factory program came back. */
  readonly factoryBack?: boolean;
  /** What was looked at on the panel. */
  readonly panel?: PanelLooked;
  /** Program total on the display, seconds. */
  readonly totals?: readonly { readonly program: string; readonly seconds: number }[];
  readonly sightings?: readonly Sighting[];
  readonly signs?: readonly Sign[];
  /** The explanation that turned out to be true. */
  readonly cause?: string;
  readonly ladders?: readonly RungTried[];
  readonly keyIn?: KeyIn;
  readonly tests?: readonly StationTest[];
  readonly switched?: readonly SwitchedForTest[];
  readonly savedInside?: SavedInside;
  readonly asLeft?: Frozen;
  readonly done?: string;
  readonly minutesSpent?: number;
  readonly photos?: readonly string[];
}

export type VisitFields = Omit<Visit, 'began'>;

export const NEXT_REASONS = [
  'percent',
  'clock-change',
  'battery',
  'inlet-screen',
  'new-seed',
  'season-start',
  'season-end',
  'rules-change',
  'other',
] as const;
export type NextReason = (typeof NEXT_REASONS)[number];

/** A coming visit. */
export interface NextVisit {
  readonly date: string;
  /** Repeats after some months; absent: once. */
  readonly everyMonths?: number;
  readonly reason: NextReason;
  readonly note?: string;
}

/** Someone must see the first watering: open until `seenOn` is set. */
export interface FollowUp {
  readonly program: string;
  /** When it begins, and which stations run in this order. */
  readonly due: string;
  readonly stations: readonly number[];
  readonly seenOn?: string;
  readonly seenBy?: string;
  readonly note?: string;
}

/** Water tariff: steps of a billing period. */
export interface Tariff {
  /** As written before or after an amount, such as a symbol or three letters. */
  readonly currency: string;
  readonly periodDays: number;
  /** By the cubic metre; each step up to a number of litres in a period, the last without a limit. */
  readonly steps: readonly { readonly upToLitres?: number; readonly perCubicMetre: number }[];
  /** Other use of the house in a period, litres: the garden's water comes on top. */
  readonly houseLitres?: number;
}

/** What was left undone when a visit was closed, or would be if it were closed now. */
export type Undone =
  | {
      readonly what: 'no-as-found' | 'no-as-left' | 'as-left-is-older' | 'clock-not-looked';
    }
  /** Switched for the test, and neither put back nor left on purpose. */
  | { readonly what: 'switched'; readonly switched: Switched }
  /** Found some seconds ahead, and not set. */
  | { readonly what: 'clock-wrong'; readonly ahead: number }
  | { readonly what: 'not-keyed'; readonly lines: number }
  | { readonly what: 'not-tested'; readonly stations: readonly number[] };

/** A closed visit in the logbook. */
export interface ClosedVisit extends Visit {
  readonly closed: string;
  readonly asLeft: Frozen;
  readonly next: readonly NextVisit[];
  readonly followUp?: FollowUp;
  /** Absent: nothing was left undone. */
  readonly undone?: readonly Undone[];
  /** Open faults of stations, and those repaired since the visit began. */
  readonly faults: readonly {
    readonly station: number;
    readonly fault: string;
    readonly open: boolean;
  }[];
}
