/**
 * A kind of timer as the office keeps it: an open document, `water-clock-timer-kind`, file ending `.kind.json`. Besides what the
 * device can do it holds what somebody has to know who stands before it.
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
  list,
  object,
  oneOf,
  optional,
  required,
  readLine,
  readNote,
  readUuid,
} from '../document/reader.ts';

export const KIND_FORMAT = 'water-clock-timer-kind';
export const KIND_VERSION = 1;

/** What is set on a timer, by the names of `dialect.order`. */
export type PanelSetting = (typeof DIALECT_ORDER)[number];
export const PANEL_SETTINGS: readonly PanelSetting[] = DIALECT_ORDER;

/** How to reach a setting on this panel. */
export interface HowToReach {
  readonly setting: PanelSetting;
  readonly line: string;
  readonly photo?: string;
}

/** A program that a timer has by itself when it is new, on all of its stations alike. */
export interface PresetProgram {
  readonly letter: string;
  readonly starts: readonly string[];
  readonly days: Days | null;
  /** Of every station; 0: none. */
  readonly runSeconds: number;
}

export interface TimerKind {
  readonly format: typeof KIND_FORMAT;
  readonly version: typeof KIND_VERSION;
  readonly timer: Timer;
  /** How it is known on the wall. */
  readonly note?: string;
  /** What it is set to when new, and after it has lost its memory. */
  readonly factory?: readonly { readonly setting: PanelSetting; readonly value: string }[];
  /** The same as a state, where it is known in full: what a reset brings back. */
  readonly preset?: { readonly settings: Settings; readonly programs: readonly PresetProgram[] };
  /** What its lights, signs and errors mean. */
  readonly signs?: readonly { readonly sign: string; readonly means: string }[];
  /** Programs or starts that its panel can hide. */
  readonly hides?: string;
  /** How watering by hand behaves. */
  readonly manual?: string;
  /** What its save-and-restore keeps, and what not. */
  readonly restore?: string;
  readonly reach?: readonly HowToReach[];
}

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
        value: required(readLine, 'what it is set to'),
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
            starts: required(readStarts, 'its starts'),
            days: required(readDaysShape, 'its days, or null'),
            runSeconds: required(readRunSeconds, 'seconds of every station'),
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
  manual: optional(readNote),
  restore: optional(readNote),
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

/** Reads a kind of timer from a JSON value. Strict. */
export function readTimerKind(value: unknown): Outcome<TimerKind> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, KIND_FORMAT, KIND_VERSION);
  if (other) return { ok: false, faults: [other] };
  const kind = shape(value, [], faults);
  return kind === undefined ? { ok: false, faults } : { ok: true, value: kind };
}

export const readTimerKindText = (json: string): Outcome<TimerKind> =>
  readJson(json, readTimerKind);
