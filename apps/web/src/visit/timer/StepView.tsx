import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import { NotFound } from '../../app/platform/states.tsx';
import type { StepProps } from '../steps/stepProps.ts';

interface Props extends StepProps {
  /** Saved version. */
  readonly version: number;
}

type Code = () => Promise<{ readonly default: ComponentType<Props> }>;

/** Each step's code by path, loaded when needed. */
const CODE: Readonly<Record<string, Code>> = {
  house: () => import('../house/HouseView.tsx'),
  timer: () => import('../timerKind/TimerKindView.tsx'),
  found: () => import('../found/AsFoundView.tsx'),
  seen: () => import('../seen/SeenView.tsx'),
  stations: () => import('../stations/StationsView.tsx'),
  walk: () => import('../stations/WalkView.tsx'),
  minutes: () => import('../minutes/MinutesView.tsx'),
  brief: () => import('../brief/BriefView.tsx'),
  plan: () => import('../planner/PlannerView.tsx'),
  keyin: () => import('../keyIn/KeyInView.tsx'),
  leave: () => import('../leave/LeaveView.tsx'),
  page: () => import('../../homeowner/PageView.tsx'),
  log: () => import('../log/LogbookView.tsx'),
};
const VIEWS: Readonly<Record<string, LazyExoticComponent<ComponentType<Props>>>> =
  Object.fromEntries(Object.entries(CODE).map(([path, code]) => [path, lazy(code)]));

/** Loads the code of a step ahead. */
export function fetchStep(path: string): void {
  // If it fails, the step requests it again.
  if (Object.hasOwn(CODE, path)) void CODE[path]?.().catch(() => undefined);
}

/** Whether the browser asks to save data. */
const saves = () =>
  (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

/** Loads the code of all steps in idle time, one after another, so that the next step opens at once. */
export function fetchAhead(more: readonly (() => Promise<unknown>)[]): () => void {
  let isOver = saves();
  const later = globalThis.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 200));
  const rest = [...more, ...Object.values(CODE)];
  const next = () => {
    const code = isOver ? undefined : rest.shift();
    // If it fails, the step requests it again.
    if (code)
      void code().then(
        () => later(next),
        () => undefined,
      );
  };
  later(next);
  return () => {
    isOver = true;
  };
}

/** Steps that need more room than there is beside the strip. */
export function StepView({ shown, ...props }: Props & { readonly shown: string }) {
  const View = Object.hasOwn(VIEWS, shown) ? VIEWS[shown] : undefined;
  return View ? <View {...props} /> : <NotFound />;
}
