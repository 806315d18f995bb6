import { useMemo } from 'react';
import { attempt, occupiedWeek, type Brief } from '@water-clock/core';
import { nameOf, useHouse, type HouseTimer } from '../../data/api/houses.ts';

/** The other timers of a house that water. */
export function useOthers(siteId: string, timerId: string): readonly HouseTimer[] {
  const { data } = useHouse(siteId);
  return useMemo(
    () =>
      (data?.timers ?? []).filter(
        ({ id, isArchived, plan }) => id !== timerId && !isArchived && plan.settings.mode !== 'off',
      ),
    [data, timerId],
  );
}

export const namesOf = (timers: readonly HouseTimer[]): string[] => timers.map(nameOf);

/** A brief that leaves other timers their hours: nothing waters then, drip neither. Of one that is too much work the hours are not known. */
export function clearOf(brief: Brief, others: readonly HouseTimer[], today: number): Brief {
  const windows = others.flatMap(({ plan }) => {
    const week = attempt(() => occupiedWeek(plan, today));
    return week.ok ? week.value : [];
  });
  if (windows.length === 0) return brief;
  const { rules } = brief;
  return {
    ...brief,
    rules: {
      ...rules,
      dripExempt: false,
      noWaterWindows: [...(rules?.noWaterWindows ?? []), ...windows],
    },
  };
}
