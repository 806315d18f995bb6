import { memo, useMemo, useState, type KeyboardEvent } from 'react';
import {
  civilOf,
  dateWords,
  monthName,
  parseDate,
  weekdayIndexOf,
  type EpochDay,
  type Forbidden,
  type DateOrder,
  type YearDay,
  say,
} from '@water-clock/core';
import { Disclosure } from '../fields/Disclosure.tsx';
import { colourOf, fillOf, OVERLAP_FILL } from './patterns.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { useWidth } from './useWidth.ts';
import { DateField } from '../fields/DateField.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';

const FORBIDDEN = { fill: 'none', stroke: 'var(--alarm)', strokeWidth: 1.5 } as const;
/** A program whose interval phase is not known may water on this date. */
const POSSIBLE = { fillOpacity: 0.35, strokeWidth: 1.5 } as const;
/** Due, but held back. */
const HELD = { strokeDasharray: '3 2', strokeWidth: 1.5 } as const;

interface Props {
  readonly year: readonly YearDay[];
  readonly today: EpochDay;
  readonly letters: readonly string[];
  /** Programs whose interval phase is not known: each date is only a possible one. */
  readonly possible: readonly string[];
  /** The night on the large strip. */
  readonly chosen: EpochDay;
  /** Moves to a date without showing its night. */
  readonly mark: (night: EpochDay) => void;
  /** Shows a night on the large strip. */
  readonly choose: (night: EpochDay) => void;
}

const GUTTER = 40;
const HEAD = 18;

const FORBIDDEN_WORDS: Record<Forbidden, string> = {
  off: say`off day of the month`,
  delay: say`rain delay`,
  hours: say`no watering allowed all day`,
};

/** `A C, B may water`. */
const programWords = ({ programs }: YearDay, possible: readonly string[]): string => {
  const sure = programs.filter((letter) => !possible.includes(letter)).join(' ');
  const maybe = programs.filter((letter) => possible.includes(letter)).join(' ');
  return [sure, maybe && say`${maybe} may water`].filter(Boolean).join(', ');
};

const overlapWords = ({ overlaps, programs }: YearDay, possible: readonly string[]): string => {
  if (!overlaps) return '';
  return programs.some((letter) => possible.includes(letter))
    ? say`possible overlap`
    : say`overlap`;
};

function summaryWords(wet: number, overlaps: number, isPossible: boolean): string {
  if (overlaps === 0)
    return isPossible
      ? say`Up to ${wet} watering dates in the coming year. Press a date to see that night.`
      : say`${wet} watering dates in the coming year. Press a date to see that night.`;
  return isPossible
    ? say`Up to ${wet} watering dates in the coming year, and up to ${overlaps} of them with an overlap. Press a date to see that night.`
    : say`${wet} watering dates in the coming year, ${overlaps} of them with an overlap. Press a date to see that night.`;
}

/** A date as text. */
function yearDayWords(
  yearDay: YearDay,
  possible: readonly string[],
  today: EpochDay,
  order: DateOrder,
): string {
  const { day, programs, held, forbidden } = yearDay;
  const parts = [
    programs.length > 0 ? programWords(yearDay, possible) : say`dry`,
    overlapWords(yearDay, possible),
    held.length > 0 && say`${held.join(' ')} held back`,
    forbidden !== null && FORBIDDEN_WORDS[forbidden],
  ];
  return `${dateWords(day, today, order)}: ${parts.filter(Boolean).join(', ')}`;
}

/** Months from a date on, as many as the days reach into. */
function monthsOf(year: readonly YearDay[]): { key: string; name: string; days: YearDay[] }[] {
  const months: { key: string; name: string; days: YearDay[] }[] = [];
  for (const yearDay of year) {
    const { year: y, month } = civilOf(yearDay.day);
    const key = `${y}-${month}`;
    const last = months.at(-1);
    if (last?.key === key) last.days.push(yearDay);
    else months.push({ key, name: monthName(month).slice(0, 3), days: [yearDay] });
  }
  return months;
}

