import { memo, useMemo } from 'react';
import {
  attempt,
  civilOf,
  nightsFrom,
  parseTime,
  say,
  SECONDS_PER_DAY,
  WEEKDAYS,
  timeWords,
  weekdayIndexOf,
  weekdayName,
  type BriefRules,
  type EpochDay,
  type NoWaterWindow,
  type Plan,
  type Weekday,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { DRY_FILL, fillOf, OVERLAP_FILL } from './patterns.tsx';
import { sunOf, type Place } from './sun.ts';
import { useWidth } from './useWidth.ts';

const DAYS = 7;
const HOURS = [0, 6, 12, 18];
const SIZE = { height: 176, head: 18, hours: 46, gap: 2, leastBlock: 2 } as const;

interface Props {
  readonly plan: Plan;
  /** Shows the first full week from this date. */
  readonly from: EpochDay;
  readonly place: Place;
  /** Times at which watering is allowed. */
  readonly rules?: BriefRules | undefined;
  readonly mowing?: readonly Weekday[] | undefined;
}

/** Seconds of a day. */
interface Span {
  readonly from: number;
  readonly to: number;
}

/** The times of a date at which some windows forbid watering. */
function closedOn(day: EpochDay, windows: readonly NoWaterWindow[]): Span[] {
  const begunOn = (date: EpochDay, { weekdays }: NoWaterWindow) =>
    !weekdays || weekdays.includes(WEEKDAYS[weekdayIndexOf(date)] ?? 'mon');
  return windows.flatMap((window) => {
    const [from, to] = [parseTime(window.from) ?? 0, parseTime(window.to) ?? 0];
    if (from < to) return begunOn(day, window) ? [{ from, to }] : [];
    return [
      ...(begunOn(day, window) ? [{ from, to: SECONDS_PER_DAY }] : []),
      ...(begunOn(day - 1, window) && to > 0 ? [{ from: 0, to }] : []),
    ];
  });
}

/** Whether the rules forbid a whole date. */
function isForbidden(day: EpochDay, { weekdays, parity }: BriefRules): boolean {
  if (weekdays && !weekdays.includes(WEEKDAYS[weekdayIndexOf(day)] ?? 'mon')) return true;
  return parity !== undefined && (civilOf(day).day % 2 === 1) !== (parity === 'odd');
}

interface Block extends Span {
  readonly letter: string | null;
}

/** What waters on a date, and overlaps (no letter); a cycle past midnight appears on both dates. */
function blocksOn(day: EpochDay, plan: Plan): Block[] {
  const midnight = day * SECONDS_PER_DAY;
  const worked = attempt(() => nightsFrom(plan, day - 1, 2));
  const blocks = new Map<string, Block>();
  for (const { intended, overlaps } of worked.ok ? worked.value : [])
    for (const { letter, begins, ends } of [
      ...intended,
      ...overlaps.map(({ from, to }) => ({ letter: null, begins: from, ends: to })),
    ]) {
      const from = Math.max(0, begins - midnight);
      const to = Math.min(SECONDS_PER_DAY, ends - midnight);
      if (to > from) blocks.set(`${letter}${from}`, { letter, from, to });
    }
  return [...blocks.values()];
}

/** Seven dates of a plan from midnight to midnight, so that water appears on the date it falls. */
export const PlanWeek = memo(function PlanWeek({ plan, from, place, rules, mowing = [] }: Props) {
  const { clock, weekStart } = usePreferences();
  const [ref, width] = useWidth<HTMLDivElement>();
  const first = from + ((WEEKDAYS.indexOf(weekStart) - weekdayIndexOf(from) + DAYS) % DAYS);
  const dates = useMemo(
    () =>
      Array.from({ length: DAYS }, (_, i) => ({
        day: first + i,
        blocks: blocksOn(first + i, plan),
        closed: [
          ...closedOn(first + i, plan.settings.noWaterWindows ?? []),
          ...closedOn(first + i, rules?.noWaterWindows ?? []),
          ...(rules && isForbidden(first + i, rules) ? [{ from: 0, to: SECONDS_PER_DAY }] : []),
        ],
      })),
    [first, plan, rules],
  );
  const column = Math.max(0, (width - SIZE.hours) / DAYS);
  const y = (second: number) =>
    SIZE.head + ((SIZE.height - SIZE.head - 4) * second) / SECONDS_PER_DAY;
  const bar = ({ from: begin, to: end }: Span, least = 0) => ({
    y: y(begin),
    height: Math.max(least, y(end) - y(begin)),
  });
  const isMowing = (day: EpochDay) => mowing.includes(WEEKDAYS[weekdayIndexOf(day)] ?? 'mon');
  const told = dates
    .filter(({ blocks }) => blocks.some(({ letter }) => letter !== null))
    .map(
      ({ day, blocks }) =>
        `${weekdayName(weekdayIndexOf(day))}: ${blocks
          .filter(({ letter }) => letter !== null)
          .map(
            (block) =>
              `${block.letter} ${timeWords(block.from, clock)} – ${timeWords(block.to % SECONDS_PER_DAY, clock)}`,
          )
          .join(', ')}`,
    );
  return (
    <div ref={ref}>
      <span className="hidden-but-read">{told.join('; ') || say`No watering yet`}</span>
      {width > 0 && (
        <svg width={width} height={SIZE.height} aria-hidden className="small">
          {dates.map(({ day, blocks, closed }, i) => {
            const at = { x: SIZE.hours + i * column, width: column - SIZE.gap };
            const rise = sunOf({ day: day - 1 }, place)?.sunrise ?? null;
            const set = sunOf({ day }, place)?.sunset ?? null;
            return (
              <g key={day}>
                <text
                  x={at.x + at.width / 2}
                  y={12}
                  textAnchor="middle"
                  fontSize="12"
                  fontWeight={isMowing(day) ? 800 : 600}
                  fill={isMowing(day) ? 'var(--accent)' : 'var(--ink)'}
                >
                  {weekdayName(weekdayIndexOf(day)).slice(0, 2)}
                  {isMowing(day) && '*'}
                </text>
                <rect
                  {...at}
                  {...bar({ from: 0, to: SECONDS_PER_DAY })}
                  fill={rise === null ? 'var(--sheet)' : 'var(--strip-night)'}
                />
                {rise !== null && set !== null && (
                  <rect
                    {...at}
                    {...bar({
                      from: rise - day * SECONDS_PER_DAY,
                      to: set - day * SECONDS_PER_DAY,
                    })}
                    fill="var(--strip-day)"
                  />
                )}
                {closed.map((span, k) => (
                  <rect key={k} {...at} {...bar(span)} fill={DRY_FILL} />
                ))}
                {blocks.map((block) => (
                  <rect
                    key={`${block.letter}${block.from}`}
                    {...at}
                    {...bar(block, SIZE.leastBlock)}
                    fill={block.letter === null ? OVERLAP_FILL : fillOf(block.letter)}
                    {...(block.letter === null && { stroke: 'var(--ink)', strokeWidth: 1.5 })}
                  />
                ))}
              </g>
            );
          })}
          {HOURS.map((hour) => (
            <text
              key={hour}
              x={SIZE.hours - 5}
              y={y(hour * 3600) + (hour === 0 ? 9 : 4)}
              textAnchor="end"
              fontSize="11"
              fill="var(--ink-soft)"
            >
              {timeWords(hour * 3600, clock).replace(':00', clock === '12' ? '' : ':00')}
            </text>
          ))}
        </svg>
      )}
    </div>
  );
});
