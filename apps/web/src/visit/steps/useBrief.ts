import { useMemo } from 'react';
import {
  assembleBrief,
  civilOf,
  epochDayOf,
  formatTime,
  houseRulesOn,
  SECONDS_PER_DAY,
  type Brief,
  type EpochDay,
  type Plan,
  type SiteMinutes,
  type Survey,
} from '@water-clock/core';
import { sunOf } from '../../shared/charts/sun.ts';
import type { Site } from '../../data/api/sites.ts';
import type { VisitBasis } from './useVisitBasis.ts';

const MIDDLE_OF_A_MONTH = 15;

/**
 * Sunrise in the middle of a month by the house's clocks, or so many minutes before it, rounded down to whole minutes; null where the
 * place is not noted or the sun does not rise.
 */
export function sunriseOf(site: Site, today: EpochDay, month: number, before = 0): string | null {
  const { year } = civilOf(today);
  const day = epochDayOf({ year, month, day: MIDDLE_OF_A_MONTH });
  const sunrise = sunOf({ day: day - 1 }, site)?.sunrise ?? null;
  if (sunrise === null) return null;
  const second = (((sunrise - before * 60) % SECONDS_PER_DAY) + SECONDS_PER_DAY) % SECONDS_PER_DAY;
  return formatTime(second - (second % 60));
}

/** The month whose need is 100 percent, or the present one. */
export const planningMonth = (minutes: SiteMinutes, today: EpochDay): number =>
  minutes.hundredMonth ?? civilOf(today).month;

interface Sources extends Pick<VisitBasis, 'rules' | 'minutes'> {
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly today: EpochDay;
}

/** What all that the visit has found adds up to. An hour that goes by the sun is that of the month of the highest need. */
export function useBrief({ site, plan, survey, rules, minutes, today }: Sources): Brief {
  return useMemo(() => {
    const brief = assembleBrief(
      { plan, survey },
      { minutes, rules: houseRulesOn(survey.rules, rules, site, today), mowing: site.mowing },
    );
    const { finishBeforeSunrise } = survey;
    const finishBy =
      finishBeforeSunrise === undefined
        ? null
        : sunriseOf(site, today, planningMonth(minutes, today), finishBeforeSunrise);
    return finishBy === null ? brief : { ...brief, wish: { ...brief.wish, finishBy } };
  }, [site, plan, survey, rules, minutes, today]);
}
