import { useEffect, useState } from 'react';
import type { HouseAnswer, HouseQuestion } from '../../data/workers/housing.ts';
import type { HousingWorker } from '../../data/workers/housing.worker.ts';
import { started } from '../../data/workers/started.ts';

/** How a site's timers work together; null while loading. */
export function useHouseAnswer(question: HouseQuestion): HouseAnswer | null {
  const of = JSON.stringify(question);
  const [answered, setAnswered] = useState<{
    readonly of: string;
    readonly answer: HouseAnswer;
  } | null>(null);
  useEffect(() => {
    const worker = started<HousingWorker>(
      new Worker(new URL('../../data/workers/housing.worker.ts', import.meta.url), {
        type: 'module',
      }),
    );
    // The cast reverses the serialisation above.
    void worker.call
      .answer(JSON.parse(of) as HouseQuestion)
      .then((answer) => setAnswered({ of, answer }));
    return () => worker.end();
  }, [of]);
  return answered?.of === of ? answered.answer : null;
}
