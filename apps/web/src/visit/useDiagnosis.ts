import { useCallback, useEffect, useRef, useState } from 'react';
import type { Question } from '@water-clock/core';
import type { Diagnosis, DiagnosisNews, DiagnosisRequest } from '../workers/diagnosing.ts';

export interface Diagnosing {
  /** What was asked, as text: an answer to something else is no answer. */
  readonly of: string;
  readonly state: 'working' | 'stopped' | 'done';
  readonly share: number;
  readonly answer: Diagnosis | null;
}

const NOTHING: Diagnosing = { of: '', state: 'done', share: 0, answer: null };

/** The explanations of what was seen. Of several questions only the newest is answered; stop ends the work. */
export function useDiagnosis(question: Question, today: number, night: number) {
  const [diagnosing, setDiagnosing] = useState(NOTHING);
  const worker = useRef<Worker | null>(null);
  const of = JSON.stringify({ question, today, night } satisfies DiagnosisRequest);
  const isAsked = question.sightings.length > 0;
  useEffect(() => {
    if (!isAsked) return;
    const made = new Worker(new URL('../workers/diagnosing.worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current = made;
    made.addEventListener('message', ({ data }: MessageEvent<DiagnosisNews>) => {
      if (data.kind === 'progress')
        setDiagnosing({ of, state: 'working', share: data.share, answer: null });
      else setDiagnosing({ of, state: 'done', share: 1, answer: data.diagnosis });
    });
    made.postMessage(JSON.parse(of));
    return () => made.terminate();
  }, [of, isAsked]);
  const stop = useCallback(() => {
    worker.current?.terminate();
    setDiagnosing((last) => ({ ...last, state: 'stopped' }));
  }, []);
  const shown: Diagnosing | null = !isAsked
    ? null
    : diagnosing.of === of
      ? diagnosing
      : { of, state: 'working', share: 0, answer: null };
  return { shown, stop };
}
