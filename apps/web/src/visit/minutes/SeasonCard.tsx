import { Button } from 'antd';
import {
  bansByMonth,
  banSpans,
  banSpanSentence,
  daysByMonth,
  monthName,
  monthOf,
  percentByMonth,
  percentSteps,
  seasonYear,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';

/** How to follow the year: percents by month, days, or not at all; with a single percent, what to set when. */
export function SeasonCard(props: StepProps) {
  const { plan, survey, site, rules, editor, minutes, table, today } = props;
  const { clock, order } = usePreferences();
  const speech = { on: today, clock, order };
  const month = monthOf(today);
  const { timer, settings } = plan;
  const season = survey.season ?? 'percent';
  if (season === 'never') return <p>{say`The same minutes all year, as you chose above.`}</p>;
  const { byBalance, year, hundred } = seasonYear(minutes, table, survey);
  const source = byBalance ? say`the water balance` : say`the table “${table.name}”`;
  if (season === 'days') {
    const waterings = Math.max(
      0,
      ...minutes.stations.flatMap(({ answers }) =>
        answers.thumb.steps.flatMap(({ what, value }) => (what === 'waterings' ? [value] : [])),
      ),
    );
    if (waterings === 0)
      return <p>{say`Enter how many days a week a station waters, or set its program’s days.`}</p>;
    const days = daysByMonth(year, hundred, waterings);
    return (
      <>
        <p>{say`Days a week, with the minutes for ${monthName(hundred)} unchanged, from ${source}:`}</p>
        <ol className="season list tiles of-100 near">
          {days.map((count, i) => (
            <li key={i} className={i + 1 === month ? 'season-now notice' : undefined}>
              <span>{monthName(i + 1).slice(0, 3)}</span>
              <strong>{count}</strong>
            </li>
          ))}
        </ol>
      </>
    );
  }
  const percents = percentByMonth(year, hundred, percentSteps(timer));
  const bans = bansByMonth(survey.rules, rules, site, today);
  const isBanned = (one: number) => bans.some((ban) => ban.month === one && ban.isWhole);
  const { scope, byMonth } = timer.seasonal;
  const now = percents[month - 1] ?? 100;
  const isSet = byMonth
    ? settings.monthlyPercent?.every((percent, i) => percent === percents[i]) === true
    : settings.seasonalPercent === now;
  return (
    <>
      <p>
        {scope === 'none'
          ? say`Percent of the ${monthName(hundred)} need, from ${source}. This timer has no seasonal percent, so change the minutes:`
          : say`Percent of the ${monthName(hundred)} need, from ${source}, in this timer’s steps:`}
      </p>
      <ol className="season list tiles of-100 near">
        {percents.map((percent, i) => (
          <li key={i} className={i + 1 === month ? 'season-now notice' : undefined}>
            <span>{monthName(i + 1).slice(0, 3)}</span>
            <strong>{isBanned(i + 1) ? say`off` : percent}</strong>
          </li>
        ))}
      </ol>
      {bans.length > 0 && (
        <ul aria-label={say`Bans`}>
          {banSpans(bans).map((span) => (
            <li key={span.from}>{banSpanSentence(span, speech)}</li>
          ))}
        </ul>
      )}
      {scope === 'timer' && byMonth && (
        <Button
          disabled={isSet}
          onClick={() =>
            editor.commit({ type: 'set-settings', settings: { monthlyPercent: percents } })
          }
        >
          {isSet ? say`These percents are set` : say`Use these percents`}
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
            {isSet ? say`${now} % is set` : say`Set ${now} % for ${monthName(month)}`}
          </Button>
          <p className="soft">{say`This timer holds one percent. Change it at the timer each month, as above.`}</p>
        </>
      )}
    </>
  );
}
