import { memo, useMemo } from 'react';
import {
  lengthWords,
  SECONDS_PER_DAY,
  timeWords,
  WEEKDAYS,
  weekdayIndexOf,
  weekdayName,
  type ClockChange,
  type ClockSecond,
  type ClockStyle,
  type DryStretch,
  type Night,
  type Weekday,
  type RuledOut,
} from '@water-clock/core';
import { blockedSpans, blocksOf, stripGeometry, type StripGeometry } from './stripGeometry.ts';
import { colourOf, fillOf, BLOCKED_FILL, DRY_FILL, OVERLAP_FILL } from './patterns.tsx';
import type { NightSun } from './sun.ts';
import { useMoves, type MoveOutcome } from './useMoves.ts';
import { useWidth } from './useWidth.ts';
import './strip.css';

export interface NightStripProps extends MoveOutcome {
  readonly night: Night;
  readonly letters: readonly string[];
  readonly sun: NightSun | null;
  readonly clock: ClockStyle;
  readonly stepMinutes: number;
  /** Where the start being dragged may not be dropped; null while none is dragged. */
  readonly blocked: { readonly letter: string; readonly times: readonly number[] } | null;
  /** Hours without water. */
  readonly dry: readonly DryStretch[];
  /** When the rules of the place do not allow watering. */
  readonly ruledOut: readonly RuledOut[];
  /** Weekdays on which the lawns are mown. */
  readonly mowing: readonly Weekday[];
  /** Of the house's clocks, in this night; null: none. */
  readonly change: ClockChange | null;
  /** Where the present moment is, on the timer's clock. */
  readonly now: ClockSecond;
}

const secondOfDay = (moment: ClockSecond) => moment % SECONDS_PER_DAY;
const FOOT = 22;

/** Pixels of a strip below which its hours stand too close for the long word. */
const ROOM_FOR_MIDNIGHT = 560;

/** Pixels that the words for what is not allowed take. */
const ROOM_FOR_RULES = 170;

/** A full hour under the strip; midnight by name, so that nobody takes it for noon. */
function hourWords(second: number, clock: ClockStyle, room: number): string {
  if (second === 0 && room > ROOM_FOR_MIDNIGHT) return 'midnight';
  return clock === '12' ? timeWords(second, clock).replace(':00', '') : timeWords(second, clock);
}

function SunMarks({
  geometry,
  sun,
  clock,
}: {
  geometry: StripGeometry;
  sun: NightSun;
  clock: ClockStyle;
}) {
  const mark = (at: ClockSecond | null, name: string) =>
    at === null ? null : (
      <g className="strip-sun">
        <line x1={geometry.scale(at)} x2={geometry.scale(at)} y1={12} y2={geometry.height} />
        <text x={geometry.scale(at)} y={10} textAnchor="middle">
          {name} {timeWords(Math.round(secondOfDay(at) / 60) * 60, clock)}
        </text>
      </g>
    );
  return (
    <>
      {mark(sun.sunset, 'sunset')}
      {mark(sun.sunrise, 'sunrise')}
    </>
  );
}

/** The hour that a change of the house's clocks skips or repeats. */
function ChangeMark({
  geometry,
  change: { day, from, to },
  clock,
}: {
  geometry: StripGeometry;
  change: ClockChange;
  clock: ClockStyle;
}) {
  const [begin, end] = [Math.min(from, to), Math.max(from, to)].map((second) =>
    geometry.scale(day * SECONDS_PER_DAY + second),
  );
  if (begin === undefined || end === undefined || end - begin < 1) return null;
  return (
    <g className="strip-change">
      <rect x={begin} y={34} width={end - begin} height={geometry.height - 34} />
      <text x={(begin + end) / 2} y={28} textAnchor="middle">
        {timeWords(from, clock)} becomes {timeWords(to, clock)}
      </text>
    </g>
  );
}

/** Width of a letter of the strip's type in pixels, rounded up. */
const WIDTH_OF_A_DIGIT = 7.6;

/** The parts of a night that are on mowing days. */
function mowingSpans({ from, to }: Night, mowing: readonly Weekday[]) {
  const midnight = (Math.floor(from / SECONDS_PER_DAY) + 1) * SECONDS_PER_DAY;
  return [
    { from, to: midnight },
    { from: midnight, to },
  ].filter((part) => {
    const weekday = WEEKDAYS[weekdayIndexOf(Math.floor(part.from / SECONDS_PER_DAY))];
    return weekday !== undefined && mowing.includes(weekday);
  });
}

