import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import { NotFound } from '../../app/platform/states.tsx';
import type { StepProps } from '../steps/stepProps.ts';

interface Props extends StepProps {
  /** Of what is saved. */
  readonly version: number;
}

type Code = () => Promise<{ readonly default: ComponentType<Props> }>;

/** The code of each step by its path; it comes when it is asked for. */
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

/** Fetches the code of one step, before there is anything to show in it. */
export function fetchStep(path: string): void {
  // What cannot be fetched now is asked for again by its step.
  if (Object.hasOwn(CODE, path)) void CODE[path]?.().catch(() => undefined);
}

/** Whether the person asked the browser to fetch as little as it can. */
const saves = () =>
  (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

/** Fetches the code of all steps, one after another, whenever nothing else is to be done: the next step is then there at once. */
export function fetchAhead(more: readonly (() => Promise<unknown>)[]): () => void {
  let isOver = saves();
  const later = globalThis.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 200));
  const rest = [...more, ...Object.values(CODE)];
  const next = () => {
    const code = isOver ? undefined : rest.shift();
    // What cannot be fetched now is asked for again by its step.
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

/** The steps of a visit that need more room than there is beside the strip. */
export function StepView({ shown, ...props }: Props & { readonly shown: string }) {
  const View = Object.hasOwn(VIEWS, shown) ? VIEWS[shown] : undefined;
  return View ? <View {...props} /> : <NotFound />;
}
