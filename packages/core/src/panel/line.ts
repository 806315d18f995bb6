/** One line of a timer's panel: setting, name, value. */
import type { PanelSetting, Power } from '../plan/kind.ts';
import type { Dialect, Station } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import type { EpochDay, Weekday } from '../time/calendar.ts';
import { weekdaysWords } from '../words/words.ts';
import type { PanelValue, PanelStyle } from './value.ts';
import { say } from '../language/say.ts';

/** Which setting a line is about. */
export type SettingAddress =
  | { readonly of: 'year' | 'date' | 'weekday' | 'time' }
  | { readonly of: 'start'; readonly program: string; readonly slot: number }
  | { readonly of: 'run'; readonly program: string; readonly station: number }
  | { readonly of: 'days' | 'count' | 'phase' | 'total'; readonly program: string }
  | {
      readonly of: 'percent';
      readonly program?: string;
      readonly month?: number;
      readonly hundred?: true;
    }
  | { readonly of: 'longest-piece' | 'soak'; readonly program?: string; readonly station?: number }
  | {
      readonly of: 'delay' | 'windows' | 'off-days' | 'at-once' | 'sensor' | 'mode' | 'rain-delay';
      readonly program?: string;
    }
  | {
      readonly of: 'pump' | 'obeys-sensor' | 'enabled' | 'linked';
      readonly station: number;
    };

export interface PanelLine {
  /** The same setting has the same id in every plan of this timer. */
  readonly id: string;
  readonly setting: PanelSetting;
  readonly address: SettingAddress;
  /** The setting's name on this timer, such as `B start 2`. */
  readonly name: string;
  readonly value: PanelValue;
}

export interface PanelNow {
  readonly style: PanelStyle;
  /** What the timer runs on: on a battery it starts no pump. */
  readonly power?: Power | null;
  /** Local date and second of the day at the site. */
  readonly today: EpochDay;
  readonly secondOfDay: number;
}

export const idOf = (address: SettingAddress): string =>
  Object.values(address)
    .map((part) => (part === true ? '100' : String(part)))
    .join('.');
/** A program in a line's name: `B`, or `Program 2`, since `2 start 1` is unclear. */
export const programName = (letter: string, dialect: Dialect): string =>
  dialect.programLabels === 'numbers'
    ? say`Program ${programLabel(letter, dialect)}`
    : programLabel(letter, dialect);
/** Days as words after the digits some panels use: ` (Tue Thu)`. */
export const named = (weekdays: readonly Weekday[], { weekdayKeys }: Dialect) =>
  weekdayKeys === 'digits' && weekdays.length > 0 ? ` (${weekdaysWords(weekdays)})` : '';
/** `5 Back lawn far`, or only the number. */
export const stationName = ({ number, name }: Station) =>
  name ? `${number} ${name}` : String(number);
