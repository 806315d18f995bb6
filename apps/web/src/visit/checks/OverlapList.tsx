import { Button } from 'antd';
import {
  consequenceSentence,
  oftenWords,
  overlapSentence,
  type Check,
  type ClockSecond,
  type OnOverlap,
  type Speech,
  say,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';

interface Props {
  readonly check: Check;
  readonly onOverlap: OnOverlap;
  readonly speech: Speech;
  readonly show: (moment: ClockSecond) => void;
}

/** Overlaps listed; the count gives the total. */
const MOST_SHOWN = 50;

/** Every pair of overlapping starts: first date, frequency, what this timer does, and a link to the night. */
export function OverlapList({ check, onOverlap, speech, show }: Props) {
  const { overlaps, overlapCount, perYear } = check;
  if (overlapCount < 2) return null;
  return (
    <Disclosure
      className="more"
      summary={say`All ${overlapCount} overlapping pairs of start times`}
    >
      {() => (
        <>
          <ol className="overlap-list points">
            {overlaps.slice(0, MOST_SHOWN).map((overlap, i) => (
              <li
                key={`${overlap.first.letter}${overlap.first.start}${overlap.second.letter}${overlap.second.start}`}
              >
                <p>
                  <strong>{overlapSentence(overlap, speech)}</strong>{' '}
                  {consequenceSentence(overlap, onOverlap, speech)}{' '}
                  {perYear[i] !== undefined && say`This happens ${oftenWords(perYear[i])}.`}
                </p>
                <Button onClick={() => show(overlap.second.begins)}>{say`Show that night`}</Button>
              </li>
            ))}
          </ol>
          {overlapCount > MOST_SHOWN && (
            <p className="soft">{say`The first ${MOST_SHOWN} of ${overlapCount}, by date.`}</p>
          )}
        </>
      )}
    </Disclosure>
  );
}
