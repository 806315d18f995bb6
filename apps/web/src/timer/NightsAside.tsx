import { memo, useMemo } from 'react';
import { Button } from 'antd';
import {
  civilOf,
  dateWords,
  weekdayIndexOf,
  weekdayName,
  type ClockStyle,
  type EpochDay,
} from '@water-clock/core';
import { NightTable } from '../charts/NightTable.tsx';
import { SmallNight } from '../charts/SmallNight.tsx';
import { sunOf, type Place } from '../charts/sun.ts';
import { YearChart } from '../charts/YearChart.tsx';
import { Disclosure } from '../fields/Disclosure.tsx';
import { nightAt, type TimerAnswer } from '../workers/timerQuestion.ts';

export const NIGHTS = 14;

export type Distance = 'nights' | 'year';

interface Props {
  readonly answer: TimerAnswer | null;
  readonly letters: readonly string[];
  readonly place: Place;
  readonly today: EpochDay;
  readonly tonight: EpochDay;
  /** The night on the large strip. */
  readonly day: EpochDay;
  readonly clock: ClockStyle;
  readonly distance: Distance;
  readonly setDistance: (distance: Distance) => void;
  readonly choose: (day: EpochDay) => void;
}

/** The same plan from further off: fourteen nights, or a year of dates. */
export const NightsAside = memo(function NightsAside(props: Props) {
  const { answer, letters, place, today, tonight, day, clock } = props;
  const { distance, setDistance, choose } = props;
  const suns = useMemo(
    () => Array.from({ length: NIGHTS }, (_, i) => sunOf({ day: tonight + i }, place)),
    [tonight, place],
  );
  const night = answer && nightAt(answer, day);
  return (
    <aside className="timer-nights" aria-label="The coming nights">
      <div className="distances" role="group" aria-label="How far to look">
        {(
          [
            ['nights', 'Fourteen nights'],
            ['year', 'A year'],
          ] as const
        ).map(([name, words]) => (
          <Button key={name} aria-pressed={distance === name} onClick={() => setDistance(name)}>
            {words}
          </Button>
        ))}
      </div>
      {distance === 'nights' &&
        answer?.nights.map((night, i) => (
          <SmallNight
            key={night.day}
            night={night}
            letters={letters}
            sun={suns[i] ?? null}
            label={
              i === 0
                ? 'Tonight'
                : `${weekdayName(weekdayIndexOf(night.day))} ${civilOf(night.day).day} – ${weekdayName(weekdayIndexOf(night.day + 1))}`
            }
            chosen={night.day === day}
            choose={choose}
          />
        ))}
      {distance === 'year' && answer?.year && (
        <YearChart
          year={answer.year}
          today={today}
          letters={letters}
          chosen={day}
          choose={choose}
        />
      )}
      {answer && night && (
        <Disclosure className="timer-table" summary={`${dateWords(night.day, today)} as a table`}>
          {() => <NightTable night={night} plan={answer.plan} clock={clock} />}
        </Disclosure>
      )}
    </aside>
  );
});
