import type { Plan } from '@water-clock/core';

export declare function worstPlan(
  minutes: number,
  inWindow?: Plan['timer']['inWindow'],
  hours?: boolean,
): Plan;
