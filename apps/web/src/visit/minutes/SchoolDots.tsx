import { Button, Tooltip } from 'antd';
import { scaleSqrt } from 'd3-scale';
import { SCHOOL_WORDS, SCHOOLS, type School, type StationMinutes, say } from '@water-clock/core';
import { useScreen } from '../../app/frame/useScreen.ts';

export const minutesText = (seconds: number | null): string =>
  seconds === null ? '–' : String(Math.round(seconds / 60));

/** Margin at both ends of the scale, in percent of it. */
const MARGIN = 4;

/**
 * The three methods' results for a station as dots on one scale; the chosen one is filled. Choose another by pointer or keyboard; by touch
 * in the drawer, where there is room.
 *
 * @param most end of the scale, seconds a week
 */
export function SchoolDots({
  minutes,
  most,
  choose,
}: {
  readonly minutes: StationMinutes;
  readonly most: number;
  readonly choose: (school: School) => void;
}) {
  const isDesktop = useScreen() === 'desktop';
  const { number, answers, overruled, weeklySeconds } = minutes;
  const place = scaleSqrt([0, Math.max(1, most)], [MARGIN, 100 - MARGIN]);
  const at = (seconds: number) => ({ left: `${place(seconds)}%` });
  const known = SCHOOLS.flatMap((school) => {
    const { weeklySeconds: seconds } = answers[school];
    return seconds === null ? [] : [{ school, seconds }];
  });
  const counts = (school: School) => !overruled && minutes.school === school;
  const words = SCHOOLS.map(
    (school) => `${SCHOOL_WORDS[school]} ${minutesText(answers[school].weeklySeconds)}`,
  );
  return (
    <div
      className="dots"
      role={isDesktop ? 'group' : 'img'}
      aria-label={say`Minutes a week for station ${number}: ${words.join(', ')}`}
    >
      {known.map(({ school, seconds }) =>
        isDesktop ? (
          <Tooltip key={school} title={say`${SCHOOL_WORDS[school]}: ${minutesText(seconds)} min`}>
            <Button
              shape="circle"
              className="dot"
              style={at(seconds)}
              aria-pressed={counts(school)}
              aria-label={say`Station ${number} by ${SCHOOL_WORDS[school]}: ${minutesText(seconds)} minutes a week`}
              onClick={() => choose(school)}
            />
          </Tooltip>
        ) : (
          <span
            key={school}
            className={`dot${counts(school) ? ' dot-counts' : ''}`}
            style={at(seconds)}
          />
        ),
      )}
      {overruled && weeklySeconds !== null && (
        <span className="dot dot-counts" style={at(weeklySeconds)} />
      )}
    </div>
  );
}
