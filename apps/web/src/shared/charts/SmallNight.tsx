import { memo, useMemo } from 'react';
import { lengthWords, type EpochDay, type Night, say } from '@water-clock/core';
import { NightBlocks } from './NightBlocks.tsx';
import { OVERLAP_FILL } from './patterns.tsx';
import { stripGeometry } from './stripGeometry.ts';
import { Marks, ReallyRuns, type Mark } from './stripLayers.tsx';
import type { NightSun } from './sun.ts';
import { useWidth } from './useWidth.ts';

interface Props {
  readonly night: Night;
  readonly letters: readonly string[];
  readonly sun: NightSun | null;
  readonly label: string;
  readonly chosen: boolean;
  readonly choose: (day: EpochDay) => void;
  /** With events from people, weather and power, what really ran stands below what was intended. */
  readonly marks?: readonly Mark[];
}

/** A night in a few words. */
function nightWords(night: Night): string {
  const seconds = night.overlaps.reduce((sum, { from, to }) => sum + to - from, 0);
  if (seconds > 0) return say`overlap ${lengthWords(seconds)}`;
  const letters = [...new Set(night.intended.map((cycle) => cycle.letter))].sort();
  return letters.length > 0 ? letters.join(' ') : say`no watering`;
}

/** One of the coming nights in small; press it to show it on the large strip. */
export const SmallNight = memo(function SmallNight(props: Props) {
  const { night, letters, sun, label, chosen, choose, marks } = props;
  const [ref, width] = useWidth<HTMLSpanElement>();
  const rowHeight = Math.max(4, Math.min(9, 30 / Math.max(1, letters.length)));
  const geometry = useMemo(
    () => stripGeometry(night, letters, sun, { width, rowHeight, head: 3 }),
    [night, letters, sun, width, rowHeight],
  );
  const height = (marks ? geometry.height : 3 + letters.length * rowHeight) + 3;
  const overlaps = night.overlaps.length > 0;
  return (
    <button
      type="button"
      className="small-night"
      aria-pressed={chosen}
      onClick={() => choose(night.day)}
    >
      <span className="bold">{label}</span>
      <span ref={ref} className="small-night-strip">
        {width > 0 && (
          <NightBlocks geometry={geometry} width={width} height={height} withSun={sun !== null}>
            {geometry.overlaps.map((overlap) => (
              <g key={`${overlap.letters}${overlap.x}`}>
                <rect
                  x={overlap.x}
                  y={0}
                  width={Math.max(6, overlap.width)}
                  height={height}
                  fill={OVERLAP_FILL}
                  stroke="var(--ink)"
                  strokeWidth={2.5}
                />
              </g>
            ))}
            {marks && <ReallyRuns geometry={geometry} />}
            {marks && <Marks geometry={geometry} marks={marks} top={0} />}
          </NightBlocks>
        )}
      </span>
      <span className={overlaps ? 'small heavy' : 'small'}>{nightWords(night)}</span>
    </button>
  );
});
