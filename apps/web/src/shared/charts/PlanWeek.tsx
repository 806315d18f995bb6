import { memo, useMemo } from 'react';
import {
  attempt,
  nightsFrom,
  programsByLetter,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  weekdayName,
  type EpochDay,
  type Night,
  type Plan,
} from '@water-clock/core';
import { NightBlocks } from './NightBlocks.tsx';
import { stripGeometry } from './stripGeometry.ts';
import { sunOf, type Place } from './sun.ts';
import { useWidth } from './useWidth.ts';
import { nightWords } from './SmallNight.tsx';

const NIGHTS = 7;

interface Props {
  readonly plan: Plan;
  readonly from: EpochDay;
  readonly place: Place;
}

const dayName = (day: EpochDay) => weekdayName(weekdayIndexOf(day));

/** The dates on which water falls in a night; without any, the two that it is between. */
function datesWords({ day, intended, from, to }: Night): string {
  const dates = new Set<EpochDay>();
  for (const { begins, ends } of intended)
    for (const moment of [Math.max(begins, from), Math.min(ends, to) - 1])
      dates.add(Math.floor(moment / SECONDS_PER_DAY));
  return dates.size > 0
    ? [...dates]
        .sort((a, b) => a - b)
        .map(dayName)
        .join(', ')
    : `${dayName(day)}–${dayName(day + 1)}`;
}

function Row({
  night,
  letters,
  place,
}: {
  night: Night;
  letters: readonly string[];
  place: Place;
}) {
  const [ref, width] = useWidth<HTMLSpanElement>();
  const sun = sunOf(night, place);
  const rowHeight = Math.max(4, Math.min(8, 16 / Math.max(1, letters.length)));
  const geometry = stripGeometry(night, letters, sun, { width, rowHeight, head: 2 });
  const height = 4 + letters.length * rowHeight;
  return (
    <span className="plan-week-row small">
      <span className={night.intended.length > 0 ? 'plan-week-day' : 'plan-week-day soft'}>
        {datesWords(night)}
      </span>
      <span ref={ref}>
        {width > 0 && (
          <NightBlocks geometry={geometry} width={width} height={height} withSun={sun !== null} />
        )}
      </span>
      <span className="hidden-but-read">{nightWords(night)}</span>
    </span>
  );
}

/** A week of a plan on small strips, from afternoon to afternoon, each named by the dates on which its water falls. */
export const PlanWeek = memo(function PlanWeek({ plan, from, place }: Props) {
  const nights = useMemo(() => {
    const worked = attempt(() => nightsFrom(plan, from, NIGHTS));
    return worked.ok ? worked.value : [];
  }, [plan, from]);
  const letters = programsByLetter(plan).map(({ letter }) => letter);
  return (
    <div className="stack near">
      {nights.map((night) => (
        <Row key={night.day} night={night} letters={letters} place={place} />
      ))}
    </div>
  );
});
