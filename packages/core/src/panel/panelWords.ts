/** What the panel is read back as. */
import type { KeyLine } from './keyIn.ts';
import type { KeySlip as EntrySlip, ReadBack } from './readBack.ts';
import { type PanelStyle, panelHelp, panelText } from './value.ts';
import { say, wordsOf } from '../language/say.ts';

const ENTRY_SLIPS: Readonly<Record<Exclude<EntrySlip, 'not-understood'>, string>> = wordsOf({
  'half-a-day': 'Morning and afternoon are exchanged.',
  'left-on': 'It is still set; it must be off.',
  'left-off': 'It is off; it must be set.',
  'hours-for-minutes': 'These are hours; minutes belong here.',
  'ten-fold': 'It is off by a factor of ten: one digit too many or too few.',
  'other-line': 'That belongs in another line.',
  'days-too-many': 'Too many days.',
  'days-too-few': 'Too few days.',
  'count-or-between': 'This panel counts the days differently.',
  other: 'That does not match.',
});

/** What is wrong with what was read back, and what must stand there. */
export function readBackSentence(
  answer: Extract<ReadBack, { ok: false }>,
  line: KeyLine,
  hand: PanelStyle,
): string {
  if (answer.slip === 'not-understood')
    return say`This cannot be read: type ${panelHelp(line.value.kind, hand)}.`;
  const of = answer.of === undefined ? '' : say` It is the value of ${answer.of}.`;
  return say`${ENTRY_SLIPS[answer.slip]}${of} It must say ${panelText(line.value, hand)}.`;
}
