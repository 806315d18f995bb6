import type { PlanChange } from '@water-clock/core';

/** Sets settings of the whole timer; null removes one. Returns core's refusal as a message, or null. */
export type SetSettings = (
  settings: Extract<PlanChange, { type: 'set-settings' }>['settings'],
) => string | null;
