/** Layers of the night strip, bottom to top. */
import {
  SECONDS_PER_DAY,
  timeWords,
  WEEKDAYS,
  weekdayIndexOf,
  type ClockChange,
  type ClockSecond,
  type ClockStyle,
  type DryStretch,
  type Night,
  type RuledOut,
  type Weekday,
  say,
} from '@water-clock/core';
import { colourOf, BLOCKED_FILL, DRY_FILL, fillOf, OVERLAP_FILL } from './patterns.tsx';
import {
  blockedSpans,
  blocksOf,
  STRIP,
  type CycleShape,
  type Span,
  type StripGeometry,
} from './stripGeometry.ts';
import type { NightSun } from './sun.ts';

interface Layer {
  readonly geometry: StripGeometry;
}

export const secondOfDay = (moment: ClockSecond) => moment % SECONDS_PER_DAY;

/** Day and night. */
export function Ground({ geometry, sun }: Layer & { readonly sun: NightSun | null }) {
  const rows = { y: STRIP.head, height: geometry.height - STRIP.head };
  return (
    <>
      <rect {...rows} width={geometry.width} fill={sun ? 'var(--strip-day)' : 'var(--sheet)'} />
      {geometry.dark && <rect {...rows} {...geometry.dark} fill="var(--strip-night)" />}
    </>
  );
}

/** No-water hours, of the timer or one program. */
export function DryHours({ geometry, dry }: Layer & { readonly dry: readonly DryStretch[] }) {
  return dry.map(({ letter, from, to }) => {
    const y = geometry.rows.find((row) => row.letter === letter)?.y;
    if (letter !== null && y === undefined) return null;
    return (
      <rect
        key={`${letter}${from}`}
        {...geometry.span(from, to)}
        y={y ?? STRIP.head}
        height={letter === null ? geometry.height - STRIP.head : geometry.rowHeight}
        fill={DRY_FILL}
      />
    );
  });
}

/** Times at which the site's rules forbid watering. */
export function RuledHours({
  geometry,
  ruledOut,
}: Layer & { readonly ruledOut: readonly RuledOut[] }) {
  return ruledOut.map(({ from, to }) => (
    <g key={from} className="strip-ruled">
      <rect
        {...geometry.span(from, to)}
        y={STRIP.head}
        height={geometry.height - STRIP.head}
        fill={DRY_FILL}
      />
      <rect
        fill="var(--ink)"
        {...geometry.span(from, to)}
        y={STRIP.head - STRIP.edge}
        height={STRIP.edge}
      />
    </g>
  ));
}

/** Parts of a night that fall on mowing days. */
export function mowingSpans({ from, to }: Night, mowing: readonly Weekday[]) {
  const midnight = (Math.floor(from / SECONDS_PER_DAY) + 1) * SECONDS_PER_DAY;
  return [
    { from, to: midnight },
    { from: midnight, to },
  ].filter((part) => {
    const weekday = WEEKDAYS[weekdayIndexOf(Math.floor(part.from / SECONDS_PER_DAY))];
    return weekday !== undefined && mowing.includes(weekday);
  });
}

export function MowingDays({
  geometry,
  night,
  mowing,
}: Layer & { readonly night: Night; readonly mowing: readonly Weekday[] }) {
  return mowingSpans(night, mowing).map(({ from, to }) => (
    <rect
      key={from}
      fill="var(--ink-soft)"
      {...geometry.span(from, to)}
      y={geometry.height - STRIP.mowing}
      height={STRIP.mowing}
    />
  ));
}

export const changeSpan = (geometry: StripGeometry, { day, from, to }: ClockChange): Span =>
  geometry.span(
    day * SECONDS_PER_DAY + Math.min(from, to),
    day * SECONDS_PER_DAY + Math.max(from, to),
  );

/** The hour that a clock change skips or repeats. */
export function ChangedHour({ geometry, change }: Layer & { readonly change: ClockChange }) {
  const span = changeSpan(geometry, change);
  if (span.width < 1) return null;
  return (
    <rect
      className="strip-change"
      {...span}
      y={STRIP.head}
      height={geometry.height - STRIP.head}
      fill="none"
      stroke="var(--accent)"
      strokeWidth={2}
      strokeDasharray="5 4"
    />
  );
}

/** Full hours under the strip; midnight by name, so that no one takes it for noon. */
export function hourWords(second: number, clock: ClockStyle, room: number): string {
  if (second === 0 && room > STRIP.roomForMidnight) return say`midnight`;
  return clock === '12' ? timeWords(second, clock).replace(':00', '') : timeWords(second, clock);
}

