import { lazy } from 'react';
import type { EpochDay, Plan, Survey } from '@water-clock/core';
import { NotFound } from '../platform/states.tsx';
import type { Site } from '../sites/queries.ts';
import type { TimerEditor } from '../timers/editor.ts';
import type { Visit } from './useVisit.ts';
import '../survey/survey.css';

const HouseView = lazy(() => import('../sites/HouseView.tsx'));
const DeviceView = lazy(() => import('../survey/DeviceView.tsx'));
const StationsView = lazy(() => import('../survey/StationsView.tsx'));
const WalkView = lazy(() => import('../survey/WalkView.tsx'));
const MinutesView = lazy(() => import('../minutes/MinutesView.tsx'));
const PlannerView = lazy(() => import('../planner/PlannerView.tsx'));
const BriefView = lazy(() => import('../brief/BriefView.tsx'));

/** What every view of a survey works on. */
export interface SurveyProps extends Visit {
  readonly timerId: string;
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  /** The present second on the timer's clock. */
  readonly now: number;
}

/** The steps of a visit before the programs. */
export default function SurveyViews({ shown, ...props }: SurveyProps & { readonly shown: string }) {
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
    default:
      return <NotFound />;
  }
}
