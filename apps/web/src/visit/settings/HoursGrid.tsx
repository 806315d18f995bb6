import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import {
  attempt,
  hoursHeld,
  HOURS_PER_DAY,
  nightsFrom,
  paintedWindows,
  SECONDS_PER_DAY,
  startWords,
  weekdayIndexOf,
  weekdayName,
  WEEKDAYS,
  type EpochDay,
  type HourOfWeek,
  type NoWaterWindow,
  type Plan,
  say,
} from '@water-clock/core';
import { fillOf } from '../../shared/charts/patterns.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';

const DAYS = WEEKDAYS.length;
const HOURS = Array.from({ length: HOURS_PER_DAY }, (_, hour) => hour);
const LABELLED_HOURS = 3;
const hourText = (hour: number) => `${String(hour).padStart(2, '0')}:00`;

/** Fractions of a column and of a day. */
const BLOCK = { inset: 0.3, least: 0.004 };
const percent = (share: number) => `${share * 100}%`;

interface Block {
  readonly letter: string;
  readonly day: number;
  /** Fractions of the day. */
  readonly from: number;
  readonly to: number;
}

/** When programs run in the week from a Monday, on the dates their water falls. */
function blocksOf(plan: Plan, monday: EpochDay): Block[] {
  const worked = attempt(() => nightsFrom(plan, monday - 1, DAYS + 1));
  if (!worked.ok) return [];
  return worked.value.flatMap(({ intended }) =>
    intended.flatMap(({ letter, begins, ends }) => {
      const blocks: Block[] = [];
      for (let day = Math.floor(begins / SECONDS_PER_DAY); day * SECONDS_PER_DAY < ends; day++) {
        const share = (moment: number) => Math.min(1, Math.max(0, moment / SECONDS_PER_DAY - day));
        if (day >= monday && day < monday + DAYS)
          blocks.push({ letter, day: day - monday, from: share(begins), to: share(ends) });
      }
      return blocks;
    }),
  );
}

interface Props {
  readonly plan: Plan;
  readonly today: EpochDay;
  readonly windows: readonly NoWaterWindow[];
  readonly commit: (windows: readonly NoWaterWindow[] | null) => void;
}

/**
 * No-water hours painted on a week: press or Space toggles an hour; drag, or Shift with arrows, paints more. Shows the programs where they
 * run.
 */
export function HoursGrid({ plan, today, windows, commit }: Props) {
  const { clock } = usePreferences();
  const [focus, setFocus] = useState<HourOfWeek>({ day: 0, hour: 9 });
  const grid = useRef<HTMLDivElement>(null);
  /** The painting in progress: hours so far, and whether they become no-water hours. */
  const [stroke, setStroke] = useState<{ from: HourOfWeek; to: HourOfWeek; dry: boolean } | null>(
    null,
  );
  const held = useMemo(() => hoursHeld(windows), [windows]);
  const blocks = useMemo(() => blocksOf(plan, today - weekdayIndexOf(today)), [plan, today]);
  const heldAt = ({ day, hour }: HourOfWeek) => held[day]?.[hour] ?? 0;
  const isIn = ({ day, hour }: HourOfWeek) =>
    stroke !== null &&
    day >= Math.min(stroke.from.day, stroke.to.day) &&
    day <= Math.max(stroke.from.day, stroke.to.day) &&
    hour >= Math.min(stroke.from.hour, stroke.to.hour) &&
    hour <= Math.max(stroke.from.hour, stroke.to.hour);
  const paint = (hours: readonly HourOfWeek[], dry: boolean) => {
    const next = paintedWindows(windows, hours, dry);
    commit(next.length > 0 ? next : null);
  };
  const all = WEEKDAYS.flatMap((_, day) => HOURS.map((hour) => ({ day, hour })));
  const finish = () => {
    if (stroke) paint(all.filter(isIn), stroke.dry);
    setStroke(null);
  };
  const under = (event: PointerEvent): HourOfWeek | null => {
    const cell = document.elementFromPoint(event.clientX, event.clientY);
    const [day, hour] = cell?.getAttribute('data-hour')?.split(' ').map(Number) ?? [];
    return day === undefined || hour === undefined ? null : { day, hour };
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const [down, right] =
      { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key] ??
      [];
    if (event.key === ' ' || event.key === 'Enter') {
      event.preventDefault();
      paint([focus], heldAt(focus) < 1);
    }
    if (down === undefined || right === undefined) return;
    event.preventDefault();
    const next = {
      day: Math.min(DAYS - 1, Math.max(0, focus.day + right)),
      hour: Math.min(HOURS_PER_DAY - 1, Math.max(0, focus.hour + down)),
    };
    // Painting continues with the state of the first hour.
    if (event.shiftKey) paint([focus, next], heldAt(focus) === 1);
    setFocus(next);
    grid.current?.querySelector<HTMLElement>(`[data-hour="${next.day} ${next.hour}"]`)?.focus();
  };
  return (
    <div
      ref={grid}
      className="hours-grid"
      role="grid"
      aria-label={say`No-water hours in the week`}
      aria-multiselectable
      onKeyDown={onKeyDown}
      onPointerMove={(event) => {
        const to = stroke && event.pointerType === 'mouse' ? under(event) : null;
        if (stroke && to) setStroke({ ...stroke, to });
      }}
      onPointerUp={finish}
      onPointerLeave={finish}
      onPointerCancel={() => setStroke(null)}
    >
      <div role="row" className="hours-row">
        <span role="columnheader" className="hours-label soft small">
          <span className="hidden-but-read">{say`Hour`}</span>
        </span>
        {WEEKDAYS.map((_, day) => (
          <span role="columnheader" key={day} className="bold">
            {weekdayName(day)}
          </span>
        ))}
      </div>
      {HOURS.map((hour) => (
        <div role="row" className="hours-row" key={hour}>
          <span role="rowheader" className="hours-label soft small">
            <span className={hour % LABELLED_HOURS === 0 ? undefined : 'hidden-but-read'}>
              {startWords(hourText(hour), clock)}
            </span>
          </span>
          {WEEKDAYS.map((_, day) => {
            const cell = { day, hour };
            const isDry = isIn(cell) ? (stroke?.dry ?? false) : heldAt(cell) === 1;
            const isPart = !isIn(cell) && heldAt(cell) > 0 && heldAt(cell) < 1;
            return (
              <span
                role="gridcell"
                key={day}
                className={`hour${isDry ? ' hour-dry' : ''}${isPart ? ' hour-part' : ''}`}
                data-hour={`${day} ${hour}`}
                aria-selected={isDry}
                aria-label={
                  isPart
                    ? say`${weekdayName(day)} ${startWords(hourText(hour), clock)}, no water for part of it`
                    : `${weekdayName(day)} ${startWords(hourText(hour), clock)}`
                }
                tabIndex={focus.day === day && focus.hour === hour ? 0 : -1}
                onPointerDown={(event) => {
                  if (event.button !== 0) return;
                  setFocus(cell);
                  setStroke({ from: cell, to: cell, dry: heldAt(cell) < 1 });
                }}
              />
            );
          })}
        </div>
      ))}
      <svg className="hours-runs" aria-hidden>
        {blocks.map(({ letter, day, from, to }, i) => (
          <rect
            key={i}
            x={percent((day + BLOCK.inset) / DAYS)}
            y={percent(from)}
            width={percent((1 - 2 * BLOCK.inset) / DAYS)}
            height={percent(Math.max(BLOCK.least, to - from))}
            fill={fillOf(letter)}
          />
        ))}
      </svg>
    </div>
  );
}