/** A year of dates, a row for each month: which programs water, overlaps, and off dates. Press a date to show its night. */
export const YearChart = memo(function YearChart(props: Props) {
  const { year, today, letters, possible, chosen, mark, choose } = props;
  const { order } = usePreferences();
  const [ref, width] = useWidth<HTMLDivElement>();
  const months = useMemo(() => monthsOf(year), [year]);
  const cell = Math.max(6, (width - GUTTER) / 31);
  const row = Math.max(width > 700 ? 26 : 22, Math.min(34, letters.length * 5 + 8));
  const used = letters.filter((letter) =>
    year.some(({ programs, held }) => programs.includes(letter) || held.includes(letter)),
  );
  const bar = (row - 6) / Math.max(1, used.length);
  const overlaps = year.filter((yearDay) => yearDay.overlaps).length;
  const wet = year.filter(({ programs }) => programs.length > 0).length;
  // The address, and with it the selection, may follow a key press a moment later.
  const [marked, setMarked] = useState({ night: chosen, of: chosen });
  const at = marked.of === chosen ? marked.night : chosen;
  const focused = year.find(({ night }) => night === at) ?? year[0];
  const move = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && focused) return choose(focused.night);
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 30, ArrowUp: -30 }[event.key];
    if (by === undefined || !focused) return;
    event.preventDefault();
    const next = year[Math.max(0, Math.min(year.length - 1, year.indexOf(focused) + by))];
    if (!next) return;
    setMarked({ night: next.night, of: chosen });
    mark(next.night);
  };
  return (
    <div className="year stack near">
      <p className="soft">
        {summaryWords(
          wet,
          overlaps,
          used.some((letter) => possible.includes(letter)),
        )}
      </p>
      <DateField
        label={say`Go to a date`}
        value=""
        commit={(date) => {
          const chosen = parseDate(date);
          if (chosen !== null) choose(year.find(({ day }) => day === chosen)?.night ?? chosen - 1);
        }}
      />
      <div ref={ref}>
        {width > 0 && (
          <svg
            width={width}
            height={HEAD + months.length * row}
            tabIndex={0}
            role="slider"
            className="year-chart"
            aria-label={say`A year of dates. Arrow keys move between dates; Enter shows the night`}
            aria-valuemin={0}
            aria-valuemax={year.length - 1}
            aria-valuenow={focused ? year.indexOf(focused) : 0}
            aria-valuetext={focused ? yearDayWords(focused, possible, today, order) : ''}
            onKeyDown={move}
          >
            {[1, 8, 15, 22, 29].map((day) => (
              <text
                key={day}
                className="soft small"
                x={GUTTER + (day - 0.5) * cell}
                y={12}
                textAnchor="middle"
              >
                {day}
              </text>
            ))}
            {months.map(({ key, name, days }, i) => {
              const y = HEAD + i * row;
              return (
                <g key={key}>
                  <text className="soft small" x={0} y={y + row / 2 + 4}>
                    {name}
                  </text>
                  {days.map((yearDay) => {
                    const x = GUTTER + (civilOf(yearDay.day).day - 1) * cell;
                    const isMarked = yearDay.night === at;
                    const isWeekend = weekdayIndexOf(yearDay.day) > 4;
                    return (
                      <g
                        key={yearDay.day}
                        className="pressed"
                        onClick={() => choose(yearDay.night)}
                      >
                        <rect
                          x={x}
                          y={y}
                          width={cell - 1}
                          height={row - 2}
                          fill={isWeekend ? 'var(--strip-night)' : 'var(--sheet)'}
                          stroke={isMarked ? 'var(--accent)' : 'var(--line)'}
                          strokeWidth={isMarked ? 3 : 1}
                        />
                        {yearDay.forbidden && (
                          <path
                            d={`M${x + 2} ${y + row - 4}L${x + cell - 3} ${y + 2}M${x + 2} ${y + 2}L${x + cell - 3} ${y + row - 4}`}
                            className="year-forbidden"
                            {...FORBIDDEN}
                          />
                        )}
                        {used.map((letter, n) => {
                          const waters = yearDay.programs.includes(letter);
                          if (!waters && !yearDay.held.includes(letter)) return null;
                          return (
                            <rect
                              key={letter}
                              x={x + 1.5}
                              y={y + 2 + n * bar}
                              width={Math.max(2, cell - 4)}
                              height={Math.max(2, bar - 1)}
                              fill={waters ? fillOf(letter) : 'none'}
                              stroke={
                                waters && !possible.includes(letter) ? 'none' : colourOf(letter)
                              }
                              {...(!waters ? HELD : possible.includes(letter) ? POSSIBLE : {})}
                            />
                          );
                        })}
                        {yearDay.overlaps && (
                          <rect
                            x={x}
                            y={y}
                            width={cell - 1}
                            height={row - 2}
                            fill={OVERLAP_FILL}
                            className="year-overlap"
                            stroke="var(--ink)"
                            strokeWidth={1.5}
                          />
                        )}
                      </g>
                    );
                  })}
                </g>
              );
            })}
          </svg>
        )}
      </div>
      <p className="row near">
        {used.map((letter) => (
          <span key={letter}>
            <svg width="22" height="14" aria-hidden>
              <rect
                x="1"
                y="1"
                width="20"
                height="12"
                fill={fillOf(letter)}
                {...(possible.includes(letter) ? { stroke: colourOf(letter), ...POSSIBLE } : {})}
              />
            </svg>{' '}
            {possible.includes(letter) ? say`${letter} may water` : say`${letter} waters`}
          </span>
        ))}
        {year.some(({ held }) => held.length > 0) && (
          <span>
            <svg width="22" height="14" aria-hidden>
              <rect x="1" y="1" width="20" height="12" stroke="var(--ink)" fill="none" {...HELD} />
            </svg>{' '}
            {say`due but held back`}
          </span>
        )}
        {overlaps > 0 && (
          <span>
            <svg width="22" height="14" aria-hidden>
              <rect width="22" height="14" fill={OVERLAP_FILL} stroke="var(--ink)" />
            </svg>{' '}
            {say`overlap`}
          </span>
        )}
        {year.some(({ forbidden }) => forbidden !== null) && (
          <span>
            <svg width="22" height="14" aria-hidden>
              <path d="M4 12 18 2M4 2 18 12" {...FORBIDDEN} />
            </svg>{' '}
            {say`no watering allowed`}
          </span>
        )}
      </p>
      <Disclosure summary={say`Year as a table`}>
        {() => <YearTable year={year} possible={possible} today={today} />}
      </Disclosure>
    </div>
  );
});

function YearTable({ year, possible, today }: Pick<Props, 'year' | 'possible' | 'today'>) {
  const { order } = usePreferences();
  return (
    <Scroll label={say`Year as a table`} className="night-table">
      <table className="data">
        <thead>
          <tr>
            <th>{say`Date`}</th>
            <th>{say`Programs`}</th>
            <th>{say`Overlap`}</th>
            <th>{say`Held back`}</th>
            <th>{say`No watering allowed`}</th>
          </tr>
        </thead>
        <tbody>
          {year
            .filter(
              ({ programs, held, forbidden }) => programs.length + held.length > 0 || forbidden,
            )
            .map((yearDay) => (
              <tr key={yearDay.day}>
                <td>{dateWords(yearDay.day, today, order)}</td>
                <td>{programWords(yearDay, possible)}</td>
                <td>{overlapWords(yearDay, possible) || say`none`}</td>
                <td>{yearDay.held.join(' ')}</td>
                <td>{yearDay.forbidden && FORBIDDEN_WORDS[yearDay.forbidden]}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </Scroll>
  );
}
