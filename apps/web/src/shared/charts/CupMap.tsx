import { scaleSqrt } from 'd3-scale';
import { say } from '@water-clock/core';

interface Props {
  readonly millilitres: readonly number[];
  /** Cups in a row. */
  readonly across: number;
  /** Cups in the low quarter. */
  readonly low: readonly number[];
  readonly chosen: number | null;
  readonly choose: (cup: number) => void;
}

const CELL = 52;
const LARGEST = 22;

/** Cups as placed on the ground: the fuller, the larger; those in the low quarter are hollow. */
export function CupMap({ millilitres, across, low, chosen, choose }: Props) {
  const radius = scaleSqrt()
    .domain([0, Math.max(1, ...millilitres)])
    .range([5, LARGEST]);
  const columns = Math.min(across, millilitres.length);
  const rows = Math.ceil(millilitres.length / across);
  return (
    <div className="cup-map">
      <svg
        width={columns * CELL}
        height={rows * CELL}
        viewBox={`0 0 ${columns * CELL} ${rows * CELL}`}
        role="group"
        aria-label={say`Cup layout`}
      >
        {millilitres.map((caught, cup) => {
          const isLow = low.includes(cup);
          const x = (cup % across) * CELL + CELL / 2;
          const y = Math.floor(cup / across) * CELL + CELL / 2;
          return (
            <g
              key={cup}
              role="button"
              tabIndex={0}
              aria-pressed={cup === chosen}
              aria-label={
                isLow
                  ? say`Cup ${cup + 1}: ${caught} ml, in the driest quarter`
                  : say`Cup ${cup + 1}: ${caught} ml`
              }
              onClick={() => choose(cup)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                choose(cup);
              }}
            >
              <rect
                x={x - CELL / 2}
                y={y - CELL / 2}
                width={CELL}
                height={CELL}
                fill="transparent"
              />
              <circle
                cx={x}
                cy={y}
                r={radius(caught)}
                fill={isLow ? 'var(--sheet)' : 'var(--program-0)'}
                stroke={isLow ? 'var(--alarm)' : 'var(--ink)'}
                strokeDasharray={isLow ? '4 3' : undefined}
                strokeWidth={cup === chosen ? 4 : 2}
              />
              <text
                x={x}
                y={y + 5}
                textAnchor="middle"
                className="bold"
                color={isLow ? undefined : 'var(--sheet)'}
              >
                {caught}
              </text>
            </g>
          );
        })}
      </svg>
      <p className="soft">{say`Hollow: the driest quarter. Press a cup to change it.`}</p>
    </div>
  );
}
