import { useMemo } from 'react';
import {
  nightOf,
  nightsFrom,
  type ClockSecond,
  type ClockStyle,
  type TimerRun,
  type Plan,
  say,
} from '@water-clock/core';
import { fillOf } from '../../shared/charts/patterns.tsx';
import { STRIP, stripGeometry } from '../../shared/charts/stripGeometry.ts';
import { Ground, Hours, Letters, Now, Overlaps, Rows } from '../../shared/charts/stripLayers.tsx';
import { useWidth } from '../../shared/charts/useWidth.ts';
import '../../shared/charts/strip.css';

/** Row of manual runs. */
const BY_HAND = 'hand';
const ROW = 30;

interface Props {
  readonly plan: Plan;
  readonly now: ClockSecond;
  readonly ahead: number;
  readonly runs: readonly TimerRun[];
  readonly clock: ClockStyle;
}

/** The night as it fills: frames for what is intended, filled by what has run. */
export function BenchNight({ plan, now, ahead, runs, clock }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const day = nightOf(now);
  const night = useMemo(() => nightsFrom(plan, day, 1, { ahead })[0], [plan, day, ahead]);
  const letters = useMemo(
    () => [...plan.programs.map(({ letter }) => letter).sort(), BY_HAND],
    [plan.programs],
  );
  const geometry = useMemo(
    () =>
      night &&
      stripGeometry({ ...night, runs: [], served: [] }, letters, null, {
        width,
        rowHeight: ROW,
        head: STRIP.head,
      }),
    [night, letters, width],
  );
  if (!night || !geometry) return null;
  const shown = runs.filter(({ on, off }) => off > night.from && on < night.to);
  return (
    <figure className="strip" aria-label={say`${shown.length} runs tonight so far`}>
      <svg width={STRIP.letters} height={geometry.height + STRIP.foot} aria-hidden>
        <Letters
          geometry={{ ...geometry, rows: geometry.rows.filter(({ letter }) => letter !== BY_HAND) }}
          reallyToo={false}
        />
        <text x={0} y={geometry.height - ROW / 2 + 5}>
          {say`manual`}
        </text>
      </svg>
      <div ref={ref} className="strip-window">
        <svg width={width} height={geometry.height + STRIP.foot} aria-hidden>
          <Ground geometry={geometry} sun={null} />
          <Hours geometry={geometry} night={night} clock={clock} />
          <Rows geometry={geometry} />
          {geometry.cycles.map((cycle) => (
            <rect
              key={`${cycle.letter}${cycle.begins}`}
              x={cycle.x}
              y={cycle.y}
              width={Math.max(2, cycle.width)}
              height={cycle.height}
              className="strip-extent"
            />
          ))}
          {shown.map(({ station, letter, on, off }) => {
            const row = geometry.rows.find((one) => one.letter === (letter ?? BY_HAND));
            const span = geometry.span(on, off);
            return (
              row && (
                <rect
                  key={`${station}${letter}${on}`}
                  x={span.x}
                  width={Math.max(1.5, span.width)}
                  y={row.y + 5}
                  height={ROW - 10}
                  fill={fillOf(letter)}
                />
              )
            );
          })}
          <Overlaps geometry={geometry} />
          <Now geometry={geometry} now={now} />
        </svg>
      </div>
    </figure>
  );
}
