import { lazy } from 'react';
import { NotFound } from '../platform/states.tsx';
import type { StepProps } from '../steps/stepProps.ts';

const HouseView = lazy(() => import('../house/HouseView.tsx'));
const DeviceView = lazy(() => import('../device/DeviceView.tsx'));
const StationsView = lazy(() => import('../stations/StationsView.tsx'));
const WalkView = lazy(() => import('../stations/WalkView.tsx'));
const MinutesView = lazy(() => import('../minutes/MinutesView.tsx'));
const PlannerView = lazy(() => import('../planner/PlannerView.tsx'));
const BriefView = lazy(() => import('../brief/BriefView.tsx'));
const AsFoundView = lazy(() => import('../visit/AsFoundView.tsx'));
const SeenView = lazy(() => import('../visit/SeenView.tsx'));
const KeyInView = lazy(() => import('../visit/KeyInView.tsx'));
const LeaveView = lazy(() => import('../visit/LeaveView.tsx'));
const LogbookView = lazy(() => import('../visit/LogbookView.tsx'));
const PageView = lazy(() => import('../homeowner/PageView.tsx'));

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
