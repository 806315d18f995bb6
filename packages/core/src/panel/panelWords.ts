/** What to read back from the panel. */
import type { KeyLine } from './keyIn.ts';
import type { KeySlip as EntrySlip, ReadBack } from './readBack.ts';
import { type PanelStyle, panelHelp, panelText } from './value.ts';
import { say, wordsOf } from '../language/say.ts';

const ENTRY_SLIPS: Readonly<Record<Exclude<EntrySlip, 'not-understood'>, string>> = wordsOf({
  'half-a-day': 'am and pm are swapped.',
  'left-on': 'It is still set. It should be off.',
  'left-off': 'It is off. It should be set.',
  'hours-for-minutes': 'These are hours. Enter minutes here.',
  'ten-fold': 'It is ten times too high or too low. Check the number of digits.',
  'other-line': 'That belongs on another line.',
  'days-too-many': 'Too many days.',
  'days-too-few': 'Too few days.',
  'count-or-between': 'This timer counts days differently.',
  other: 'That does not match.',
});

/** The fault in what was read back, and the correct value. */
export function readBackSentence(
  answer: Extract<ReadBack, { ok: false }>,
  line: KeyLine,
  hand: PanelStyle,
): string {
  if (answer.slip === 'not-understood')
    return say`We cannot read this. Type ${panelHelp(line.value.kind, hand)}.`;
  const of = answer.of === undefined ? '' : say` This is the value for ${answer.of}.`;
  return say`${ENTRY_SLIPS[answer.slip]}${of} It should say ${panelText(line.value, hand)}.`;
}
