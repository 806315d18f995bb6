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
  say,
} from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import type { Site } from '../../data/api/sites.ts';
import { useSiteWeather, type SiteWeather } from '../../data/api/weather.ts';

/** Whether the chosen rules are loaded; also true if none are chosen. */
export type RulesState = 'known' | 'pending' | 'failed';

/** A site's rules, weather and tables, and the minutes that follow. */
export interface VisitBasis {
  /** Null: none chosen, or not found. */
  readonly rules: Rules | null;
  readonly rulesState: RulesState;
  /** Rules, tables or weather are loading, so results are not known yet. */
  readonly isPending: boolean;
  readonly table: MinutesTable;
  readonly weather: SiteWeather | null;
  readonly minutes: SiteMinutes;
}

export const RULES_FAILED = say`The local rules could not be loaded, so we cannot tell whether they are kept.`;

export function useVisitBasis(site: Site, plan: Plan, survey: Survey, today: EpochDay): VisitBasis {
  const { houseNumber, supply } = site;
  const library = useLibrary('rules');
  const rules = library.data?.find(({ id }) => id === site.rulesId)?.document ?? null;
  const tables = useLibrary('minutes');
  const table =
    tables.data?.find(({ id }) => id === (site.minutesId ?? SHIPPED_MINUTES_ID))?.document ??
    SHIPPED_MINUTES;
  const weather = useSiteWeather(site);
  const climate = weather?.climate ?? null;
  const rulesState: RulesState =
    site.rulesId === null || library.data ? 'known' : library.isError ? 'failed' : 'pending';
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
  return {
    rules,
    rulesState,
    isPending: rulesState === 'pending' || tables.isPending || weather === undefined,
    table,
    weather: weather ?? null,
    minutes,
  };
}
