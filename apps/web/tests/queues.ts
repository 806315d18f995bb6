/** Writes as they wait on a device. */
import { EMPTY_SURVEY, emptyPlan, TIMER_KINDS } from '@water-clock/core';
import type { Queue } from '../src/data/api/timers.ts';

const [kind] = TIMER_KINDS;
if (!kind) throw new Error('no kinds');
const plan = emptyPlan(kind);

export const queueOf = (...ids: readonly string[]): Queue => ({
  base: { version: 1, plan, survey: EMPTY_SURVEY },
  writes: ids.map((id) => ({
    ...{ id, baseVersion: 1, way: 'do', at: '2027-05-01T10:00:00.000Z' },
    change: { type: 'note', fields: { hundredMonth: 1 } },
  })),
});
