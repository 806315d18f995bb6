import type { Brief, Plan } from '@water-clock/core';

export declare function seeded(seed: number): (below: number) => number;
export declare function smallBrief(seed: number): Brief;
export declare function plainPlan(
  brief: Brief,
  bare: Plan,
  most?: number,
):
  | {
      readonly plan: Plan;
      readonly cost: readonly [number, number, number, number, number, number, number];
    }
  | null
  | 'unfinished';
