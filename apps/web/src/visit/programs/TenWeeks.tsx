import { Button } from 'antd';
import {
  civilOf,
  dateWords,
  monthName,
  ruleDaysFrom,
  weekdayIndexOf,
  weekdayName,
  type EpochDay,
  type Plan,
  type Program,
  type RuleDay,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { weekOrderOf } from '../../shared/fields/WeekdayButtons.tsx';

const WEEKS = 10;

const STATE_WORDS: Record<RuleDay['state'], string> = {
  waters: say`waters`,
  blocked: say`skipped: weekday never waters`,
  off: say`skipped: off day of the month`,
  delayed: say`held back by the rain delay`,
  dry: 'dry',
};

const LEGEND: readonly (readonly [RuleDay['state'], string])[] = [
  ['waters', 'waters'],
  ['blocked', say`weekday skipped`],
  ['off', say`off day of the month`],
  ['delayed', say`rain delay`],
];

interface Props {
  readonly plan: Plan;
  readonly program: Program;
  readonly today: EpochDay;
  /** Makes a date the first one of the rule; null if the rule has none. */
  readonly begin: ((day: EpochDay) => void) | null;
}

/** A program's dates in this week and the next nine. */
export function TenWeeks({ plan, program, today, begin }: Props) {
  const { order: dateOrder } = usePreferences();
  const order = weekOrderOf(plan.timer);
  const column = (day: EpochDay) => order.indexOf(weekdayIndexOf(day));
  const first = today - column(today);
  const days = ruleDaysFrom(plan, program, first, WEEKS * 7);
  const shown = LEGEND.filter(([state]) => days.some((ruleDay) => ruleDay.state === state));
  return (
    <div className="ten-weeks">
      <table>
        <caption className="soft">
          {begin
            ? say`The next ten weeks of ${program.letter}. Press a date to start there.`
            : say`The next ten weeks of ${program.letter}`}
        </caption>
        <thead>
          <tr>
            {order.map((index) => (
              <th key={index} scope="col">
                {weekdayName(index)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: WEEKS }, (_, week) => (
            <tr key={week}>
              {days.slice(week * 7, week * 7 + 7).map(({ day, state }) => {
                const { month, day: dayOfMonth } = civilOf(day);
                const text =
                  dayOfMonth === 1 ? `1 ${monthName(month).slice(0, 3)}` : String(dayOfMonth);
                const label = `${dayOfMonth === 1 ? `${text}, ` : ''}${dateWords(day, today, dateOrder)}: ${day < today ? 'past' : STATE_WORDS[state]}`;
                const look = `date date-${day < today ? 'past' : state}${day === today ? ' date-today' : ''}`;
                return (
                  <td key={day}>
                    {begin && day >= today ? (
                      <Button
                        className={look}
                        aria-label={say`${label}. Start here`}
                        onClick={() => begin(day)}
                      >
                        {text}
                      </Button>
                    ) : (
                      <span className={look} aria-label={label} role="img">
                        {text}
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="row near">
        {shown.map(([state, words]) => (
          <span key={state}>
            <i className={`date date-${state}`} aria-hidden>
              8
            </i>{' '}
            {words}
          </span>
        ))}
      </p>
    </div>
  );
}
