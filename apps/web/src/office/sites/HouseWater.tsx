import { Alert } from 'antd';
import { nameOf, type House } from '../../data/api/houses.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { HouseAnswer } from '../../data/workers/housing.ts';
import { HouseNight } from './HouseNight.tsx';
import { useHouseAnswer } from './useHouseAnswer.ts';
import { language, say } from '@water-clock/core';

const NIGHTS = 14;
const MOST_LISTED = 12;

const ALERT: Readonly<Record<HouseAnswer['tone'], 'success' | 'warning' | 'error'>> = {
  apart: 'success',
  fits: 'success',
  unknown: 'warning',
  'too-much': 'error',
};
const TOLD = {
  fits: ['soft', 'fits'],
  unknown: ['', say`not known`],
  'too-much': ['fault', say`too much`],
} as const;

interface Props {
  readonly house: House;
  readonly today: number;
  readonly tonight: number;
}

/** How a site's timers share one supply. */
export function HouseWater({ house, today, tonight }: Props) {
  const { units, clock, order } = usePreferences();
  const timers = house.timers.filter(({ isArchived }) => !isArchived);
  const answer = useHouseAnswer({
    timers: timers.map((timer) => ({
      id: timer.id,
      name: nameOf(timer),
      plan: timer.plan,
      survey: timer.survey,
    })),
    supply: house.supplyFlow,
    speech: { on: today, clock, order, units },
    language: language(),
    firstNight: tonight,
    nights: NIGHTS,
  });
  if (!answer) return <p className="soft">{say`Calculating …`}</p>;
  const { tone, headline, meetings, nights, refusal } = answer;
  return (
    <>
      {timers.length > 1 && (
        <Alert
          type={refusal === null ? ALERT[tone] : 'warning'}
          showIcon
          title={refusal ?? headline}
        />
      )}
      {meetings.length > 0 && (
        <ul className="list ruled">
          {meetings.slice(0, MOST_LISTED).map(({ tone: of, sentence }) => (
            <li key={sentence}>
              <span>{sentence}</span>
              <strong className={TOLD[of][0]}>{TOLD[of][1]}</strong>
            </li>
          ))}
          {meetings.length > MOST_LISTED && (
            <li>{say`and ${meetings.length - MOST_LISTED} more`}</li>
          )}
        </ul>
      )}
      <HouseNight site={house} timers={timers} nights={nights} tonight={tonight} />
    </>
  );
}
