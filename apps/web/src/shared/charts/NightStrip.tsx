import { memo, useMemo } from 'react';
import { Button } from 'antd';
import {
  SECONDS_PER_DAY,
  timeWords,
  type ClockChange,
  type ClockSecond,
  type ClockStyle,
  type DryStretch,
  type Night,
  type RuledOut,
  type Weekday,
  say,
} from '@water-clock/core';
import {
  BlockedTimes,
  ChangedHour,
  CycleRuns,
  DryHours,
  Ground,
  Hours,
  Letters,
  Marks,
  MowingDays,
  Now,
  Overlaps,
  ReallyRuns,
  Rows,
  RuledHours,
  Sun,
  type Mark,
} from './stripLayers.tsx';
import { rowHeightOf, STRIP, stripGeometry, type CycleShape } from './stripGeometry.ts';
import { placedLabels } from './placeLabels.ts';
import { Labels, labelsOf } from './StripLabels.tsx';
import type { NightSun } from './sun.ts';
import { useMoves, type MoveOutcome } from './useMoves.ts';
import { usePinch } from './usePinch.ts';
import { useWidth } from './useWidth.ts';
import './strip.css';

export interface NightStripProps extends MoveOutcome {
  readonly night: Night;
  readonly letters: readonly string[];
  readonly sun: NightSun | null;
  readonly clock: ClockStyle;
  readonly stepMinutes: number;
  /** Times at which the dragged start may not be dropped; null: none is dragged. */
  readonly blocked: { readonly letter: string; readonly times: readonly number[] } | null;
  /** No-water hours. */
  readonly dry: readonly DryStretch[];
  /** Times at which the site's rules forbid watering. */
  readonly ruledOut: readonly RuledOut[];
  /** Mowing days. */
  readonly mowing: readonly Weekday[];
  /** Clock change at the site in this night; null: none. */
  readonly change: ClockChange | null;
  /** Events in this night from people, weather and power. */
  readonly marks: readonly Mark[];
  /** The current time on the timer's clock. */
  readonly now: ClockSecond;
}

const secondOfDay = (moment: ClockSecond) => moment % SECONDS_PER_DAY;

/** The night's cycles: each can be dragged, and moved by keyboard. */
function Cycles({
  cycles,
  clock,
  stepMinutes,
  moves: { moving, handlers },
}: {
  readonly cycles: readonly CycleShape[];
  readonly clock: ClockStyle;
  readonly stepMinutes: number;
  readonly moves: ReturnType<typeof useMoves>;
}) {
  const time = (moment: ClockSecond) => timeWords(secondOfDay(moment), clock);
  return cycles.map((cycle, i) => {
    const place = cycles.slice(0, i).filter(({ letter }) => letter === cycle.letter).length;
    const isMoving = moving === `${cycle.letter}${cycle.start}`;
    return (
      <g
        // Keyed by position, not time, because a block being moved must stay the same element.
        key={`${cycle.letter}${place}`}
        className={isMoving ? 'strip-cycle strip-cycle-moving' : 'strip-cycle'}
        tabIndex={0}
        role="slider"
        aria-label={say`Start time of ${cycle.letter}. Arrows move it ${stepMinutes} minutes; Enter shows seconds`}
        aria-valuemin={0}
        aria-valuemax={1439}
        aria-valuenow={secondOfDay(cycle.begins) / 60}
        aria-valuetext={
          cycle.overlapped
            ? say`${time(cycle.begins)} to ${time(cycle.ends)}, overlaps`
            : say`${time(cycle.begins)} to ${time(cycle.ends)}`
        }
        {...handlers(cycle)}
      >
        <rect
          x={cycle.x}
          y={cycle.y - 4}
          width={Math.max(cycle.width, STRIP.leastGrip)}
          height={cycle.height + 8}
          fill="transparent"
        />
        <rect
          x={cycle.x}
          y={cycle.y}
          width={Math.max(2, cycle.width)}
          height={cycle.height}
          className="strip-extent"
        />
        <CycleRuns cycle={cycle} />
      </g>
    );
  });
}

/** The large strip: one night from afternoon to afternoon, a row for each program. Pinch to stretch it. */
export const NightStrip = memo(function NightStrip(props: NightStripProps) {
  const { night, letters, sun, clock, now, blocked, change, ruledOut, mowing, stepMinutes } = props;
  const { marks } = props;
  const [ref, room] = useWidth<HTMLDivElement>();
  const { zoom, reset } = usePinch(ref);
  const width = Math.floor(room * zoom);
  const rowHeight = rowHeightOf(letters.length, room);
  const geometry = useMemo(
    () => stripGeometry(night, letters, sun, { width, rowHeight, head: STRIP.head }),
    [night, letters, sun, width, rowHeight],
  );
  const labels = useMemo(
    () =>
      placedLabels(
        labelsOf(geometry, { night, sun, clock, ruledOut, mowing, change, marks }),
        geometry.width,
      ),
    [geometry, night, sun, clock, ruledOut, mowing, change, marks],
  );
  const moves = useMoves(props, stepMinutes, SECONDS_PER_DAY / Math.max(1, width));
  const height = geometry.height + STRIP.foot;
  return (
    <div className="strip">
      <svg width={STRIP.letters} height={height} className="strip-letters" aria-hidden>
        <Letters geometry={geometry} reallyToo />
      </svg>
      <div ref={ref} className="strip-window">
        {room > 0 && (
          <svg width={width} height={height} role="group" aria-label={say`Night strip`}>
            <Ground geometry={geometry} sun={sun} />
            <DryHours geometry={geometry} dry={props.dry} />
            <RuledHours geometry={geometry} ruledOut={ruledOut} />
            <MowingDays geometry={geometry} night={night} mowing={mowing} />
            {change && <ChangedHour geometry={geometry} change={change} />}
            <Hours geometry={geometry} night={night} clock={clock} />
            {sun && <Sun geometry={geometry} sun={sun} />}
            <Rows geometry={geometry} />
            {blocked && (
              <BlockedTimes
                geometry={geometry}
                night={night}
                blocked={blocked}
                stepMinutes={stepMinutes}
              />
            )}
            <Cycles
              cycles={geometry.cycles}
              clock={clock}
              stepMinutes={stepMinutes}
              moves={moves}
            />
            <Overlaps geometry={geometry} />
            <ReallyRuns geometry={geometry} />
            <Marks geometry={geometry} marks={marks} />
            <Labels labels={labels} />
            {now >= night.from && now < night.to && <Now geometry={geometry} now={now} />}
          </svg>
        )}
      </div>
      {zoom > 1 && (
        <Button className="strip-whole" size="small" onClick={reset}>{say`Whole night`}</Button>
      )}
    </div>
  );
});
