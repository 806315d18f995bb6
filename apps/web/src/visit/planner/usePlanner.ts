import { useCallback, useEffect, useRef, useState } from 'react';
import { faultSentence, type Plan, type SeasonMonth } from '@water-clock/core';
import { proxy } from 'comlink';
import type { PlanningWorker } from '../../data/workers/planning.worker.ts';
import { started, type Started } from '../../data/workers/started.ts';
import {
  programsText,
  type PlanNews,
  type PlanRequest,
  type PlanResult,
  type Present,
} from '../../data/workers/planning.ts';

export interface Planning {
  readonly state: 'idle' | 'working' | 'done' | 'refused';
  /** Plans for the latest question; those of the previous question stay until the first new one arrives. */
  readonly results: readonly PlanResult[];
  readonly present: Present | null;
  readonly season: readonly SeasonMonth[] | null;
  readonly why: string | null;
}

const IDLE: Planning = { state: 'idle', results: [], present: null, season: null, why: null };

/** The plans with one added, or replacing an earlier one of its kind. Plans equal to the first are left out. */
function withResult(results: readonly PlanResult[], result: PlanResult): readonly PlanResult[] {
  const isThere = results.some(({ kind }) => kind === result.kind);
  const all = isThere
    ? results.map((one) => (one.kind === result.kind ? result : one))
    : [...results, result];
  return all.filter((one, i) => i === 0 || !all[0] || programsText(one) !== programsText(all[0]));
}

function after(planning: Planning, news: PlanNews, isFirst: boolean): Planning {
  switch (news.kind) {
    case 'result':
      return {
        ...planning,
        results: isFirst ? [news.result] : withResult(planning.results, news.result),
        season: isFirst ? null : planning.season,
      };
    case 'season':
      return { ...planning, season: news.months };
    case 'refused':
      return { ...IDLE, state: 'refused', why: news.faults.map(faultSentence).join(' ') };
    case 'end':
      return { ...planning, state: 'done' };
  }
}

const workerOf = () =>
  started<PlanningWorker>(
    new Worker(new URL('../../data/workers/planning.worker.ts', import.meta.url), {
      type: 'module',
    }),
  );

/** The first of equal values. */
function useSame<T>(value: T): T {
  const text = JSON.stringify(value, (_, part: unknown) =>
    part instanceof Map ? [...part] : part,
  );
  const [kept, setKept] = useState({ text, value });
  if (kept.text === text) return kept.value;
  setKept({ text, value });
  return value;
}

/**
 * The planner's worker. Starts on mount and whenever the question changes. A new question or leaving the page stops the one under way; an
 * idle worker is reused. The current settings are not part of the question, so using a plan does not plan again.
 *
 * @param request null: nothing to plan
 * @param plan the current settings
 */
export function usePlanner(request: PlanRequest | null, plan: Plan): Planning {
  const [planning, setPlanning] = useState(IDLE);
  const worker = useRef<(Started<PlanningWorker> & { isBusy: boolean }) | null>(null);
  const asked = useSame(request);
  const set = useRef(plan);
  const askPresent = useCallback((about: PlanRequest) => {
    const { brief, options } = about;
    void worker.current?.call
      .present({ brief, plan: set.current, on: options.on ?? 0 })
      .then((outcome) =>
        setPlanning((last) => ({ ...last, present: outcome.ok ? outcome.value : null })),
      );
  }, []);
  useEffect(() => {
    if (set.current === plan) return;
    set.current = plan;
    if (asked) askPresent(asked);
  }, [plan, asked, askPresent]);
  useEffect(() => {
    if (!asked) return undefined;
    if (!worker.current || worker.current.isBusy) {
      worker.current?.end();
      worker.current = { ...workerOf(), isBusy: false };
    }
    const mine = worker.current;
    mine.isBusy = true;
    let isOver = false;
    let isFirst = true;
    setPlanning((last) => ({ ...last, state: 'working', why: null }));
    askPresent(asked);
    void mine.call.plan(
      asked,
      proxy((news: PlanNews) => {
        if (news.kind === 'end' || news.kind === 'refused') mine.isBusy = false;
        if (isOver) return;
        const first = isFirst && news.kind === 'result';
        if (first) isFirst = false;
        setPlanning((last) => after(last, news, first));
      }),
    );
    return () => {
      isOver = true;
    };
  }, [asked, askPresent]);
  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );
  return planning;
}
