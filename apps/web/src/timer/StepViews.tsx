import { lazy } from 'react';
import { NotFound } from '../platform/states.tsx';
import type { StepProps } from '../steps/stepProps.ts';

/** The code of each step, which comes when it is asked for. */
const CODE = {
  HouseView: () => import('../house/HouseView.tsx'),
  DeviceView: () => import('../device/DeviceView.tsx'),
  StationsView: () => import('../stations/StationsView.tsx'),
  WalkView: () => import('../stations/WalkView.tsx'),
  MinutesView: () => import('../minutes/MinutesView.tsx'),
  PlannerView: () => import('../planner/PlannerView.tsx'),
  BriefView: () => import('../brief/BriefView.tsx'),
  AsFoundView: () => import('../visit/AsFoundView.tsx'),
  SeenView: () => import('../visit/SeenView.tsx'),
  KeyInView: () => import('../visit/KeyInView.tsx'),
  LeaveView: () => import('../visit/LeaveView.tsx'),
  LogbookView: () => import('../visit/LogbookView.tsx'),
  PageView: () => import('../homeowner/PageView.tsx'),
};
const HouseView = lazy(CODE.HouseView);
const DeviceView = lazy(CODE.DeviceView);
const StationsView = lazy(CODE.StationsView);
const WalkView = lazy(CODE.WalkView);
const MinutesView = lazy(CODE.MinutesView);
const PlannerView = lazy(CODE.PlannerView);
const BriefView = lazy(CODE.BriefView);
const AsFoundView = lazy(CODE.AsFoundView);
const SeenView = lazy(CODE.SeenView);
const KeyInView = lazy(CODE.KeyInView);
const LeaveView = lazy(CODE.LeaveView);
const LogbookView = lazy(CODE.LogbookView);
const PageView = lazy(CODE.PageView);

/** Whether the person asked the browser to fetch as little as it can. */
const saves = () =>
  (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

/** Fetches the code of all steps, one after another, whenever nothing else is to be done: the next step is then there at once. */
export function fetchAhead(more: readonly (() => Promise<unknown>)[]): () => void {
  let isOver = saves();
  const later = globalThis.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 200));
  const rest = [...more, ...Object.values(CODE)];
  const next = () => {
    const fetchCode = isOver ? undefined : rest.shift();
    // What cannot be fetched now is asked for again by its step.
    if (fetchCode)
      void fetchCode().then(
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
export default function SurveyViews({
  shown,
  version,
  ...props
}: StepProps & {
  readonly shown: string;
  /** Of what is saved. */
  readonly version: number;
}) {
  switch (shown) {
    case 'house':
      return <HouseView {...props} />;
    case 'timer':
      return <DeviceView {...props} />;
    case 'stations':
      return <StationsView {...props} />;
    case 'walk':
      return <WalkView {...props} />;
    case 'minutes':
      return <MinutesView {...props} />;
    case 'brief':
      return <BriefView {...props} />;
    case 'plan':
      return <PlannerView {...props} />;
    case 'found':
      return <AsFoundView {...props} />;
    case 'seen':
      return <SeenView {...props} />;
    case 'keyin':
      return <KeyInView {...props} />;
    case 'leave':
      return <LeaveView {...props} />;
    case 'page':
      return <PageView {...props} version={version} />;
    case 'log':
      return <LogbookView {...props} />;
    default:
      return <NotFound />;
  }
}
