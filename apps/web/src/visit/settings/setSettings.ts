import type { PlanChange } from '@water-clock/core';

/** Sets settings of the whole timer; null takes one out. Reports what is wrong; null: nothing. */
export type SetSettings = (
  settings: Extract<PlanChange, { type: 'set-settings' }>['settings'],
) => string | null;
