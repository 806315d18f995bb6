/** The verdict in words: a headline to read at arm's length, and the detail below it. */
import { assertDefined } from '../document/assertDefined.ts';
import {
  overlapSentence,
  consequenceSentence,
  oftenWords,
  meetsSentence,
} from '../engine/overlapWords.ts';
import type { OnOverlap } from '../plan/plan.ts';
import { missingSentence } from '../plan/planWords.ts';
import { type Speech, capitalized, listed } from '../words/words.ts';
import type { Proven, Verdict } from '../engine/verdict.ts';
import type { DrivenPercent } from '../engine/examination.ts';
import { plural, say, wordsOf } from '../language/say.ts';

const MOVERS: Record<DrivenPercent['by'], string> = wordsOf({
  sensor: 'a sensor changes the percent',
  service: 'an online service changes the percent',
});

export interface VerdictWords {
  /** How to show it: the verdict, or an overlap if percents that others change can cause one. */
  readonly tone: Verdict;
  /** One line, to read at arm's length. */
  readonly headline: string;
  /** What follows and what to do; empty if nothing does. */
  readonly detail: string;
}

export const upTo = (percent: number | null) =>
  percent === null ? say`not even at the lowest percent` : say`up to ${percent} %`;

interface KnownOfTimer {
  readonly isOff?: boolean;
  readonly hasPercent?: boolean;
  readonly sideBySide?: boolean;
  readonly anyPhase?: readonly string[];
}

const acceptedSo = (): VerdictWords => ({
  tone: 'clear',
  headline: say`Programs run side by side, as accepted`,
  detail: say`Programs may run at once, but never with more stations open or more flow than the timer allows.`,
});

/**
 * The verdict as people read it.
 *
 * @param known.isOff the timer is off; a plan is checked as if it were on, so the headline says so
 * @param known.hasPercent the timer has a seasonal percent; without one there is no headroom to speak of
 * @param known.sideBySide someone has accepted that its programs run side by side (`runsSideBySide`)
 * @param known.anyPhase programs whose interval phase is not known: the verdict covers every phase
 */
export function verdictWords(
  proven: Proven,
  onOverlap: OnOverlap,
  speech: Speech,
  { isOff = false, hasPercent = true, sideBySide = false, anyPhase = [] }: KnownOfTimer = {},
): VerdictWords {
  const asIfOn = sideBySide ? acceptedSo() : wordsAsIfOn(proven, onOverlap, speech, hasPercent);
  const phases =
    anyPhase.length > 0
      ? say` The interval of ${listed(anyPhase)} could not be read. This holds for any day it may fall on.`
      : '';
  const words = { ...asIfOn, detail: `${asIfOn.detail}${phases}`.trim() };
  return isOff
    ? { ...words, headline: say`The timer is switched off. When it is on: ${words.headline}` }
    : words;
}

function wordsAsIfOn(
  proven: Proven,
  onOverlap: OnOverlap,
  speech: Speech,
  hasPercent: boolean,
): VerdictWords {
  const others = proven.overlapCount - 1;
  const unfinished = proven.programs.filter(
    ({ missing }) =>
      missing.length > 0 && !(missing.includes('starts') && missing.includes('runs')),
  );
  const lacks = unfinished.map(({ letter, missing }) => missingSentence(letter, missing));
  const { driven, beyond } = proven;
  const tone = driven?.overlap && proven.verdict === 'clear' ? 'overlap' : proven.verdict;
  if (driven?.overlap && proven.verdict === 'clear')
    return {
      tone,
      headline: say`No overlaps as set, but ${MOVERS[driven.by]} between ${driven.lowest} and ${driven.highest} %`,
      detail: say`This could happen then. ${overlapSentence(driven.overlap, speech)} ${consequenceSentence(driven.overlap, onOverlap, speech)}`,
    };
  switch (proven.verdict) {
    case 'overlap': {
      const overlap = assertDefined(proven.overlaps[0], 'proven.overlaps[0]');
      const often =
        proven.perYear[0] === undefined ? '' : say` This happens ${oftenWords(proven.perYear[0])}.`;
      const more =
        others === 0
          ? ''
          : ` ${plural(others, '# more pair of start times overlaps.', '# more pairs of start times overlap.')}`;
      const room =
        proven.headroomPercent === null || !hasPercent
          ? ''
          : say` No overlaps only ${upTo(proven.headroomPercent)}.`;
      return {
        tone,
        headline: overlapSentence(overlap, speech),
        detail: `${consequenceSentence(overlap, onOverlap, speech)}${often}${more}${room}`,
      };
    }
    case 'incomplete':
      return {
        tone,
        headline: assertDefined(lacks[0], 'lacks[0]'),
        detail: [...lacks.slice(1), say`No overlaps in the settings so far.`].join(' '),
      };
    case 'empty':
      return {
        tone,
        headline: say`No watering yet`,
        detail: say`Give a program a start time, run times and watering days.`,
      };
    case 'clear': {
      const meets = beyond ? ` ${meetsSentence(beyond.percent, beyond.meets, speech)}` : '';
      const range = driven
        ? say` ${capitalized(MOVERS[driven.by])}. There are no overlaps at any percent between ${driven.lowest} and ${driven.highest} %.`
        : '';
      return {
        tone,
        headline: !hasPercent
          ? say`No overlaps`
          : proven.headroomPercent === null
            ? say`No overlaps as set`
            : say`No overlaps, ${upTo(proven.headroomPercent)}`,
        detail:
          (proven.headroomPercent === null && hasPercent
            ? say`No cycles overlap at the percents set, but some do at the lowest percent.`
            : say`No two cycles overlap on any date.`) +
          range +
          (hasPercent ? meets : ''),
      };
    }
  }
}
