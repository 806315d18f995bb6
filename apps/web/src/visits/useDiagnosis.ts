import { useEffect, useRef, useState } from 'react';
import type { Question } from '@water-clock/core';
import type { Diagnosis, DiagnosisRequest } from '../workers/diagnosing.ts';

/** The explanations of what was seen; null until there are some. Of several questions only the newest is answered. */
export function useDiagnosis(
  question: Question,
  today: number,
  night: number,
): { readonly answer: Diagnosis | null; readonly working: boolean } {
  const [answer, setAnswer] = useState<Diagnosis | null>(null);
  const [asked, setAsked] = useState(0);
  const count = useRef(0);
  const text = JSON.stringify(question);
  useEffect(() => {
    const parsed = JSON.parse(text) as Question;
    if (parsed.sightings.length === 0) return;
    const worker = new Worker(new URL('../workers/diagnosing.worker.ts', import.meta.url), {
      type: 'module',
    });
    const id = ++count.current;
    worker.addEventListener('message', ({ data }: MessageEvent<Diagnosis>) => {
      setAnswer(data);
      worker.terminate();
    });
    const request: DiagnosisRequest = { id, question: parsed, today, night };
    worker.postMessage(request);
    // So that "working" is seen at once.
    queueMicrotask(() => setAsked(id));
    return () => worker.terminate();
  }, [text, today, night]);
  const shown = question.sightings.length > 0 ? answer : null;
  return { answer: shown, working: question.sightings.length > 0 && (answer?.id ?? 0) < asked };
}
