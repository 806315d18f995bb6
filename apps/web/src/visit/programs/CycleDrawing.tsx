import { useMemo } from 'react';
import { lengthWords, type CycleShape, type Station, say } from '@water-clock/core';
import { fillOf } from '../../shared/charts/patterns.tsx';
import { useWidth } from '../../shared/charts/useWidth.ts';

const ROW = 18;
const GUTTER = 30;
/** More cycles cannot be told apart or read out. */
const MOST_PIECES = 600;

interface Props {
  readonly letter: string;
  readonly shape: CycleShape;
  readonly stations: readonly Station[];
}

/** The runs of one cycle, a row for each station, with cycle and soak and delay. */
export function CycleDrawing({ letter, shape, stations }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const numbers = useMemo(
    () => [...new Set(shape.runs.map(({ station }) => station))].sort((a, b) => a - b),
    [shape],
  );
  if (shape.seconds === 0) return <p className="soft">{say`No run times yet.`}</p>;
  if (shape.runs.length > MOST_PIECES)
    return (
      <p className="soft">{say`${shape.runs.length} cycles in ${lengthWords(shape.seconds)}.`}</p>
    );
  const x = (second: number) => GUTTER + (second / shape.seconds) * Math.max(1, width - GUTTER);
  const words = numbers.map((number) => {
    const pieces = shape.runs.filter(({ station }) => station === number);
    const name = stations.find((station) => station.number === number)?.name ?? '';
    const lengths = pieces.map(({ on, off }) => lengthWords(off - on)).join(', ');
    return `${number} ${name}: ${lengths}`;
  });
  return (
    <div ref={ref} className="cycle-drawing small soft">
      {width > 0 && (
        <svg
          width={width}
          height={numbers.length * ROW + 20}
          role="img"
          aria-label={say`One cycle of ${letter}, ${lengthWords(shape.seconds)}. ${words.join('. ')}`}
        >
          {numbers.map((number, row) => (
            <g key={number}>
              <text x={GUTTER - 6} y={row * ROW + 13} textAnchor="end" className="heavy">
                {number}
              </text>
              <line
                x1={GUTTER}
                x2={width}
                y1={row * ROW + ROW - 1}
                y2={row * ROW + ROW - 1}
                stroke="var(--line)"
              />
            </g>
          ))}
          {shape.runs.map(({ station, on, off }, i) => (
            <rect
              key={i}
              x={x(on)}
              y={numbers.indexOf(station) * ROW + 2}
              width={Math.max(1, x(off) - x(on) - 0.5)}
              height={ROW - 5}
              fill={fillOf(letter)}
            />
          ))}
          <text x={GUTTER} y={numbers.length * ROW + 15}>{say`start`}</text>
          <text x={width} y={numbers.length * ROW + 15} textAnchor="end">
            {say`${lengthWords(shape.seconds)} later`}
          </text>
        </svg>
      )}
    </div>
  );
}
