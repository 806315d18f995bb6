import { Button } from 'antd';
import {
  highPercent,
  minutesWords,
  say,
  startWords,
  wishOf,
  type Brief,
  type Wish,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { PlanResult } from '../../data/workers/planning.ts';

interface Props {
  readonly result: PlanResult;
  /** Plans for a changed brief, which is not saved. */
  readonly attemptWith: (brief: Brief) => void;
}

/** Demands that no plan found can meet together, each with the smallest change that would help. */
export function Conflicts({ result, attemptWith }: Props) {
  return (
    <section role="alert" className="aside alarm stack">
      <h2>{say`No plan can meet all of this`}</h2>
      <p>{say`These conflict. Any one of these changes is enough:`}</p>
      <ul>
        {result.claims?.conflicts.map(({ path, demand, change, brief: changed }) => (
          <li key={path}>
            <p>
              <strong>{demand}</strong>
            </p>
            <p>
              {change}{' '}
              {changed && <Button onClick={() => attemptWith(changed)}>{say`Try it`}</Button>}
            </p>
          </li>
        ))}
      </ul>
      <p className="soft">{say`Local authorities decide what is allowed.`}</p>
    </section>
  );
}

/** Watering outside the preferred hours, and longer hours in which all of it fits. */
export function ShortHours({ result, attemptWith }: Props) {
  const { clock } = usePreferences();
  const { brief, cost, claims } = result;
  if (!cost || cost[1] === 0) return null;
  const { notBefore, finishBy } = wishOf(brief);
  return (
    <section role="alert" className="aside alarm stack">
      <h2>{say`These hours are too short`}</h2>
      <p>{say`At ${highPercent(brief)} %, ${minutesWords(cost[1])} a week falls outside the hours from ${startWords(notBefore, clock)} to ${startWords(finishBy, clock)}.`}</p>
      <p>
        {!claims
          ? say`Trying longer hours …`
          : claims.hours && claims.hours.fits.length > 0
            ? say`Everything fits with one of these changes:`
            : say`None of the longer hours we tried is enough.`}
      </p>
      <p className="row near">
        {claims?.hours?.fits.map(({ apply }) => {
          const wish = Object.fromEntries(
            apply.map(({ path, value }) => [path.replace('wish.', ''), String(value)]),
          ) as Pick<Wish, 'finishBy' | 'notBefore'>;
          return (
            <Button
              key={JSON.stringify(wish)}
              onClick={() => attemptWith({ ...brief, wish: { ...brief.wish, ...wish } })}
            >
              {wish.finishBy
                ? say`End by ${startWords(wish.finishBy, clock)}`
                : say`Start from ${startWords(wish.notBefore ?? '21:00', clock)}`}
            </Button>
          );
        })}
      </p>
    </section>
  );
}
