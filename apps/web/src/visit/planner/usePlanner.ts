import { useCallback, useEffect, useRef, useState } from 'react';
import { faultSentence, type Cost, type Plan, type SeasonMonth } from '@water-clock/core';
import { proxy } from 'comlink';
import type { PlanningWorker } from '../../data/workers/planning.worker.ts';
import { started, type Started } from '../../data/workers/started.ts';
import type { PlanNews, PlanRequest, PlanResult } from '../../data/workers/planning.ts';

export interface Planning {
  readonly state: 'idle' | 'working' | 'done' | 'stopped' | 'refused';
  readonly request: PlanRequest | null;
  readonly tries: number;
  readonly best: { readonly plan: Plan; readonly cost: Cost } | null;
  readonly results: readonly PlanResult[];
  readonly season: readonly SeasonMonth[] | null;
  readonly why: string | null;
}

const IDLE: Planning = {
  state: 'idle',
  request: null,
  tries: 0,
  best: null,
  results: [],
  season: null,
  why: null,
};

function after(planning: Planning, news: PlanNews): Planning {
  switch (news.kind) {
    case 'best':
      return { ...planning, best: news };
    case 'tried':
      return { ...planning, tries: news.tries };
    case 'result':
      return { ...planning, results: [...planning.results, news.result] };
    case 'season':
      return { ...planning, season: news.months };
    case 'refused':
      return { ...planning, state: 'refused', why: news.faults.map(faultSentence).join(' ') };
    case 'end':
      return { ...planning, state: 'done' };
  }
}

/** The planner's worker: one question at a time. A new question, or Stop, ends the one under way; what it found stays. */
export function usePlanner() {
  const [planning, setPlanning] = useState(IDLE);
  const worker = useRef<Started<PlanningWorker> | null>(null);
  const end = useCallback(() => {
    worker.current?.end();
    worker.current = null;
  }, []);
  const start = useCallback(
    (request: PlanRequest) => {
      end();
      const made = started<PlanningWorker>(
        new Worker(new URL('../../data/workers/planning.worker.ts', import.meta.url), {
          type: 'module',
        }),
      );
      worker.current = made;
      setPlanning({ ...IDLE, state: 'working', request });
      void made.call.plan(
        request,
        proxy((news: PlanNews) => {
          if (worker.current === made) setPlanning((last) => after(last, news));
        }),
      );
    },
    [end],
  );
  const stop = useCallback(() => {
    end();
    setPlanning((last) => (last.state === 'working' ? { ...last, state: 'stopped' } : last));
  }, [end]);
  useEffect(() => end, [end]);
  return { planning, start, stop };
}
