/**
 * A timer kind in the library: an open document, `water-clock-timer-kind`, file extension `.kind.json`. Besides abilities it holds what
 * someone at the timer must know.
 */
import type { Fault, Outcome } from '../document/fault.ts';
import { DIALECT_ORDER, type Settings, type Timer } from './plan.ts';
import { type Days } from '../time/dayRules.ts';
import {
  readDaysShape,
  readLetter,
  readRunSeconds,
  readSettingsFields,
  readStarts,
  readTimerShape,
} from './readPlan.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  boolean,
  integer,
  list,
  object,
  oneOf,
  optional,
  required,
  readLine,
  readNote,
  readUuid,
  type Reader,
} from '../document/reader.ts';
import { say } from '../language/say.ts';

export const KIND_FORMAT = 'water-clock-timer-kind';
export const KIND_VERSION = 1;

/** What a timer runs on: mains inside it, an adapter at an outlet, a battery alone. */
export const POWERS = ['mains', 'adapter', 'battery'] as const;
export type Power = (typeof POWERS)[number];

/** A setting of a timer, by its name in `dialect.order`. */
export type PanelSetting = (typeof DIALECT_ORDER)[number];
export const PANEL_SETTINGS: readonly PanelSetting[] = DIALECT_ORDER;

/** How to reach a setting on this panel. */
interface HowToReach {
  readonly setting: PanelSetting;
  readonly line: string;
  readonly photo?: string;
}

/** A factory program, with equal run times on all stations. */
interface PresetProgram {
  readonly letter: string;
  readonly starts: readonly string[];
  readonly days: Days | null;
  /** Of every station; 0: none. */
  readonly runSeconds: number;
}

export interface RainDelayOfKind {
  readonly unit: 'hours' | 'days' | 'date';
  /** Lengths that can be set, in that unit, ascending; a date has none. */
  readonly allowed?: readonly number[];
  /** Counted from the minute it is set, or until a midnight. */
  readonly ends: 'minute' | 'midnight';
}

/** What a panel hides until asked. */
export interface HiddenOnPanel {
  /** Programs after this number are hidden until unlocked. */
  readonly programsAbove?: number;
  /** A start is shown only once the previous one is set. */
  readonly laterStarts?: boolean;
}

export interface TimerKind {
  readonly format: typeof KIND_FORMAT;
  readonly version: typeof KIND_VERSION;
  readonly timer: Timer;
  /** How to recognise it on the wall. */
  readonly note?: string;
  /** Factory settings, also after it has lost its memory. */
  readonly factory?: readonly { readonly setting: PanelSetting; readonly value: string }[];
  /** The same as a complete state, if known: what a reset restores. */
  readonly preset?: { readonly settings: Settings; readonly programs: readonly PresetProgram[] };
  /** Meaning of its lights, icons and errors. */
  readonly signs?: readonly { readonly sign: string; readonly means: string }[];
  /** Programs or starts that its panel can hide. */
  readonly hides?: string;
  /** The same, for the bench timer. */
  readonly hidden?: HiddenOnPanel;
  /** How manual runs work. */
  readonly manual?: string;
  /** What its save and restore keeps, and what not. */
  readonly restore?: string;
  readonly reach?: readonly HowToReach[];
  /** Absent: it differs between timers of this kind, or is not known. */
  readonly power?: Power;
  /** It screws onto a tap, with a screen at its inlet; absent: no. */
  readonly inletScreen?: boolean;
  /** Its stations are on two wires, each with a decoder; absent: no. */
  readonly twoWire?: boolean;
  /** How to set a rain delay on its panel; absent: it has none, or it is not known. */
  readonly rainDelay?: RainDelayOfKind;
  /** Phone script for restoring the saved settings, a step a line. `{A}` stands for the panel's name of program A, and so on. */
  readonly restoreSteps?: readonly string[];
}

const rainDelayShape = object<RainDelayOfKind>({
  unit: required(oneOf(['hours', 'days', 'date']), 'hours, days or date'),
  allowed: optional(list(integer(1, 999), { least: 1, most: 400, unique: true })),
  ends: required(oneOf(['minute', 'midnight']), 'minute or midnight'),
});
/** Lengths in hours or days; a date has none. */
export const readRainDelay: Reader<RainDelayOfKind> = (value, path, faults) => {
  const delay = rainDelayShape(value, path, faults);
  if (delay && (delay.unit === 'date') === (delay.allowed !== undefined))
    faults.push({
      code: 'malformed',
      path: [...path, 'allowed'],
      expected: say`the lengths that can be set; none with the unit "date"`,
      actual: JSON.stringify(delay.allowed ?? null),
    });
  return delay && delay.allowed
    ? { ...delay, allowed: [...delay.allowed].sort((a, b) => a - b) }
    : delay;
};

export const readHidden: Reader<HiddenOnPanel> = object<HiddenOnPanel>({
  programsAbove: optional(integer(1, 25)),
  laterStarts: optional(boolean),
});

const setting = required(oneOf(PANEL_SETTINGS), PANEL_SETTINGS.join(', '));
const shape = object<TimerKind>({
  format: required(oneOf([KIND_FORMAT]), `"${KIND_FORMAT}"`),
  version: required(oneOf([KIND_VERSION]), `${KIND_VERSION}`),
  timer: required(readTimerShape, 'an object'),
  note: optional(readNote),
  factory: optional(
    list(
      object<NonNullable<TimerKind['factory']>[number]>({
        setting,
        value: required(readLine, 'its settings'),
      }),
      { most: 50 },
    ),
  ),
  preset: optional(
    object<NonNullable<TimerKind['preset']>>({
      settings: required(object<Settings>(readSettingsFields), 'its settings'),
      programs: required(
        list(
          object<PresetProgram>({
            letter: required(readLetter, 'A to Z'),
            starts: required(readStarts, 'its start times'),
            days: required(readDaysShape, 'its days, or null'),
            runSeconds: required(readRunSeconds, 'seconds for each station'),
          }),
          { most: 26 },
        ),
        'its programs',
      ),
    }),
  ),
  signs: optional(
    list(
      object<NonNullable<TimerKind['signs']>[number]>({
        sign: required(readLine, 'what is seen'),
        means: required(readLine, 'what it means'),
      }),
      { most: 100 },
    ),
  ),
  hides: optional(readNote),
  hidden: optional(readHidden),
  manual: optional(readNote),
  restore: optional(readNote),
  power: optional(oneOf(POWERS)),
  inletScreen: optional(boolean),
  twoWire: optional(boolean),
  rainDelay: optional(readRainDelay),
  restoreSteps: optional(list(readLine, { least: 1, most: 12 })),
  reach: optional(
    list(
      object<HowToReach>({
        setting,
        line: required(readLine, 'how to reach it'),
        photo: optional(readUuid),
      }),
      { most: 50 },
    ),
  ),
});

/** Reads a timer kind from a JSON value. Strict. */
export function readTimerKind(value: unknown): Outcome<TimerKind> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, KIND_FORMAT, KIND_VERSION);
  if (other) return { ok: false, faults: [other] };
  const kind = shape(value, [], faults);
  return kind === undefined ? { ok: false, faults } : { ok: true, value: kind };
}

export const readTimerKindText = (json: string): Outcome<TimerKind> =>
  readJson(json, readTimerKind);
