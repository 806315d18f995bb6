/** Messages about timers of one site that run at the same time. */
import { quantityWords, type UnitSystem } from '../water/units.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import { dateWords, lengthWords, listed, timeOfMoment, type Speech } from '../words/words.ts';
import type { HouseCrowd } from './houseCrowds.ts';
import type { Flow, HouseCycle, HouseMeeting } from './houseMeetings.ts';
import { oftenWords } from './overlapWords.ts';
import { plural, say, wordsOf } from '../language/say.ts';

/** `unknown`: a flow or the supply is not known; `too-much`: the flow exceeds the supply. */
export type MeetingTone = 'fits' | 'unknown' | 'too-much';
export type HouseTone = MeetingTone | 'apart';

/** @param supply litres a minute; null: not measured */
export function flowTone(flow: Flow, supply: number | null): MeetingTone {
  if (supply === null) return 'unknown';
  if (flow.litresPerMinute > supply) return 'too-much';
  return flow.isWhole ? 'fits' : 'unknown';
}

const TONES: readonly HouseTone[] = ['apart', 'fits', 'unknown', 'too-much'];

/** That of the worst. */
export const houseTone = (
  meetings: readonly HouseMeeting[],
  supply: number | null,
  crowds: readonly HouseCrowd[] = [],
): HouseTone =>
  [...meetings.map(({ worst: { flow } }) => flow), ...crowds.map(({ flow }) => flow)]
    .map((flow): HouseTone => flowTone(flow, supply))
    .reduce<HouseTone>((a, b) => (TONES.indexOf(b) > TONES.indexOf(a) ? b : a), 'apart');

const HEADLINES: Readonly<Record<HouseTone, string>> = wordsOf({
  apart: 'No two timers at this site ever run at the same time.',
  fits: 'Timers at this site run at the same time. The supply is enough for both.',
  unknown:
    'Timers at this site run at the same time. It is not known whether the supply is enough.',
  'too-much': 'Timers at this site run at the same time and use more than the supply can give.',
});

/**
 * @param timers at the site: groups of three or more were looked for in the coming year only
 */
export const houseHeadline = (tone: HouseTone, timers = 2): string =>
  tone === 'fits' && timers > 2
    ? say`Timers at this site run at the same time. In the coming year the supply is enough for all of them.`
    : HEADLINES[tone];

/** Language and formats of the messages. */
export interface HouseSpeech extends Speech {
  readonly units: UnitSystem;
  /** Timer names by id. */
  readonly names: ReadonlyMap<string, string>;
}

const cycleName = ({ timer, letter }: HouseCycle, names: ReadonlyMap<string, string>) =>
  say`${names.get(timer) ?? say`another timer`}’s ${letter}`;

function flowWords(
  { litresPerMinute, isWhole }: Flow,
  supply: number | null,
  { units }: Pick<HouseSpeech, 'units'>,
): string {
  const flow = quantityWords(units, 'flow', litresPerMinute);
  const atLeast = isWhole ? flow : say`at least ${flow}`;
  if (!isWhole && litresPerMinute === 0) return say`Combined flow not known`;
  return supply === null
    ? say`Together ${atLeast}; supply not measured`
    : say`Together ${atLeast} of ${quantityWords(units, 'flow', supply)} available`;
}

/** `Garage’s A, Shed’s C and Tap’s A run at once: Tue 1 December from 5:10, 12 min, 52 times in the coming year. Together 61 L/min of 40 L/min available.` */
export function crowdSentence(
  { cycles, from, to, flow, times }: HouseCrowd,
  supply: number | null,
  speech: HouseSpeech,
): string {
  const { names, on, clock, order } = speech;
  const all = listed(cycles.map((cycle) => cycleName(cycle, names)));
  const day = dateWords(Math.floor(from / SECONDS_PER_DAY), on, order);
  const often = plural(times, 'once in the coming year', '# times in the coming year');
  return say`${all} run at once: ${day} from ${timeOfMoment(from, clock)}, ${lengthWords(to - from)}, ${often}. ${flowWords(flow, supply, speech)}.`;
}

/** `Garage’s A meets Shed’s C: Tue 1 December from 5:10, 12 min, about 52 times a year. Together 61 L/min of 40 L/min available.` */
export function meetingSentence(
  { next, worst, perYear }: HouseMeeting,
  supply: number | null,
  { names, units, on, clock, order }: HouseSpeech,
): string {
  const { first, second, sharedSeconds } = next;
  const speech = { names, units, on, clock, order };
  const often = perYear > 0 ? `, ${oftenWords(perYear)}` : '';
  return say`${cycleName(first, names)} meets ${cycleName(second, names)}: ${dateWords(second.day, on, order)} from ${timeOfMoment(second.begins, clock)}, ${lengthWords(sharedSeconds)}${often}. ${flowWords(worst.flow, supply, speech)}.`;
}
