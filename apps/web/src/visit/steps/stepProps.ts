import type { Plan, Survey, EpochDay } from '@water-clock/core';
import type { Site } from '../../data/api/sites.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import type { VisitBasis } from './useVisitBasis.ts';

/** Props of every survey view. */

export interface StepProps extends VisitBasis {
  readonly timerId: string;
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  /** The current second on the timer's clock. */
  readonly now: number;
}
