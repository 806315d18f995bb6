/** Reasoning backwards, off the page's own thread. A shell over core. */
import {
  askNext,
  attempt,
  evidenceOf,
  explain,
  nightsFrom,
  type Explanation,
} from '@water-clock/core';
import type { DiagnosisNews, DiagnosisRequest, Explained } from './diagnosing.ts';

const MOST_SHOWN = 5;

function shownIn({ world }: Explanation, night: number): Explained['shown'] {
  const worked = attempt(() => nightsFrom(world.plan, night, 1, { ahead: world.ahead }));
  return (worked.ok && worked.value[0]) || null;
}

const tell = (news: DiagnosisNews) => self.postMessage(news);

self.addEventListener('message', ({ data }: MessageEvent<DiagnosisRequest>) => {
  const { question, today, night } = data;
  const all = explain(question, (share) => tell({ kind: 'progress', share }));
  const ask = askNext(
    all,
    question.plan.stations.map(({ number }) => number),
    today,
  );
  const explanations = all.slice(0, MOST_SHOWN).map((one) => ({
    ...one,
    shown: shownIn(one, night),
    behind: evidenceOf(one, question.sightings),
  }));
  tell({ kind: 'answer', diagnosis: { explanations, ask } });
});
