/** Messages about timers of one site that run at the same time. */
import { quantityWords, type UnitSystem } from '../water/units.ts';
import { dateWords, lengthWords, timeOfMoment, type Speech } from '../words/words.ts';
import type { HouseMeeting } from './houseMeetings.ts';
import { oftenWords } from './overlapWords.ts';
import { say, wordsOf } from '../language/say.ts';

/** `unknown`: a flow or the supply is not known; `too-much`: the flow exceeds the supply. */
export type MeetingTone = 'fits' | 'unknown' | 'too-much';
export type HouseTone = MeetingTone | 'apart';

/** @param supply litres a minute; null: not measured */
export function meetingTone({ worst: { flow } }: HouseMeeting, supply: number | null): MeetingTone {
  if (supply === null) return 'unknown';
  if (flow.litresPerMinute > supply) return 'too-much';
  return flow.isWhole ? 'fits' : 'unknown';
}

const TONES: readonly HouseTone[] = ['apart', 'fits', 'unknown', 'too-much'];

/** That of the worst. */
export const houseTone = (meetings: readonly HouseMeeting[], supply: number | null): HouseTone =>
  meetings
    .map((meeting): HouseTone => meetingTone(meeting, supply))
    .reduce<HouseTone>((a, b) => (TONES.indexOf(b) > TONES.indexOf(a) ? b : a), 'apart');

const HEADLINES: Readonly<Record<HouseTone, string>> = wordsOf({
  apart: 'No two timers at this site ever run at the same time.',
  fits: 'Timers at this site run at the same time. The supply is enough for both.',
  unknown:
    'Timers at this site run at the same time. It is not known whether the supply is enough.',
  'too-much': 'Timers at this site run at the same time and use more than the supply can give.',
});

export const houseHeadline = (tone: HouseTone): string => HEADLINES[tone];

/** Language and formats of the messages. */
export interface HouseSpeech extends Speech {
  readonly units: UnitSystem;
  /** Timer names by id. */
  readonly names: ReadonlyMap<string, string>;
}

/** `Garage’s A meets Shed’s C: Tue 1 December from 5:10, 12 min, about 52 times a year. Together 61 L/min of 40 L/min available.` */
export function meetingSentence(
  { next, worst, perYear }: HouseMeeting,
  supply: number | null,
  { names, units, on, clock, order }: HouseSpeech,
): string {
  const { first, second, sharedSeconds } = next;
  const named = ({ timer, letter }: typeof first) =>
    say`${names.get(timer) ?? say`another timer`}’s ${letter}`;
  const { litresPerMinute, isWhole } = worst.flow;
  const flow = quantityWords(units, 'flow', litresPerMinute);
  const atLeast = isWhole ? flow : say`at least ${flow}`;
  const taken =
    !isWhole && litresPerMinute === 0
      ? say`Combined flow not known`
      : supply === null
        ? say`Together ${atLeast}; supply not measured`
        : say`Together ${atLeast} of ${quantityWords(units, 'flow', supply)} available`;
  const often = perYear > 0 ? `, ${oftenWords(perYear)}` : '';
  return say`${named(first)} meets ${named(second)}: ${dateWords(second.day, on, order)} from ${timeOfMoment(second.begins, clock)}, ${lengthWords(sharedSeconds)}${often}. ${taken}.`;
}
