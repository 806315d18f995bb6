/**
 * One visit to a timer: what was found, seen, keyed in, tested and left. While it is under way it is a part of the survey, so that
 * every step of it is saved, undone and carried over a lost connection like all else; once it is closed it is never altered.
 */
import type { Plan } from '../plan/plan.ts';

/** A state of the timer that is kept as it was, at a moment by the house's clocks (`YYYY-MM-DDTHH:MM`). */
export interface Frozen {
  readonly at: string;
  /** Without its `site`. */
  readonly plan: Plan;
}

/** Whether programs or starts that the panel hides were looked for. */
export const HIDDEN_ANSWERS = ['none-found', 'some-found', 'cannot-hide', 'not-looked'] as const;
export type HiddenAnswer = (typeof HIDDEN_ANSWERS)[number];

export interface AsFound extends Frozen {
  readonly hidden: HiddenAnswer;
  /** Ids of the panel's lines that nobody had looked at: what stands there is only what was planned. */
  readonly notLooked?: readonly string[];
  /** What the display showed where no setting is shown so, as it was typed. */
  readonly shown?: readonly ShownText[];
  /** Of the panel. */
  readonly photos?: readonly string[];
}

/** What somebody has looked at on the panel, before the settings are frozen as found. */
export interface PanelLooked {
  /** Ids of its lines. */
  readonly looked?: readonly string[];
  /** Of those, what the display showed where no setting is shown so. */
  readonly shown?: readonly ShownText[];
  readonly photos?: readonly string[];
}

export interface ShownText {
  /** The id of the panel's line. */
  readonly line: string;
  readonly text: string;
}

/** What somebody saw, at a moment or within a span by the house's clocks. */
export interface Sighting {
  /** Water ran; or none did. */
  readonly saw: 'ran' | 'dry';
  readonly from: string;
  /** Absent: at that moment. */
  readonly to?: string;
  /** Absent: somewhere, and with `dry`: nowhere. */
  readonly station?: number;
  /** For so long, about. */
  readonly minutes?: number;
  /** The moment give or take so many minutes; absent: as people name times, to five minutes. */
  readonly giveOrTake?: number;
  /** So many times within the span. */
  readonly times?: number;
  /** With `dry`: it ran when the span begins, for the last time before it; it ran again when the span ends. */
  readonly ranBefore?: boolean;
  readonly ranAfter?: boolean;
}

/** What the box itself shows (field guide, "What the box itself shows"). */
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

/** What the display does before anybody touches it. */
export const FIRST_SHOWN = ['steady', 'flashing', 'blank'] as const;
export type FirstShown = (typeof FIRST_SHOWN)[number];

/** The steps of the search for a dead station, in order. */
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

/** What people switch for a test, and forget. */
export const SWITCHED = ['bypass', 'off', 'delay', 'manual', 'disabled'] as const;
export type Switched = (typeof SWITCHED)[number];

export interface SwitchedForTest {
  readonly what: Switched;
  readonly putBack: boolean;
  /** Why it was left that way. */
  readonly reason?: string;
}

/** What the timer's own save-and-restore holds. */
export interface SavedInside {
  readonly at: string;
  readonly state: 'as-found' | 'as-left' | 'other';
  readonly note?: string;
}

export const KEY_IN_SCOPES = ['changes', 'everything', 'factory'] as const;
export type KeyInScope = (typeof KEY_IN_SCOPES)[number];

export interface KeyIn {
  readonly scope: KeyInScope;
  /** Ids of lines (`panel/lines.ts`), each with the value that was keyed in: another value is another line. */
  readonly ticked: readonly string[];
  /** Entries that were read back otherwise than planned, and repaired. */
  readonly slips?: number;
  /** What stands on the display is typed and compared. */
  readonly readsBack?: boolean;
}

export interface Visit {
  readonly began: string;
  readonly complaint?: string;
  readonly asFound?: AsFound;
  readonly display?: FirstShown;
  /** After a loss of power: whether its factory program came back. */
  readonly factoryBack?: boolean;
  /** What was looked at on the panel. */
  readonly panel?: PanelLooked;
  /** What the box showed as a program's total, seconds. */
  readonly totals?: readonly { readonly program: string; readonly seconds: number }[];
  readonly sightings?: readonly Sighting[];
  readonly signs?: readonly Sign[];
  /** The explanation that was found to be true. */
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

/** A visit to come. */
export interface NextVisit {
  readonly date: string;
  /** It comes round again after so many months; absent: once. */
  readonly everyMonths?: number;
  readonly reason: NextReason;
  readonly note?: string;
}

/** Somebody is to see the first real watering: open until `seenOn` is there. */
export interface FollowUp {
  readonly program: string;
  /** When it is to begin, and which stations are to run in this order. */
  readonly due: string;
  readonly stations: readonly number[];
  readonly seenOn?: string;
  readonly seenBy?: string;
  readonly note?: string;
}

/** What water costs: steps of a billing period. */
export interface Tariff {
  /** As it stands before or after an amount, such as a sign or three letters. */
  readonly currency: string;
  readonly periodDays: number;
  /** By the cubic metre; each step up to so many litres of a period, the last without an end. */
  readonly steps: readonly { readonly upToLitres?: number; readonly perCubicMetre: number }[];
  /** What the house uses besides in a period, litres: the garden's water comes on top of it. */
  readonly houseLitres?: number;
}

/** What was left undone when a visit was closed, or would be if it were closed now. */
export type Undone =
  | {
      readonly what: 'no-as-found' | 'no-as-left' | 'as-left-is-older' | 'clock-not-looked';
    }
  /** Switched for the test, and neither put back nor left so on purpose. */
  | { readonly what: 'switched'; readonly switched: Switched }
  /** Found so many seconds ahead, and not set. */
  | { readonly what: 'clock-wrong'; readonly ahead: number }
  | { readonly what: 'not-keyed'; readonly lines: number }
  | { readonly what: 'not-tested'; readonly stations: readonly number[] };

/** A visit that was closed, as the logbook keeps it. */
export interface ClosedVisit extends Visit {
  readonly closed: string;
  readonly asLeft: Frozen;
  readonly next: readonly NextVisit[];
  readonly followUp?: FollowUp;
  /** Absent: nothing was left undone. */
  readonly undone?: readonly Undone[];
  /** Faults of stations that were open, and those that were repaired since the visit began. */
  readonly faults: readonly {
    readonly station: number;
    readonly fault: string;
    readonly open: boolean;
  }[];
}
