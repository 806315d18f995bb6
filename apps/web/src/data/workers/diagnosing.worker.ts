/** Diagnosis in a worker: a shell over core. */
import {
  askNext,
  attempt,
  evidenceOf,
  explain,
  nightsFrom,
  pressedNights,
  pressesOf,
  type Explanation,
} from '@water-clock/core';
import { expose } from 'comlink';
import { seldom } from './seldom.ts';
import type { Diagnosis, DiagnosisRequest, Explained } from './diagnosing.ts';

const MOST_SHOWN = 5;

function shownIn({ world }: Explanation, night: number): Explained['shown'] {
  const worked = attempt(() =>
    pressedNights(
      nightsFrom(world.plan, night, 1, { ahead: world.ahead }),
      world,
      pressesOf(world),
    ),
  );
  return (worked.ok && worked.value[0]) || null;
}

const worker = {
  diagnose(
    { question, today, night }: DiagnosisRequest,
    progress: (share: number) => void,
  ): Diagnosis {
    const all = explain(question, seldom(progress));
    const ask = askNext(
      all,
      question.plan.stations.map(({ number }) => number),
      today,
    );
    const explanations = all.slice(0, MOST_SHOWN).map((explanation) => ({
      ...explanation,
      shown: shownIn(explanation, night),
      behind: evidenceOf(explanation, question.sightings),
    }));
    return { explanations, ask };
  },
};
export type DiagnosisWorker = typeof worker;

expose(worker);
