import {
  civilOf,
  houseRulesOn,
  ruledOut,
  SECONDS_PER_DAY,
  timeWords,
  weekdayIndexOf,
  weekdayName,
  WEEKDAYS,
  type RuledOut,
  say,
  listed,
} from '@water-clock/core';
import { DRY_FILL, Patterns } from '../../shared/charts/patterns.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import type { StepProps } from '../steps/stepProps.ts';
import './allowedDays.css';

const DAYS = 14;
const HOURS_MARKED = [6, 12, 18];
const percent = (share: number) => `${share * 100}%`;

/** `no watering allowed`, `at any hour`, `not from 9:00 am to 6:00 pm`. */
function dayWords(held: readonly RuledOut[], begin: number, clock: '12' | '24'): string {
  if (held.length === 0) return say`at any time`;
  if (held.some(({ from, to }) => to - from === SECONDS_PER_DAY)) return say`no watering allowed`;
  const at = (moment: number) => timeWords(moment - begin, clock);
  return say`not ${listed(held.map(({ from, to }) => say`from ${at(from)} to ${at(to)}`))}`;
}

/** The times at which the rules allow watering in the next fourteen days: a row for each day, forbidden hours hatched. */
export function AllowedDays({ site, survey, rules, today }: StepProps) {
  const isPhone = useScreen() === 'phone';
  const { clock } = usePreferences();
  if (!rules && !survey.rules) return null;
  const rulesOn = (day: number) => houseRulesOn(survey.rules, rules, site, day);
  return (
    <section className="stack near">
      <Patterns />
      <h2>{say`Allowed hours for the next ${DAYS} days`}</h2>
      <div className="allowed-day allowed-hours" aria-hidden>
        <span />
        <span className="allowed-marks soft small">
          {HOURS_MARKED.map((hour) => (
            <span key={hour} style={{ left: percent(hour / 24) }}>
              {timeWords(hour * 3600, clock)}
            </span>
          ))}
        </span>
      </div>
      <ol className="list">
        {Array.from({ length: DAYS }, (_, i) => {
          const day = today + i;
          const begin = day * SECONDS_PER_DAY;
          const held = ruledOut(rulesOn, begin, begin + SECONDS_PER_DAY);
          const words = dayWords(held, begin, clock);
          const isMown = site.mowing.some((one) => WEEKDAYS[weekdayIndexOf(day)] === one);
          return (
            <li key={day} className="allowed-day">
              <span className="bold">
                {i === 0 ? say`Today` : `${weekdayName(weekdayIndexOf(day))} ${civilOf(day).day}`}
              </span>
              <svg className="allowed-bar" aria-hidden>
                {held.map(({ from, to }) => {
                  const place = {
                    x: percent((from - begin) / SECONDS_PER_DAY),
                    width: percent((to - from) / SECONDS_PER_DAY),
                    height: '100%',
                  };
                  return (
                    <g key={from}>
                      <rect {...place} fill="var(--paper)" stroke="var(--line-strong)" />
                      <rect {...place} fill={DRY_FILL} />
                    </g>
                  );
                })}
              </svg>
              {/* On a phone the bar says it. */}
              <span className={isPhone ? 'hidden-but-read' : 'soft'}>
                {isMown ? say`${words}; mowing` : words}
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
