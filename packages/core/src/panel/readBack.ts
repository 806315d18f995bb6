/** Compares what an apprentice reads from the display with what it must show. */
import type { EpochDay } from '../time/calendar.ts';
import type { KeyLine } from './keyIn.ts';
import { parsePanel } from './parseValue.ts';
import { sameValue, type PanelStyle, type PanelValue } from './value.ts';

/** The likely mistake in an entry. */
export type KeySlip =
  | 'not-understood'
  /** Morning and afternoon swapped. */
  | 'half-a-day'
  | 'left-on'
  | 'left-off'
  /** Hours in place of minutes, or the reverse. */
  | 'hours-for-minutes'
  | 'ten-fold'
  /** A value of another line on the card. */
  | 'other-line'
  | 'days-too-many'
  | 'days-too-few'
  | 'count-or-between'
  | 'other';

export type ReadBack =
  | { readonly ok: true }
  | {
      readonly ok: false;
      readonly slip: KeySlip;
      readonly shown: PanelValue | null;
      readonly of?: string;
    };

/** Tolerance for reading and setting a clock, in seconds. */
const CLOCK_SECONDS = 120;

const isClose = (a: number, b: number) => {
  const apart = Math.abs(a - b) % 86_400;
  return Math.min(apart, 86_400 - apart) <= CLOCK_SECONDS;
};

function slipOf(
  line: KeyLine,
  shown: PanelValue,
  card: readonly KeyLine[],
): { slip: KeySlip; of?: string } {
  const { value } = line;
  if (value.kind === 'time' && shown.kind === 'time') {
    if (value.second === null) return { slip: 'left-on' };
    if (shown.second === null) return { slip: 'left-off' };
    const close = line.address.of === 'time' ? CLOCK_SECONDS : 0;
    if (Math.abs(Math.abs(value.second - shown.second) - 43_200) <= close)
      return { slip: 'half-a-day' };
  }
  if (value.kind === 'switch') return { slip: value.on ? 'left-off' : 'left-on' };
  if (value.kind === 'run' && shown.kind === 'run') {
    if (value.seconds === 0) return { slip: 'left-on' };
    if (shown.seconds === 0) return { slip: 'left-off' };
    if (shown.seconds === value.seconds * 60 || shown.seconds * 60 === value.seconds)
      return { slip: 'hours-for-minutes' };
    if (shown.seconds === value.seconds * 10 || shown.seconds * 10 === value.seconds)
      return { slip: 'ten-fold' };
  }
  if (value.kind === 'days' && shown.kind === 'days' && value.rule === shown.rule) {
    if (value.weekdays.every((one) => shown.weekdays.includes(one)))
      return { slip: 'days-too-many' };
    if (shown.weekdays.every((one) => value.weekdays.includes(one)))
      return { slip: 'days-too-few' };
  }
  if (value.kind === 'count' && shown.kind === 'count' && Math.abs(value.every - shown.every) === 1)
    return { slip: 'count-or-between' };
  const other = card.find(
    (one) =>
      one.id !== line.id && one.address.of === line.address.of && sameValue(one.value, shown),
  );
  return other ? { slip: 'other-line', of: other.name } : { slip: 'other' };
}

/** Compares a display reading with a line of the card. */
export function readBack(
  line: KeyLine,
  typed: string,
  card: readonly KeyLine[],
  hand: PanelStyle,
  today: EpochDay,
): ReadBack {
  const shown = parsePanel(line.value.kind, typed, hand, today);
  if (!shown) return { ok: false, slip: 'not-understood', shown: null };
  if (sameValue(shown, line.value)) return { ok: true };
  if (
    line.address.of === 'time' &&
    shown.kind === 'time' &&
    line.value.kind === 'time' &&
    shown.second !== null &&
    isClose(shown.second, line.value.second ?? 0)
  )
    return { ok: true };
  return { ok: false, shown, ...slipOf(line, shown, card) };
}
