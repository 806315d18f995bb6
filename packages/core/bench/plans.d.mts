import type { Plan } from '@water-clock/core';

export declare function realisticPlan(
  stations: number,
  programs: number,
  starts: number,
  fill?: number,
): Plan;

export declare function worstPlan(
  minutes: number,
  inWindow?: Plan['timer']['inWindow'],
  hours?: boolean,
): Plan;
