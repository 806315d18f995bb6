import type { Visit } from '@water-clock/core';
import type { StepProps } from '../steps/stepProps.ts';

/** Props of every part of a step during a visit. */
export interface VisitPartProps extends StepProps {
  readonly visit: Visit;
}
