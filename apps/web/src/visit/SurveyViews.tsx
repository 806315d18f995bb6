import { lazy } from 'react';
import type { EpochDay, Plan, Survey } from '@water-clock/core';
import { NotFound } from '../platform/states.tsx';
import type { Site } from '../sites/queries.ts';
import type { TimerEditor } from '../timers/editor.ts';
import type { VisitBasis } from './useVisit.ts';
import '../survey/survey.css';

const HouseView = lazy(() => import('../sites/HouseView.tsx'));
const DeviceView = lazy(() => import('../survey/DeviceView.tsx'));
const StationsView = lazy(() => import('../survey/StationsView.tsx'));
const WalkView = lazy(() => import('../survey/WalkView.tsx'));
const MinutesView = lazy(() => import('../minutes/MinutesView.tsx'));
const PlannerView = lazy(() => import('../planner/PlannerView.tsx'));
const BriefView = lazy(() => import('../brief/BriefView.tsx'));
const AsFoundView = lazy(() => import('../visits/AsFoundView.tsx'));
const SeenView = lazy(() => import('../visits/SeenView.tsx'));
const KeyInView = lazy(() => import('../visits/KeyInView.tsx'));
const LeaveView = lazy(() => import('../visits/LeaveView.tsx'));
const LogbookView = lazy(() => import('../visits/LogbookView.tsx'));
const PageView = lazy(() => import('../pages/PageView.tsx'));

/** What every view of a survey works on. */
export interface SurveyProps extends VisitBasis {
  readonly timerId: string;
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  /** The present second on the timer's clock. */
  readonly now: number;
}

/** The steps of a visit that need more room than stands beside the strip. */
export default function SurveyViews({
  shown,
  version,
  ...props
}: SurveyProps & {
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
