import { useMemo } from 'react';
import {
  comingRules,
  programsByLetter,
  SECONDS_PER_DAY,
  supplyNoted,
  undoneIn,
  unknownNeeds,
  unknownPhases,
  type Brief,
  type ClockChange,
  type ClockSecond,
  type ComingRules,
  type EpochDay,
} from '@water-clock/core';
import { clockChangesAfter } from '../../app/platform/clockChange.ts';
import type { Site } from '../../data/api/sites.ts';
import type { Snapshot } from '../../data/editor/editing.ts';
import {
  useTimerAnswer,
  type Answered,
  type PlanSource,
} from '../../data/workers/useTimerAnswer.ts';
import { useBrief } from '../steps/useBrief.ts';
import { useVisitBasis, type VisitBasis } from '../steps/useVisitBasis.ts';
import { NIGHTS } from './distance.ts';
import type { StripView } from './useStripView.ts';

/** Current local time at the site. */
export interface Dates {
  readonly now: ClockSecond;
  readonly today: EpochDay;
  /** Day on whose afternoon the current or next night begins. */
  readonly tonight: EpochDay;
}

/** Facts derived from a timer, its site and the date. */
export interface TimerFacts extends Answered {
  readonly visit: VisitBasis;
  readonly brief: Brief;
  readonly letters: readonly string[];
  readonly changes: readonly ClockChange[];
  /** Programs whose interval phase is not known. */
  readonly anyPhase: readonly string[];
  /** Announced rules. */
  readonly coming: readonly ComingRules[];
  /** In the open visit, no one has looked at the clock. */
  readonly clockUnknown: boolean;
}

/** The same list while it holds the same letters, so that typing does not create a new one. */
function useLetters(letters: readonly string[]): readonly string[] {
  const text = letters.join('');
  return useMemo(() => text.split('').filter(Boolean), [text]);
}

/** @param answered called when an answer has come */
export function useTimerFacts(
  site: Site,
  { plan, settled, survey }: Snapshot,
  { today, tonight }: Dates,
  { day, distance, whatIf }: StripView,
  source: PlanSource,
  answered: () => void,
): TimerFacts {
  const changes = useMemo(
    () => clockChangesAfter(new Date((today - 1) * SECONDS_PER_DAY * 1000), site.timeZone),
    [today, site.timeZone],
  );
  const visit = useVisitBasis(site, settled, survey, today);
  const brief = useBrief({ ...visit, site, plan: settled, survey, today });
  const { rules, minutes } = visit;
  const coming = useMemo(
    () => comingRules(survey.rules, rules, site, today),
    [survey.rules, rules, site, today],
  );
  const anyPhase = useLetters(unknownPhases(plan, survey));
  const letters = useLetters(programsByLetter(plan).map(({ letter }) => letter));
  const clockUnknown = useMemo(
    () => undoneIn(settled, survey).some(({ what }) => what === 'clock-not-looked'),
    [settled, survey],
  );
  const unknown = useMemo(() => unknownNeeds(minutes), [minutes]);
  const { supply: waterSource, supplyFlow } = site;
  const supply = useMemo(
    () => supplyNoted(settled, survey, { supply: waterSource, supplyFlow }),
    [settled, survey, waterSource, supplyFlow],
  );
  const farNight = day < tonight || day >= tonight + NIGHTS ? day : null;
  const yearFrom = distance === 'year' ? today : null;
  const question = useMemo(
    () => ({
      on: today,
      firstNight: tonight,
      nights: NIGHTS,
      farNight,
      yearFrom,
      whatIf,
      changes,
      brief,
      unknown,
      coming,
      anyPhase,
      supply,
    }),
    [today, tonight, farNight, yearFrom, whatIf, changes, brief, unknown, coming, anyPhase, supply],
  );
  const answer = useTimerAnswer(source, question, answered);
  return { ...answer, visit, brief, letters, changes, anyPhase, coming, clockUnknown };
}
