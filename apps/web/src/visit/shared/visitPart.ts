import type { Visit } from '@water-clock/core';
import type { StepProps } from '../steps/stepProps.ts';

/** What every part of a view gets once a visit is under way. */
export interface VisitPartProps extends StepProps {
  readonly visit: Visit;
}
