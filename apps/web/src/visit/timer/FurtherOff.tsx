import { memo, useDeferredValue, useMemo } from 'react';
import { civilOf, weekdayIndexOf, weekdayName, type EpochDay, say } from '@water-clock/core';
import { SmallNight } from '../../shared/charts/SmallNight.tsx';
import { sunOf, type Place } from '../../shared/charts/sun.ts';
import { YearChart } from '../../shared/charts/YearChart.tsx';
import { NIGHTS } from './distance.ts';
import type { TimerAnswer } from '../../data/workers/timerQuestion.ts';

interface Props {
  readonly answer: TimerAnswer | null;
  readonly letters: readonly string[];
  /** Programs whose interval phase is not known. */
  readonly possible: readonly string[];
  readonly place: Place;
  readonly today: EpochDay;
  readonly tonight: EpochDay;
  /** The night on the large strip. */
  readonly day: EpochDay;
  readonly distance: 'fortnight' | 'year';
  readonly mark: (day: EpochDay) => void;
  readonly choose: (day: EpochDay) => void;
}

const Nights = memo(function Nights(props: Props) {
  const { answer, letters, possible, place, today, tonight, day, distance, mark, choose } = props;
  const suns = useMemo(
    () => Array.from({ length: NIGHTS }, (_, i) => sunOf({ day: tonight + i }, place)),
    [tonight, place],
  );
  if (distance === 'year')
    return (
      answer?.year && (
        <YearChart
          year={answer.year}
          today={today}
          letters={letters}
          possible={possible}
          chosen={day}
          mark={mark}
          choose={choose}
        />
      )
    );
  return (
    <section className="tiles fill of-300" aria-label={say`The coming nights`}>
      {answer?.nights.map((night, i) => (
        <SmallNight
          key={night.day}
          night={night}
          letters={letters}
          sun={suns[i] ?? null}
          label={
            i === 0
              ? say`Tonight`
              : `${weekdayName(weekdayIndexOf(night.day))} ${civilOf(night.day).day} – ${weekdayName(weekdayIndexOf(night.day + 1))}`
          }
          chosen={night.day === day}
          choose={choose}
        />
      ))}
    </section>
  );
});

/** The plan over fourteen nights or a year. Pressing one shows it on the large strip. Drawn a moment after the verdict. */
export default function FurtherOff(props: Props) {
  return <Nights {...props} answer={useDeferredValue(props.answer)} />;
}
