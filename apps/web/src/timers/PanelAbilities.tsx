import type { Dialect } from '@water-clock/core';
import { Choice } from './Choice.tsx';

const CLOCK_WORDS = { date: 'the date', weekday: 'the weekday only' };
const WEEK_WORDS = { mon: 'Monday', sun: 'Sunday' };
const COUNT_WORDS = { every: '3: every third day', between: '2: the days between' };

const TOTAL_COUNTS = [
  ['percent', 'the percent'],
  ['soaks', 'soaks'],
  ['delays', 'station delays'],
] as const;

const NO_TOTAL = { shown: false, percent: false, soaks: false, delays: false };

/** How its panel speaks, as far as the screens go by it. */
export function PanelAbilities({
  dialect,
  commit,
}: {
  readonly dialect: Dialect;
  readonly commit: (dialect: Dialect) => void;
}) {
  const total = dialect.total ?? NO_TOTAL;
  return (
    <>
      <h2 className="abilities-wide">What its panel shows</h2>
      <Choice
        label="Its clock knows"
        value={dialect.clock ?? 'date'}
        words={CLOCK_WORDS}
        commit={(clock) => commit({ ...dialect, clock })}
      />
      <Choice
        label="Its week begins on"
        value={dialect.weekOrder ?? 'mon'}
        words={WEEK_WORDS}
        commit={(weekOrder) => commit({ ...dialect, weekOrder })}
      />
      <Choice
        label="Every third day is set as"
        value={dialect.intervalCounts ?? 'every'}
        words={COUNT_WORDS}
        commit={(intervalCounts) => commit({ ...dialect, intervalCounts })}
      />
      <div className="switches abilities-wide" role="group" aria-label="Total of a program">
        <label className="check">
          <input
            type="checkbox"
            checked={total.shown}
            onChange={(event) =>
              commit({ ...dialect, total: { ...total, shown: event.target.checked } })
            }
          />
          it shows the total of each program
        </label>
        {total.shown &&
          TOTAL_COUNTS.map(([name, words]) => (
            <label key={name} className="check">
              <input
                type="checkbox"
                checked={total[name]}
                onChange={(event) =>
                  commit({ ...dialect, total: { ...total, [name]: event.target.checked } })
                }
              />
              and counts {words} in
            </label>
          ))}
      </div>
    </>
  );
}
