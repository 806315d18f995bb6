import type { TimerLine } from '../../data/api/lines.ts';
import { colourOf } from '../../shared/charts/patterns.tsx';
import { say } from '@water-clock/core';

const DAY = 18;
const GAP = 3;
const HEIGHT = 22;
/** More programs on one day cannot be told apart at this size. */
const MOST = 4;

/** The coming seven dates: what waters on each, and overlaps. */
export function WeekMini({ week }: { readonly week: TimerLine['week'] }) {
  if (week.length === 0) return <span className="soft">–</span>;
  const words = week
    .map(
      ({ date, programs, overlaps }) =>
        `${date}: ${overlaps ? say`${programs}, overlap` : programs || say`dry`}`,
    )
    .join('; ');
  return (
    <svg
      className="week-mini"
      width={week.length * (DAY + GAP)}
      height={HEIGHT}
      role="img"
      aria-label={words}
    >
      {week.map(({ date, programs, overlaps }, i) => {
        const shown = [...programs].slice(0, MOST);
        const each = (HEIGHT - 4) / Math.max(2, shown.length);
        return (
          <g key={date} transform={`translate(${i * (DAY + GAP)})`}>
            <rect width={DAY} height={HEIGHT} fill="var(--strip-night)" />
            {shown.map((letter, at) => (
              <rect
                key={letter}
                x="4"
                y={2 + at * each}
                width={DAY - 8}
                height={each - 1}
                fill={colourOf(letter)}
              />
            ))}
            {overlaps && (
              <rect
                x="1"
                y="1"
                width={DAY - 2}
                height={HEIGHT - 2}
                fill="none"
                stroke="var(--alarm)"
                strokeWidth={2}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
