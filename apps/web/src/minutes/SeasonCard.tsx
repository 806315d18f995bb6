import { Button } from 'antd';
import {
  daysByMonth,
  monthName,
  percentByMonth,
  percentSteps,
  USUAL_WATERINGS,
  type MinutesTable,
  type Plan,
  type SiteMinutes,
  type Survey,
} from '@water-clock/core';
import type { TimerEditor } from '../editor/editor.ts';

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly minutes: SiteMinutes;
  readonly table: MinutesTable;
  /** Of the present date, 1 to 12. */
  readonly month: number;
}

/** How to follow the year: a percent for each month, or days, or not at all; with one percent only, what to set when. */
export function SeasonCard({ plan, survey, editor, minutes, table, month }: Props) {
  const { timer, settings } = plan;
  const season = survey.season ?? 'percent';
  if (season === 'never')
    return <p>The season is not followed: the same minutes all the year, as you chose above.</p>;
  const byBalance = (survey.school ?? 'balance') === 'balance' && minutes.year.length > 0;
  const year = byBalance
    ? minutes.year
    : table.months.map((percent, i) => ({
        month: i + 1,
        netMmPerWeek: percent,
        weeklySeconds: percent,
      }));
  const hundred =
    minutes.hundredMonth ??
    year.reduce((best, one) => (one.netMmPerWeek > best.netMmPerWeek ? one : best)).month;
  const source = byBalance ? 'the water balance' : `the table “${table.name}”`;
  if (season === 'days') {
    const waterings = Math.max(
      USUAL_WATERINGS,
      ...survey.stations.map((station) => station.waterings ?? station.days?.most ?? 0),
    );
    const days = daysByMonth(year, hundred, waterings);
    return (
      <>
        <p>
          Days a week, the minutes of {monthName(hundred)} unchanged, from {source}:
        </p>
        <ol className="season">
          {days.map((count, i) => (
            <li key={i} className={i + 1 === month ? 'season-now' : undefined}>
              <span>{monthName(i + 1).slice(0, 3)}</span>
              <strong>{count}</strong>
            </li>
          ))}
        </ol>
      </>
    );
  }
  const percents = percentByMonth(year, hundred, percentSteps(timer));
  const { scope, byMonth } = timer.seasonal;
  const now = percents[month - 1] ?? 100;
  const isSet = byMonth
    ? settings.monthlyPercent?.every((percent, i) => percent === percents[i]) === true
    : settings.seasonalPercent === now;
  return (
    <>
      <p>
        Percent of what {monthName(hundred)} needs, from {source}, in the steps of this timer
        {scope === 'none' ? ' (it has no percent of its own: change the minutes)' : ''}:
      </p>
      <ol className="season">
        {percents.map((percent, i) => (
          <li key={i} className={i + 1 === month ? 'season-now' : undefined}>
            <span>{monthName(i + 1).slice(0, 3)}</span>
            <strong>{percent}</strong>
          </li>
        ))}
      </ol>
      {scope === 'timer' && byMonth && (
        <Button
          disabled={isSet}
          onClick={() =>
            editor.commit({ type: 'set-settings', settings: { monthlyPercent: percents } })
          }
        >
          {isSet ? 'These percents are set' : 'Put these percents on the timer'}
        </Button>
      )}
      {scope === 'timer' && !byMonth && (
        <>
          <Button
            disabled={isSet}
            onClick={() =>
              editor.commit({ type: 'set-settings', settings: { seasonalPercent: now } })
            }
          >
            {isSet ? `${now} % is set` : `Set ${now} % for ${monthName(month)}`}
          </Button>
          <p className="soft">
            This timer holds one percent: it is to be changed by hand each month as above.
          </p>
        </>
      )}
    </>
  );
}
