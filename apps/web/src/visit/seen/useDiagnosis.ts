import { useCallback, useEffect, useRef, useState } from 'react';
import type { Question } from '@water-clock/core';
import type { Diagnosis, DiagnosisRequest } from '../../data/workers/diagnosing.ts';
import type { DiagnosisWorker } from '../../data/workers/diagnosing.worker.ts';
import { started, withProgress, type Started } from '../../data/workers/started.ts';

interface Diagnosing {
  /** The question as text, to recognise answers to older ones. */
  readonly of: string;
  readonly state: 'working' | 'stopped' | 'done';
  readonly share: number;
  readonly answer: Diagnosis | null;
}

const NOTHING: Diagnosing = { of: '', state: 'done', share: 0, answer: null };

/** Explanations of what was seen. Only the newest of several questions is answered; stop ends the work. */
export function useDiagnosis(question: Question, today: number, night: number) {
  const [diagnosing, setDiagnosing] = useState(NOTHING);
  const worker = useRef<Started<DiagnosisWorker> | null>(null);
  const of = JSON.stringify({ question, today, night } satisfies DiagnosisRequest);
  const isAsked = question.sightings.length > 0;
  useEffect(() => {
    if (!isAsked) return;
    const made = started<DiagnosisWorker>(
      new Worker(new URL('../../data/workers/diagnosing.worker.ts', import.meta.url), {
        type: 'module',
      }),
    );
    worker.current = made;
    // The cast reverses the serialisation above.
    const request = JSON.parse(of) as DiagnosisRequest;
    void withProgress(
      (progress) => made.call.diagnose(request, progress),
      (share) => setDiagnosing({ of, state: 'working', share, answer: null }),
    ).then((answer) => setDiagnosing({ of, state: 'done', share: 1, answer }));
    return () => made.end();
  }, [of, isAsked]);
  const stop = useCallback(() => {
    worker.current?.end();
    setDiagnosing((last) => ({ ...last, state: 'stopped' }));
  }, []);
  const shown: Diagnosing | null = !isAsked
    ? null
    : diagnosing.of === of
      ? diagnosing
      : { of, state: 'working', share: 0, answer: null };
  return { shown, stop };
}
