import { memo } from 'react';
import { NEED_TOLERANCE, say } from '@water-clock/core';

interface Props {
  /** Seconds a week at 100 percent. */
  readonly given: number;
  /** The station's need, likewise; null: not known. */
  readonly needed: number | null;
}

const minutes = (seconds: number) => Math.round(seconds / 60);

/** What a station gets in a week next to its need, as text and as a bar with the need marked. */
export const WeekCell = memo(function WeekCell({ given, needed }: Props) {
  if (needed === null)
    return (
      <span className="row near in-line">
        <span className="small soft">{say`${minutes(given)}, need not known`}</span>
      </span>
    );
  const whole = Math.max(given, needed, 1) * 1.1;
  const isShort = given < needed * (1 - NEED_TOLERANCE);
  const isMuch = given > needed * (1 + NEED_TOLERANCE);
  const isOff = isShort || isMuch;
  return (
    <span className={isOff ? 'row near in-line warn' : 'row near in-line'}>
      <svg className="week-bar" viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden>
        <rect fill="var(--line)" y="3" width="100" height="6" />
        <rect
          fill={isOff ? 'var(--program-1)' : 'var(--calm-ink)'}
          y="3"
          width={(given / whole) * 100}
          height="6"
        />
        <rect fill="var(--ink)" x={(needed / whole) * 100 - 1} width="2" height="12" />
      </svg>
      <span className="small">
        {say`${minutes(given)} of ${minutes(needed)}`}
        <span className="hidden-but-read">
          {' '}
          {isShort
            ? say`minutes a week, too little`
            : isMuch
              ? say`minutes a week, too much`
              : say`minutes a week`}
        </span>
      </span>
    </span>
  );
});
