import { Fragment, useMemo, useState } from 'react';
import { Button } from 'antd';
import { LeftOutlined, RightOutlined } from '@ant-design/icons';
import {
  dateWords,
  programsByLetter,
  SECONDS_PER_DAY,
  type EpochDay,
  type Night,
  say,
  weekdayName,
  weekdayIndexOf,
} from '@water-clock/core';
import type { Site } from '../../data/api/sites.ts';
import { nameOf, type HouseTimer } from '../../data/api/houses.ts';
import { NightBlocks } from '../../shared/charts/NightBlocks.tsx';
import { OVERLAP_FILL, Patterns, ProgramBadge } from '../../shared/charts/patterns.tsx';
import { stripGeometry, type Span } from '../../shared/charts/stripGeometry.ts';
import { hourWords } from '../../shared/charts/stripLayers.tsx';
import { sunOf } from '../../shared/charts/sun.ts';
import { useWidth } from '../../shared/charts/useWidth.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';

const ROW = 28;

interface Props {
  readonly site: Site;
  readonly timers: readonly HouseTimer[];
  readonly nights: Readonly<Record<string, readonly Night[]>>;
  readonly tonight: EpochDay;
}

/** Times in a night at which two timers both water. */
function bothRun(all: readonly Night[]): readonly { from: number; to: number }[] {
  return all.flatMap((night, i) =>
    all
      .slice(i + 1)
      .flatMap((other) =>
        night.intended.flatMap((a) =>
          other.intended.flatMap((b) =>
            a.begins < b.ends && b.begins < a.ends
              ? [{ from: Math.max(a.begins, b.begins), to: Math.min(a.ends, b.ends) }]
              : [],
          ),
        ),
      ),
  );
}

/** One night of the whole site: every timer's programs, and where two timers run at once. */
export function HouseNight({ site, timers, nights, tonight }: Props) {
  const { clock, order } = usePreferences();
  const [ahead, setAhead] = useState(0);
  const [ref, width] = useWidth<HTMLDivElement>();
  const shown = useMemo(
    () =>
      timers.flatMap((timer) => {
        const night = nights[timer.id]?.[ahead];
        return night ? [{ timer, night }] : [];
      }),
    [timers, nights, ahead],
  );
  const most = Math.max(1, ...Object.values(nights).map(({ length }) => length)) - 1;
  const [first] = shown;
  if (!first) return null;
  const sun = sunOf(first.night, site);
  const scaled = stripGeometry(first.night, [], sun, { width, rowHeight: ROW, head: 0 });
  const shared: readonly Span[] = bothRun(shown.map(({ night }) => night)).map(({ from, to }) =>
    scaled.span(from, to),
  );
  const day = tonight + ahead;
  const [evening, morning] = [dateWords(day, tonight, order), weekdayName(weekdayIndexOf(day + 1))];
  const words =
    ahead === 0 ? say`Tonight, ${evening} into ${morning}` : say`${evening} into ${morning}`;
  return (
    <section className="stack near house-night" aria-label={say`Night at this site, all timers`}>
      <Patterns />
      <div className="row near in-line">
        <Button
          icon={<LeftOutlined />}
          aria-label={say`Previous night`}
          disabled={ahead === 0}
          onClick={() => setAhead(ahead - 1)}
        />
        <strong>{words}</strong>
        <Button
          icon={<RightOutlined />}
          aria-label={say`Next night`}
          disabled={ahead >= most}
          onClick={() => setAhead(ahead + 1)}
        />
      </div>
      <div className="house-strip">
        {shown.map(({ timer, night }) => {
          const letters = programsByLetter(timer.plan)
            .map(({ letter }) => letter)
            .filter((letter) => night.intended.some((cycle) => cycle.letter === letter));
          const rows = letters.length > 0 ? letters : [''];
          const height = rows.length * ROW;
          const geometry = stripGeometry(night, rows, sun, { width, rowHeight: ROW, head: 0 });
          return (
            <Fragment key={timer.id}>
              <div className="house-strip-name">{nameOf(timer)}</div>
              <div className="house-strip-letters">
                {letters.map((letter) => (
                  <ProgramBadge key={letter} letter={letter} size={ROW - 6} />
                ))}
              </div>
              <div className="house-strip-row" style={{ height }}>
                {width > 0 && (
                  <NightBlocks
                    geometry={geometry}
                    width={width}
                    height={height}
                    withSun={sun !== null}
                  >
                    {shared.map(({ x, width: seen }) => (
                      <rect
                        key={x}
                        x={x}
                        y={0}
                        width={Math.max(4, seen)}
                        height={height}
                        fill={OVERLAP_FILL}
                        stroke="var(--ink)"
                        strokeWidth={1.5}
                      />
                    ))}
                  </NightBlocks>
                )}
              </div>
            </Fragment>
          );
        })}
        <div />
        <div />
        <div ref={ref} className="house-strip-hours">
          <svg width={width} height={20} aria-hidden>
            {scaled.ticks
              .filter(({ at, named }) => named && at > first.night.from && at < first.night.to)
              .map(({ x, at }) => (
                <text key={at} x={x} y={14} textAnchor="middle" className="house-strip-hour">
                  {hourWords(at % SECONDS_PER_DAY, clock, width)}
                </text>
              ))}
          </svg>
        </div>
      </div>
      <p className="soft">
        {shown
          .map(
            ({ timer, night }) =>
              `${nameOf(timer)}: ${[...new Set(night.intended.map(({ letter }) => letter))].sort().join(' ') || say`dry`}`,
          )
          .join('; ')}
        . {shared.length > 0 && say`Hatched: two timers run at once.`}
      </p>
    </section>
  );
}
