/** The list of sites as it is sought, filtered and sorted, all of it from the address. No interface code. */
import { parseDate, type EpochDay } from '@water-clock/core';
import type { SiteSummary } from '../api/sites.ts';

/** One timer with its house: a row. */
export interface SiteRow {
  readonly key: string;
  readonly site: SiteSummary;
  readonly timer: SiteSummary['timers'][number];
  readonly town: string;
}

export function rowsOf(
  sites: readonly SiteSummary[],
  towns: ReadonlyMap<string, string>,
): SiteRow[] {
  return sites.flatMap((site) =>
    site.timers.map((timer) => ({
      key: timer.id,
      site,
      timer,
      town: site.town === null ? '' : (towns.get(site.town) ?? ''),
    })),
  );
}

const DAYS_OF_A_WEEK = 7;

/** Which houses a filter shows. */
export const FILTERS = {
  all: { name: 'All', has: () => true },
  overlap: { name: 'Overlap', has: ({ timer }) => timer.verdict === 'overlap' },
  breach: { name: 'Not allowed', has: ({ timer }) => timer.verdict === 'breach' },
  unset: {
    name: 'Half set or empty',
    has: ({ timer }) => timer.verdict === 'incomplete' || timer.verdict === 'empty',
  },
  due: {
    name: 'Due this week',
    has: ({ timer }, today) => {
      const next = timer.nextVisit === null ? null : parseDate(timer.nextVisit);
      return next !== null && next < today + DAYS_OF_A_WEEK;
    },
  },
  'under-way': { name: 'Visit under way', has: ({ timer }) => timer.underWay },
} as const satisfies Record<
  string,
  { readonly name: string; readonly has: (row: SiteRow, today: EpochDay) => boolean }
>;
export type Filter = keyof typeof FILTERS;

export const filterOf = (word: string | null): Filter =>
  (Object.keys(FILTERS) as Filter[]).find((one) => one === word) ?? 'all';

const plain = (text: string) => text.toLowerCase().trim();

/** By name, number, town, kind of timer, and the people of the house. */
export function found(rows: readonly SiteRow[], sought: string): SiteRow[] {
  const words = plain(sought).split(/\s+/u).filter(Boolean);
  return rows.filter(({ site, timer, town }) => {
    const people = site.people.map(({ name }) => name).join(' ');
    const text = plain(
      `${site.name} ${site.houseNumber ?? ''} ${town} ${timer.name} ${people} ${site.notes}`,
    );
    return words.every((word) => text.includes(word));
  });
}

const WEIGHT = { overlap: 0, breach: 1, incomplete: 2, empty: 3, clear: 4 } as const;

const byText = (a: string | null, b: string | null) => (a ?? '').localeCompare(b ?? '');

/** How each column that sorts does so. */
export const SORTS = {
  site: (a: SiteRow, b: SiteRow) => byText(a.site.name, b.site.name),
  town: (a: SiteRow, b: SiteRow) => byText(a.town, b.town),
  verdict: (a: SiteRow, b: SiteRow) => WEIGHT[a.timer.verdict] - WEIGHT[b.timer.verdict],
  stations: (a: SiteRow, b: SiteRow) => a.timer.stations - b.timer.stations,
  last: (a: SiteRow, b: SiteRow) => byText(a.timer.lastVisit, b.timer.lastVisit),
  next: (a: SiteRow, b: SiteRow) => byText(a.timer.nextVisit ?? '9', b.timer.nextVisit ?? '9'),
} as const;
export type Sort = keyof typeof SORTS;
