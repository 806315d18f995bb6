import type { EpochDay } from '@water-clock/core';
import type { EntityManager } from 'typeorm';
import { todayIn } from '../sites/today.ts';

/** Today in each zone of a company's sites, since the database may not know every zone. */
export interface Zones {
  readonly zones: readonly string[];
  readonly todays: readonly EpochDay[];
  /** Out of date: something it depends on changed, or its dates have passed. */
  readonly isStale: boolean;
}

/** One index lookup for each zone, whatever the number of timers. */
const ZONES = `with recursive zones as (
    (select time_zone, until_day from timer_status where company_id = $1 and listed order by time_zone, until_day limit 1)
    union all
    select next.time_zone, next.until_day from zones cross join lateral (
      select st.time_zone, st.until_day from timer_status st
      where st.company_id = $1 and st.listed and st.time_zone > zones.time_zone
      order by st.time_zone, st.until_day limit 1) next)
  select time_zone as zone, until_day as until,
    exists (select from timer_status where company_id = $1 and stale and listed) as changed
  from zones`;

export async function zonesOf(
  database: Pick<EntityManager, 'query'>,
  companyId: string,
  now: Date,
): Promise<Zones> {
  const rows: { zone: string; until: EpochDay; changed: boolean }[] = await database.query(ZONES, [
    companyId,
  ]);
  const todays = rows.map(({ zone }) => todayIn(zone, now));
  return {
    zones: rows.map(({ zone }) => zone),
    todays,
    isStale: rows.some(({ until, changed }, i) => changed || until < (todays[i] ?? 0)),
  };
}
