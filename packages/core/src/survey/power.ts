/** What a timer runs on. */
import type { Power, TimerKind } from '../plan/kind.ts';
import type { Survey } from './survey.ts';

/** As noted at the timer, otherwise by its kind; null: not known. */
export const powerOf = (
  { device }: Pick<Survey, 'device'>,
  kind: Pick<TimerKind, 'power'> | null,
): Power | null => device?.power ?? kind?.power ?? null;
