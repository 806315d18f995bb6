import type { HomeownerPage, WeekRun } from '@water-clock/core';
import { fillOf, ProgramBadge } from '../shared/charts/patterns.tsx';
import './pages.css';

const DAY_SECONDS = 86_400;
const WIDTH = 58;
const HEIGHT = 170;
const LEFT = 44;
const TOP = 22;

/** The week as day columns, midnight at the top; a table of the starts stands above it. */
function WeekPicture({
  days,
  hours,
  runs,
  label,
}: HomeownerPage['week'] & { readonly label: string }) {
  const at = (seconds: number) => TOP + (seconds / DAY_SECONDS) * HEIGHT;
  const block = (run: WeekRun, day: number, from: number, to: number) => (
    <rect
      key={`${day} ${from} ${run.program}`}
      x={LEFT + day * WIDTH}
      y={at(from)}
      width={WIDTH - 6}
      height={Math.max(2, at(to) - at(from))}
      fill={fillOf(run.program)}
    />
  );
  return (
    <svg
      width="100%"
      style={{ maxWidth: 640 }}
      viewBox={`0 0 ${LEFT + days.length * WIDTH} ${TOP + HEIGHT + 6}`}
      role="img"
      aria-label={label}
    >
      {days.map((day, i) => (
        <g key={day}>
          <rect
            x={LEFT + i * WIDTH}
            y={TOP}
            width={WIDTH - 6}
            height={HEIGHT}
            fill="var(--strip-day)"
          />
          <text x={LEFT + i * WIDTH + 2} y={15} fontSize={15}>
            {day}
          </text>
        </g>
      ))}
      {runs.flatMap((run) =>
        run.to <= DAY_SECONDS
          ? [block(run, run.day, run.from, run.to)]
          : [
              block(run, run.day, run.from, DAY_SECONDS),
              ...(run.day + 1 < days.length
                ? [block(run, run.day + 1, 0, run.to - DAY_SECONDS)]
                : []),
            ],
      )}
      {hours.map((name, i) => (
        <text key={i} x={0} y={at(i * 6 * 3600) + 4} fontSize={13}>
          {name}
        </text>
      ))}
    </svg>
  );
}

/** The homeowner's page on screen, with the same text as on paper. */
export function HomeownerSheet({ page }: { readonly page: HomeownerPage }) {
  return (
    <article className="sheet stack" lang={page.language}>
      <h1>{page.words.title}</h1>
      <p className="soft">{page.words.byline}</p>
      {[...page.held, ...page.breaches].map((sentence) => (
        <p key={sentence} className="aside heavy">
          {sentence}
        </p>
      ))}
      {page.programs.length === 0 && <p>{page.words.nothing}</p>}
      {page.programs.map((program) => (
        <section key={program.label} className="part" style={{ breakInside: 'avoid' }}>
          <h2 className="row in-line large">
            <ProgramBadge letter={program.letter} label={program.label} /> {program.when}
          </h2>
          {program.over !== null && <p className="soft">{program.over}</p>}
          <ol className="sheet-stations list">
            {program.stations.map(({ number, name, length, adjusted }) => (
              <li key={number} className="row in-line">
                <b>{number}</b> <span>{name}</span>
                <span className="push">
                  {adjusted === null ? (
                    <strong>{length}</strong>
                  ) : (
                    <>
                      {page.words.asSet} <strong>{length}</strong>
                      <br />
                      {page.words.thisMonth} <strong>{adjusted}</strong>
                    </>
                  )}
                </span>
              </li>
            ))}
          </ol>
        </section>
      ))}
      {page.percent !== null && <p>{page.percent}</p>}
      {page.months.length > 0 && (
        <section>
          <h2>{page.words.months}</h2>
          <dl className="sheet-months">
            {page.months.map(({ month, percent }) => (
              <div key={month}>
                <dt>{month.slice(0, 3)}</dt>
                <dd className="heavy">{percent}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
      <h2>{page.words.week}</h2>
      <WeekPicture {...page.week} label={page.words.week} />
      <div className="tiles fill of-300">
        {page.sections.map(({ heading, lines }) => (
          <section key={heading}>
            <h2>{heading}</h2>
            {lines.map((line) => (
              <p key={line}>{line}</p>
            ))}
          </section>
        ))}
      </div>
    </article>
  );
}
