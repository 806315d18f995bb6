import type { Plan, TimerKind } from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';

/** What the office knows of this kind of timer, by its name; null while it is fetched, or where it has no such kind. */
export function useKind({ timer }: Plan): TimerKind | null {
  const kinds = useLibrary('kinds');
  return kinds.data?.find(({ document }) => document.timer.name === timer.name)?.document ?? null;
}
