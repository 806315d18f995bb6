import { useMemo } from 'react';
import { attempt, occupiedWeek, type Brief } from '@water-clock/core';
import { nameOf, useHouse, type HouseTimer } from '../../data/api/houses.ts';

/** The site's other timers that water. */
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

/**
 * A brief that reserves other timers' hours: nothing waters then, not even drip. Unknown hours, of a timer that takes too long, are
 * skipped.
 */
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
