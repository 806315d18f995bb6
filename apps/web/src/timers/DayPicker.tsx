import { memo } from 'react';
import { WEEKDAYS, weekdayMaskOf, weekdayName, type Days, type Timer } from '@water-clock/core';

interface Props {
  readonly letter: string;
  readonly days: Days | null;
  readonly timer: Timer;
  readonly commit: (days: Days | null) => void;
}

/** The weekdays of a program, in the order of the timer's display. No day pressed means that none is set. */
export const DayPicker = memo(function DayPicker({ letter, days, timer, commit }: Props) {
  const mask = weekdayMaskOf(days);
  const order = timer.dialect?.weekOrder === 'sun' ? [6, 0, 1, 2, 3, 4, 5] : [0, 1, 2, 3, 4, 5, 6];
  const toggle = (index: number) => {
    const next = mask ^ (1 << index);
    const weekdays = WEEKDAYS.filter((_, i) => next & (1 << i));
    commit(weekdays.length > 0 ? { rule: 'weekdays', weekdays } : null);
  };
  return (
    <div className="days" role="group" aria-label={`Watering days of ${letter}`}>
      {order.map((index) => (
        <button
          key={index}
          type="button"
          className="day"
          aria-pressed={(mask & (1 << index)) !== 0}
          onClick={() => toggle(index)}
        >
          {weekdayName(index)}
        </button>
      ))}
    </div>
  );
});
