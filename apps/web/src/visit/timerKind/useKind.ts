import type { Plan, TimerKind } from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';

/** The company's document about this timer kind, by name; null while loading, or if there is none. */
export function useKind({ timer }: Plan): TimerKind | null {
  const kinds = useLibrary('kinds');
  return kinds.data?.find(({ document }) => document.timer.name === timer.name)?.document ?? null;
}
