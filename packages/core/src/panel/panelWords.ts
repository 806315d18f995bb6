import type { KeyLine } from './keyIn.ts';
import type { KeySlip as EntrySlip, ReadBack } from './readBack.ts';
import { type PanelStyle, panelHelp, panelText } from './value.ts';

const ENTRY_SLIPS: Readonly<Record<Exclude<EntrySlip, 'not-understood'>, string>> = {
  'half-a-day': 'Morning and afternoon are exchanged.',
  'left-on': 'It is still set, and must be off.',
  'left-off': 'It is off, and must be set.',
  'hours-for-minutes': 'Hours stand where minutes belong.',
  'ten-fold': 'It is ten times out: a digit too many or too few.',
  'other-line': 'That belongs to another line.',
  'days-too-many': 'There are days too many.',
  'days-too-few': 'Days are missing.',
  'count-or-between': 'This panel counts the days otherwise.',
  other: 'That is not it.',
};

/** What is wrong with what was read back, and what must stand there. */
export function readBackSentence(
  answer: Extract<ReadBack, { ok: false }>,
  line: KeyLine,
  hand: PanelStyle,
): string {
  if (answer.slip === 'not-understood')
    return `This is not what stands on a display here: type ${panelHelp(line.value.kind, hand)}.`;
  const of = answer.of === undefined ? '' : ` It is what ${answer.of} must say.`;
  return `${ENTRY_SLIPS[answer.slip]}${of} It must say ${panelText(line.value, hand)}.`;
}
