import { monthName } from '@water-clock/core';
import { curveGeometry, type Curve } from './curveGeometry.ts';
import { useWidth } from './useWidth.ts';

const HEIGHT = 240;

/** Curves differ by dash as well as colour. */
const LOOKS = [
  { stroke: 'var(--program-1)' },
  { stroke: 'var(--program-0)', strokeDasharray: '2 5', strokeLinecap: 'round' },
  { stroke: 'var(--accent)', strokeDasharray: '10 5' },
] as const;

interface Props {
  readonly label: string;
  readonly unit: string;
  readonly curves: readonly Curve[];
  /** Current month, 1 to 12. */
  readonly month: number;
}

/** Curves over a year, each with its own dash and a legend; a table of the values stands beside them. */
export function YearCurves({ label, unit, curves, month }: Props) {
  const [ref, width] = useWidth<HTMLElement>();
  const { shapes, months, ticks, left, bottom } = curveGeometry(curves, width, HEIGHT);
  const now = months.find((one) => one.month === month);
  return (
    <figure className="curves" ref={ref}>
      <svg width={width} height={HEIGHT} role="img" aria-label={label}>
        {ticks.map(({ value, y }) => (
          <g key={value}>
            <line x1={left} x2={width} y1={y} y2={y} stroke="var(--line)" />
            <text x={left - 6} y={y + 5} textAnchor="end" className="soft small">
              {value}
            </text>
          </g>
        ))}
        {now && (
          <line
            x1={now.x}
            x2={now.x}
            y1={0}
            y2={bottom}
            stroke="var(--line-strong)"
            strokeDasharray="2 4"
          />
        )}
        {months.map(({ month: one, x }) => (
          <text key={one} x={x} y={bottom + 20} textAnchor="middle" className="soft small">
            {monthName(one).slice(0, width < 500 ? 1 : 3)}
          </text>
        ))}
        {shapes.map(({ name, path, points }, i) => (
          <g key={name}>
            <path d={path} fill="none" strokeWidth={2.5} {...LOOKS[i]} />
            {points.map(({ x, y, value }, k) => (
              <circle key={k} cx={x} cy={y} r={i === 0 ? 4 : 3} fill={LOOKS[i]?.stroke}>
                <title>{`${name}, ${monthName(k + 1)}: ${value.toFixed(1)} ${unit}`}</title>
              </circle>
            ))}
          </g>
        ))}
      </svg>
      <figcaption className="row near">
        <span className="soft">{unit}</span>
        {curves.map(({ name }, i) => (
          <span key={name}>
            <svg width="34" height="10" aria-hidden>
              <path d="M1 5h32" fill="none" strokeWidth={2.5} {...LOOKS[i]} />
            </svg>{' '}
            {name}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