/** Room that a station's number takes inside its run. */
const widthOfNumber = (station: number) => (station < 10 ? 14 : 22);

/** The large strip: one night from afternoon to afternoon, a row for each program. */
export const NightStrip = memo(function NightStrip(props: NightStripProps) {
  const { night, letters, sun, clock, now, blocked, dry, change } = props;
  const [ref, width] = useWidth<HTMLDivElement>();
  const rowHeight = letters.length > 6 ? 26 : 36;
  const geometry = useMemo(
    () => stripGeometry(night, letters, sun, { width, gutter: 34, rowHeight, head: 34 }),
    [night, letters, sun, width, rowHeight],
  );
  const secondsPerPixel = SECONDS_PER_DAY / Math.max(1, width - 34);
  const { moving, handlers } = useMoves(props, props.stepMinutes, secondsPerPixel);
  const time = (moment: ClockSecond) => timeWords(secondOfDay(moment), clock);
  const left = 34;
  return (
    <div ref={ref} className="strip">
      {width > 0 && (
        <svg
          width={width}
          height={geometry.height + FOOT}
          role="group"
          aria-label="Night strip; a table of the same stands below it"
        >
          <rect
            x={left}
            y={34}
            width={width - left}
            height={geometry.height - 34}
            fill={sun ? 'var(--strip-day)' : 'var(--sheet)'}
          />
          {geometry.dark && (
            <rect
              {...geometry.dark}
              y={34}
              height={geometry.height - 34}
              fill="var(--strip-night)"
            />
          )}
          {dry.map(({ letter, from, to }) => {
            const y = geometry.rows.find((row) => row.letter === letter)?.y;
            if (letter !== null && y === undefined) return null;
            return (
              <rect
                key={`${letter}${from}`}
                x={geometry.scale(from)}
                y={y ?? 34}
                width={Math.max(1, geometry.scale(to) - geometry.scale(from))}
                height={letter === null ? geometry.height - 34 : rowHeight}
                fill={DRY_FILL}
              />
            );
          })}
          {props.ruledOut.map(({ from, to }) => (
            <g key={from} className="strip-ruled">
              <rect
                x={geometry.scale(from)}
                y={34}
                width={geometry.scale(to) - geometry.scale(from)}
                height={geometry.height - 34}
                fill={DRY_FILL}
              />
              <rect
                className="strip-ruled-edge"
                x={geometry.scale(from)}
                y={30}
                width={geometry.scale(to) - geometry.scale(from)}
                height={4}
              />
              {geometry.scale(to) - geometry.scale(from) > ROOM_FOR_RULES && (
                <text x={geometry.scale(from) + 6} y={geometry.height - 11}>
                  not allowed by the rules
                </text>
              )}
            </g>
          ))}
          {mowingSpans(night, props.mowing).map(({ from, to }) => (
            <g key={from} className="strip-mowing">
              <rect
                x={geometry.scale(from)}
                y={geometry.height - 7}
                width={geometry.scale(to) - geometry.scale(from)}
                height={7}
              />
              <text
                x={geometry.scale(to === night.to ? to : from) + (to === night.to ? -6 : 6)}
                y={geometry.height - 11}
                textAnchor={to === night.to ? 'end' : 'start'}
              >
                mown {weekdayName(weekdayIndexOf(Math.floor(from / SECONDS_PER_DAY)))}
              </text>
            </g>
          ))}
          {change && <ChangeMark geometry={geometry} change={change} clock={clock} />}
          {geometry.ticks.map(({ x, at, named }) => (
            <g key={at} className={named ? 'strip-tick strip-tick-named' : 'strip-tick'}>
              <line x1={x} x2={x} y1={34} y2={geometry.height + (named ? 4 : 0)} />
              {named && at > night.from && at < night.to && (
                <text x={x} y={geometry.height + 18} textAnchor="middle">
                  {hourWords(secondOfDay(at), clock, width)}
                </text>
              )}
            </g>
          ))}
          {sun && <SunMarks geometry={geometry} sun={sun} clock={clock} />}
          {geometry.rows.map(({ letter, y }) => (
            <g key={letter}>
              <line
                x1={left}
                x2={width}
                y1={y + rowHeight}
                y2={y + rowHeight}
                className="strip-row"
              />
              <rect x={2} y={y + 4} width={26} height={rowHeight - 8} fill={fillOf(letter)} />
              <text x={15} y={y + rowHeight / 2 + 6} className="strip-letter" textAnchor="middle">
                {letter}
              </text>
            </g>
          ))}
          {blocked &&
            blockedSpans(night, blocked.times, props.stepMinutes, geometry.scale).map((span) => (
              <g key={span.x} className="strip-blocked">
                <rect
                  {...span}
                  y={geometry.rows.find(({ letter }) => letter === blocked.letter)?.y ?? 0}
                  height={rowHeight}
                  fill={BLOCKED_FILL}
                />
              </g>
            ))}
          {geometry.cycles.map((cycle, i) => {
            const name = `${cycle.letter}${cycle.start}`;
            const before = geometry.cycles.slice(0, i);
            const place = before.filter((cycleShape) => cycleShape.letter === cycle.letter).length;
            const times = `${time(cycle.begins)} – ${time(cycle.ends)}`;
            const room = width - (cycle.x + cycle.width) > times.length * WIDTH_OF_A_DIGIT + 6;
            return (
              <g
                // By position, not by time: a block that is being moved must stay the same element.
                key={`${cycle.letter}${place}`}
                className={moving === name ? 'strip-cycle strip-cycle-moving' : 'strip-cycle'}
                tabIndex={0}
                role="slider"
                aria-label={`Start of ${cycle.letter}; left and right move it by ${props.stepMinutes} minutes, Enter shows it to the second`}
                aria-valuemin={0}
                aria-valuemax={1439}
                aria-valuenow={secondOfDay(cycle.begins) / 60}
                aria-valuetext={`${time(cycle.begins)} to ${time(cycle.ends)}${cycle.overlapped ? ', overlaps' : ''}`}
                {...handlers(cycle)}
              >
                <rect
                  x={cycle.x}
                  y={cycle.y - 4}
                  width={Math.max(cycle.width, 24)}
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
                {blocksOf(cycle).map((run) => (
                  <g key={`${run.station}${run.x}`}>
                    <rect
                      x={run.x}
                      y={run.y}
                      width={Math.max(1, run.width)}
                      height={run.height}
                      fill={fillOf(cycle.letter)}
                      className="strip-run"
                    />
                    {run.station > 0 &&
                      run.width >= widthOfNumber(run.station) &&
                      run.height > 11 && (
                        <text
                          x={run.x + run.width / 2}
                          y={run.y + run.height / 2 + 5}
                          textAnchor="middle"
                          className="strip-station"
                          stroke={colourOf(cycle.letter)}
                        >
                          {run.station}
                        </text>
                      )}
                  </g>
                ))}
                <text
                  x={room ? cycle.x + Math.max(2, cycle.width) + 6 : cycle.x - 6}
                  y={cycle.y + cycle.height / 2 + 5}
                  textAnchor={room ? 'start' : 'end'}
                  className="strip-times"
                >
                  {times}
                </text>
              </g>
            );
          })}
          {geometry.overlaps.map((overlap, i) => (
            <g key={`${overlap.letters}${overlap.x}`} className="strip-overlap">
              <rect
                x={overlap.x}
                y={overlap.y}
                width={overlap.width}
                height={overlap.height}
                fill={OVERLAP_FILL}
              />
              <rect
                x={overlap.x}
                y={overlap.y}
                width={overlap.width}
                height={overlap.height}
                className="strip-overlap-frame"
              />
              {(i === 0 || !night.condensed) && (
                <text
                  x={Math.min(Math.max(overlap.x + overlap.width / 2, 90), width - 70)}
                  y={28}
                  textAnchor="middle"
                  className="strip-overlap-label"
                >
                  {overlap.letters.split('').join(' and ')} overlap {lengthWords(overlap.seconds)}
                </text>
              )}
            </g>
          ))}
          {geometry.really && (
            <g>
              <text x={2} y={geometry.really.y + rowHeight / 2} className="strip-really">
                runs
              </text>
              {geometry.really.runs.map((run, i) => (
                <rect
                  key={i}
                  x={run.x}
                  y={run.y}
                  width={Math.max(1, run.width)}
                  height={run.height}
                  fill={fillOf(run.letter)}
                  className="strip-run"
                />
              ))}
            </g>
          )}
          {now >= night.from && now < night.to && (
            <line
              x1={geometry.scale(now)}
              x2={geometry.scale(now)}
              y1={30}
              y2={geometry.height}
              className="strip-now"
            />
          )}
        </svg>
      )}
    </div>
  );
});