export function Hours({
  geometry,
  night,
  clock,
}: Layer & { readonly night: Night; readonly clock: ClockStyle }) {
  return geometry.ticks.map(({ x, at, named }) => (
    <g key={at} stroke="var(--ink)" strokeOpacity={named ? 0.45 : 0.14}>
      <line x1={x} x2={x} y1={STRIP.head} y2={geometry.height + (named ? 4 : 0)} />
      {named && at > night.from && at < night.to && (
        <text x={x} y={geometry.height + STRIP.foot - 4} textAnchor="middle" stroke="none">
          {hourWords(secondOfDay(at), clock, geometry.width)}
        </text>
      )}
    </g>
  ));
}

export function Sun({ geometry, sun }: Layer & { readonly sun: NightSun }) {
  return [sun.sunset, sun.sunrise].map(
    (at) =>
      at !== null && (
        <line
          key={at}
          stroke="var(--ink)"
          strokeDasharray="2 3"
          x1={geometry.scale(at)}
          x2={geometry.scale(at)}
          y1={12}
          y2={geometry.height}
        />
      ),
  );
}

export function Rows({ geometry }: Layer) {
  return geometry.rows.map(({ letter, y }) => (
    <line
      key={letter}
      x2={geometry.width}
      y1={y + geometry.rowHeight}
      y2={y + geometry.rowHeight}
      stroke="var(--line)"
    />
  ));
}

/** The program letters, which stay while the rest is panned. */
export function Letters({ geometry, reallyToo }: Layer & { readonly reallyToo: boolean }) {
  const { rowHeight } = geometry;
  return (
    <>
      {geometry.rows.map(({ letter, y }) => (
        <g key={letter}>
          <rect x={2} y={y + 4} width={26} height={rowHeight - 8} fill={fillOf(letter)} />
          <text x={15} y={y + rowHeight / 2 + 6} className="strip-letter" textAnchor="middle">
            {letter}
          </text>
        </g>
      ))}
      {reallyToo && geometry.really && (
        <text x={0} y={geometry.really.y + rowHeight / 2} className="bold">{say`runs`}</text>
      )}
    </>
  );
}

/** Where the dragged start may not be dropped. */
export function BlockedTimes({
  geometry,
  night,
  blocked,
  stepMinutes,
}: Layer & {
  readonly night: Night;
  readonly blocked: { readonly letter: string; readonly times: readonly number[] };
  readonly stepMinutes: number;
}) {
  const y = geometry.rows.find(({ letter }) => letter === blocked.letter)?.y ?? 0;
  return blockedSpans(night, blocked.times, stepMinutes, geometry.scale).map((span) => (
    <g key={span.x} className="strip-blocked">
      <rect {...span} y={y} height={geometry.rowHeight} fill={BLOCKED_FILL} stroke="var(--alarm)" />
    </g>
  ));
}

/** The runs of a cycle, with station numbers where there is room. */
export function CycleRuns({ cycle }: { readonly cycle: CycleShape }) {
  return blocksOf(cycle).map((run) => (
    <g key={`${run.station}${run.x}`}>
      <rect
        x={run.x}
        y={run.y}
        width={Math.max(1, run.width)}
        height={run.height}
        fill={fillOf(cycle.letter)}
        className="strip-run"
        stroke="var(--sheet)"
      />
      {run.station > 0 &&
        run.width >= (run.station < 10 ? STRIP.roomForDigit : STRIP.roomForDigits) &&
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
  ));
}

export function Overlaps({ geometry }: Layer) {
  return geometry.overlaps.map(({ letters, x, y, width, height }) => {
    const box = { x, y, width, height };
    return (
      <g key={`${letters}${x}`} pointerEvents="none">
        <rect {...box} fill={OVERLAP_FILL} />
        <rect {...box} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
      </g>
    );
  });
}

/** What the timer really opens, if not what was intended. */
export function ReallyRuns({ geometry }: Layer) {
  return geometry.really?.runs.map((run, i) => (
    <rect
      key={i}
      x={run.x}
      y={run.y}
      width={Math.max(1, run.width)}
      height={run.height}
      fill={fillOf(run.letter)}
      className="strip-run"
      stroke="var(--sheet)"
    />
  ));
}

/** An event from people, weather or power at a moment of the strip. */
export interface Mark {
  readonly at: ClockSecond;
  readonly words: string;
}

export const markKey = ({ at, words }: Mark) => `${at} ${words}`;

export function Marks({
  geometry,
  marks,
  top = STRIP.head - 4,
}: Layer & { readonly marks: readonly Mark[]; readonly top?: number }) {
  return marks.map((mark) => (
    <line
      key={markKey(mark)}
      x1={geometry.scale(mark.at)}
      x2={geometry.scale(mark.at)}
      y1={top}
      y2={geometry.height}
      stroke="var(--accent)"
      strokeWidth={2}
      strokeDasharray="5 3"
    />
  ));
}

export function Now({ geometry, now }: Layer & { readonly now: ClockSecond }) {
  const x = geometry.scale(now);
  return (
    <line
      x1={x}
      x2={x}
      y1={STRIP.head - 4}
      y2={geometry.height}
      stroke="var(--accent)"
      strokeWidth={2}
    />
  );
}
