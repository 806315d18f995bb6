/** State of the bench, actions on it, and the panel's display. */
import type { PanelStyle, PanelValue } from '../panel/value.ts';
import type { TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import type { Press } from '../simulatedTimer/events.ts';
import type { SimulatedTimerState } from '../simulatedTimer/timerState.ts';
import type { ClockSecond } from '../time/calendar.ts';
import type { GardenFault, GardenState } from './garden.ts';

export const BENCH_KEYS = [
  'page-back',
  'less',
  'more',
  'page-on',
  'program',
  'by-hand',
  'store',
  'rest',
] as const;
export type BenchKey = (typeof BENCH_KEYS)[number];

export type BenchAct =
  /** `fast`: held for a while, so that values change in larger steps. */
  | { readonly key: BenchKey; readonly fast?: boolean }
  | { readonly world: Press }
  | { readonly garden: GardenFault };

/** An action with its moment in true time. */
export type LoggedAct = BenchAct & { readonly at: ClockSecond };

/** State of the bench. */
export interface BenchStart {
  readonly plan: Plan;
  /** True time. */
  readonly now: ClockSecond;
  readonly ahead: number;
  readonly kind: Pick<TimerKind, 'hidden' | 'rainDelay' | 'preset'> | null;
  readonly style: Pick<PanelStyle, 'clock' | 'order'>;
}

export interface ByHand {
  /** Index into the manual run choices. */
  readonly what: number;
  readonly minutes: number;
  readonly page: 'what' | 'minutes';
}

/** What the panel shows and has half entered. */
export interface PanelState {
  /** Null: the panel shows the time. */
  readonly page: string | null;
  readonly letter: string;
  readonly isOpened: boolean;
  /** A value not yet entered, on a panel that requires it. */
  readonly draft: PanelValue | null;
  readonly byHand: ByHand | null;
  readonly lastKey: ClockSecond;
  /** The clock was not set since it lost the time. */
  readonly flashes: boolean;
}

export interface BenchState extends GardenState, PanelState {
  readonly start: BenchStart;
  readonly device: SimulatedTimerState;
}

/** What the panel shows. */
export interface Display {
  /** Blank without power. */
  readonly isLit: boolean;
  readonly left: string;
  readonly right: string;
  readonly big: string;
  /** Suffix such as `pm` or `%`, after the large text. */
  readonly unit: string;
  /** `7 of 31`; empty while it shows the time. */
  readonly place: string;
  readonly clock: string;
  readonly flashes: boolean;
  readonly isResting: boolean;
  /** The value is not entered yet. */
  readonly isDraft: boolean;
}

export interface Lamps {
  readonly stations: readonly number[];
  readonly pump: boolean;
  readonly main: boolean;
  readonly rain: boolean;
  readonly power: boolean;
  /** It powers a shorted station. */
  readonly short: boolean;
}
