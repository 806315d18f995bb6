import type { ReactNode } from 'react';
import { fillOf } from './patterns.tsx';
import { blocksOf, type StripGeometry } from './stripGeometry.ts';

interface Props {
  readonly geometry: StripGeometry;
  readonly width: number;
  readonly height: number;
  /** Whether sunset and sunrise are known. */
  readonly withSun: boolean;
  readonly children?: ReactNode;
}

/** A night in small: dark and light, and each program's watering. */
export function NightBlocks({ geometry, width, height, withSun, children }: Props) {
  return (
    <svg width={width} height={height} aria-hidden>
      <rect width={width} height={height} fill={withSun ? 'var(--strip-day)' : 'var(--sheet)'} />
      {geometry.dark && <rect {...geometry.dark} y={0} height={height} fill="var(--strip-night)" />}
      {geometry.cycles.map((cycle) =>
        blocksOf(cycle).map((run) => (
          <rect
            key={`${cycle.letter}${run.station}${run.x}`}
            x={run.x}
            y={run.y}
            width={Math.max(1, run.width)}
            height={run.height}
            fill={fillOf(cycle.letter)}
          />
        )),
      )}
      {children}
    </svg>
  );
}
