import { useMemo } from 'react';
import {
  announcedEditions,
  assembleBrief,
  civilOf,
  comingRules,
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

const DAYS_OF_A_YEAR = 365;

/** A sunrise in local time. */
export interface Sunrise {
  readonly day: EpochDay;
  /** Second of the day, at a whole minute. */
  readonly second: number;
}

/** The earliest sunrise in local time over some dates, rounded down; null if the location is not known or the sun does not rise. */
export function earliestSunrise(site: Site, from: EpochDay, days: number): Sunrise | null {
  let earliest: Sunrise | null = null;
  for (let day = from; day < from + days; day++) {
    const sunrise = sunOf({ day: day - 1 }, site)?.sunrise ?? null;
    if (sunrise === null) continue;
    const second = sunrise - Math.floor(sunrise / SECONDS_PER_DAY) * SECONDS_PER_DAY;
    if (!earliest || second < earliest.second) earliest = { day, second: second - (second % 60) };
  }
  return earliest;
}

/** The earliest sunrise on the dates programs are made for: a year from today. */
export const useSunrise = (site: Site, today: EpochDay): Sunrise | null =>
  useMemo(() => earliestSunrise(site, today, DAYS_OF_A_YEAR), [site, today]);

/** Time of day some minutes before a sunrise; negative: after it. */
export function beforeSunrise({ second }: Sunrise, minutes: number): string {
  return formatTime((second - minutes * 60 + SECONDS_PER_DAY) % SECONDS_PER_DAY);
}

/** The month that 100 percent stands for, otherwise the current one. */
export const planningMonth = (minutes: SiteMinutes, today: EpochDay): number =>
  minutes.hundredMonth ?? civilOf(today).month;

interface Sources extends Pick<VisitBasis, 'rules' | 'minutes'> {
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly today: EpochDay;
}

/** The brief from everything the visit found. An hour relative to the sun uses the earliest sunrise. */
export function useBrief(sources: Sources): Brief {
  const { site, plan, survey, rules, minutes, today } = sources;
  const { finishBeforeSunrise } = survey;
  const sunrise = useSunrise(site, today);
  return useMemo(() => {
    const brief = assembleBrief(
      { plan, survey },
      { minutes, rules: houseRulesOn(survey.rules, rules, site, today), mowing: site.mowing },
    );
    if (finishBeforeSunrise === undefined || !sunrise) return brief;
    const finishBy = beforeSunrise(sunrise, finishBeforeSunrise);
    return { ...brief, wish: { ...brief.wish, finishBy } };
  }, [site, plan, survey, rules, minutes, today, finishBeforeSunrise, sunrise]);
}

/** The brief with announced rules, for the planner and for export. */
export function useWholeBrief(sources: Sources): Brief {
  const { site, survey, rules, today } = sources;
  const brief = useBrief(sources);
  return useMemo(() => {
    const coming = announcedEditions(comingRules(survey.rules, rules, site, today));
    return coming.length > 0 ? { ...brief, coming } : brief;
  }, [brief, survey.rules, rules, site, today]);
}
