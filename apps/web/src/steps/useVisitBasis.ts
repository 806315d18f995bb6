import { useMemo } from 'react';
import {
  houseRulesOn,
  SHIPPED_MINUTES,
  SHIPPED_MINUTES_ID,
  siteMinutes,
  type EpochDay,
  type MinutesTable,
  type Plan,
  type Rules,
  type SiteMinutes,
  type Survey,
} from '@water-clock/core';
import { useLibrary } from '../api/library.ts';
import type { Site } from '../api/sites.ts';
import { useSiteWeather, type SiteWeather } from '../api/weather.ts';

/** The rules, weather and tables of a house, and the minutes that follow from them. */
export interface VisitBasis {
  /** Null: none chosen, or not found. */
  readonly rules: Rules | null;
  /** False while the library is being fetched. */
  readonly rulesKnown: boolean;
  readonly table: MinutesTable;
  readonly weather: SiteWeather | null;
  readonly minutes: SiteMinutes;
}

export function useVisitBasis(site: Site, plan: Plan, survey: Survey, today: EpochDay): VisitBasis {
  const { houseNumber, supply } = site;
  const library = useLibrary('rules').data;
  const rules = library?.find(({ id }) => id === site.rulesId)?.document ?? null;
  const tables = useLibrary('minutes').data;
  const table =
    tables?.find(({ id }) => id === (site.minutesId ?? SHIPPED_MINUTES_ID))?.document ??
    SHIPPED_MINUTES;
  const weather = useSiteWeather(site);
  const climate = weather?.climate ?? null;
  const minutes = useMemo(
    () =>
      siteMinutes(
        plan,
        survey,
        table,
        climate,
        houseRulesOn(survey.rules, rules, { houseNumber, supply }, today),
      ),
    [plan, survey, table, climate, rules, houseNumber, supply, today],
  );
  return { rules, rulesKnown: library !== undefined, table, weather, minutes };
}
