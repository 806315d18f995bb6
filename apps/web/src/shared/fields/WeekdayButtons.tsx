import { Button } from 'antd';
import { WEEKDAYS, weekdayName, type Timer, type Weekday, say } from '@water-clock/core';

/** Weekday indices, 0 Monday, in the order of the timer's display. */
export const weekOrderOf = (timer: Pick<Timer, 'dialect'>): readonly number[] =>
  timer.dialect?.weekOrder === 'sun' ? [6, 0, 1, 2, 3, 4, 5] : [0, 1, 2, 3, 4, 5, 6];

interface Props {
  readonly label: string;
  /** Display whose order to use; without one the week begins on Monday. */
  readonly timer: Pick<Timer, 'dialect'>;
  readonly pressed: readonly Weekday[];
  /** Crossed out, because the site's rules do not allow watering then. */
  readonly forbidden?: readonly Weekday[];
  readonly className?: string;
  /** First letters only. */
  readonly short?: boolean;
  readonly commit: (weekdays: readonly Weekday[]) => void;
}

/** A button for each weekday, in the order of the timer's display. */
export function WeekdayButtons(props: Props) {
  const { label, timer, pressed, className = 'day', short = false, forbidden = [], commit } = props;
  const looksOf = (index: number) => {
    const name = weekdayName(index);
    const weekday = WEEKDAYS[index] ?? 'mon';
    const isPressed = pressed.includes(weekday);
    if (!forbidden.includes(weekday))
      return { className, 'aria-label': name, 'aria-pressed': isPressed };
    const words = say`${name}, not allowed by the watering rules`;
    return {
      className: `${className} day-forbidden`,
      'aria-label': words,
      'aria-pressed': isPressed,
      title: words,
    };
  };
  return (
    <div className="days" role="group" aria-label={label}>
      {weekOrderOf(timer).map((index) => (
        <Button
          key={index}
          {...looksOf(index)}
          onClick={() =>
            commit(WEEKDAYS.filter((weekday, i) => (i === index) !== pressed.includes(weekday)))
          }
        >
          {short ? weekdayName(index)[0] : weekdayName(index)}
        </Button>
      ))}
    </div>
  );
}
