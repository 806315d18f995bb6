/** The timer list, searched, filtered, sorted and paged by the server. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Verdict } from '@water-clock/core';
import { newId, request, styleQuery, type Style } from './request.ts';
import { siteKeys, type Site } from './sites.ts';
import { say } from '@water-clock/core';

/** Status of a timer in lists; `breach`: no overlap, but it breaks the site's rules; `supply`: neither, but it takes more water than there is. */
export type Status = Verdict | 'breach' | 'supply';

/** Dates are `YYYY-MM-DD`; null: none, or not known. */
export interface TimerLine {
  readonly id: string;
  readonly name: string;
  readonly site: Pick<Site, 'id' | 'version' | 'name' | 'houseNumber' | 'street'>;
  readonly town: string;
  /** Whether the site has other timers. */
  readonly ofSeveral: boolean;
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly stations: number;
  readonly programs: number;
  /** Null: not calculated yet. */
  readonly verdict: Status | null;
  readonly headline: string;
  readonly breaches: number;
  readonly headroomPercent: number | null;
  /** First date with trouble. */
  readonly trouble: string | null;
  readonly battery: string | null;
  readonly lastVisit: string | null;
  readonly nextVisit: string | null;
  /** A visit is open. */
  readonly underWay: boolean;
  /** The coming seven dates; empty if it is off or takes too long to calculate. */
  readonly week: readonly {
    readonly date: string;
    /** Letters of the programs that water. */
    readonly programs: string;
    readonly overlaps: boolean;
  }[];
  /** Whether everything is current; otherwise as of the last calculation. */
  readonly checked: boolean;
}

export const FILTERS = {
  all: say`All`,
  overlap: say`Overlap`,
  breach: say`Breaks rules`,
  supply: say`Too much flow`,
  coming: say`Rules about to change`,
  unset: say`Not complete`,
  due: say`Due this week`,
  'under-way': say`In progress`,
} as const;
export type Filter = keyof typeof FILTERS;

export const filterOf = (word: string | null): Filter =>
  (Object.keys(FILTERS) as Filter[]).find((one) => one === word) ?? 'all';

export interface TimerLines {
  /** Count under the chosen filter. */
  readonly total: number;
  readonly counts: Readonly<Record<Filter, number>>;
  /** Timers of the company being recalculated. */
  readonly checking: number;
  readonly lines: readonly TimerLine[];
}

/** Which timers; absent fields do not filter. */
export interface WhichTimers {
  readonly find?: string;
  readonly show?: Filter;
  readonly state?: 'kept' | 'archived';
  readonly site?: string;
  readonly rules?: string;
  readonly person?: string;
}

export interface LinesAsked extends WhichTimers {
  readonly sort?: string;
  readonly page?: number;
  readonly size?: number;
}

export const linesPath = (path: string, asked: LinesAsked, style?: Style): string => {
  const given = Object.entries(asked).filter(([, value]) => value !== undefined && value !== '');
  const query = new URLSearchParams(given.map(([name, value]) => [name, String(value)]));
  return `${path}?${query.toString()}${style ? `&${styleQuery(style)}` : ''}`;
};

const LOOK_AGAIN_MS = 1_000;

/** Polls while something is being recalculated. */
export const useLines = (asked: LinesAsked, style: Style, enabled = true) =>
  useQuery({
    queryKey: [...siteKeys.all, 'lines', asked, style],
    queryFn: () => request<TimerLines>('GET', linesPath('/api/timers', asked, style)),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.checking ? LOOK_AGAIN_MS : false),
    enabled,
  });

export interface VersionedId {
  readonly id: string;
  readonly version: number;
}

/** Sites of all matching timers. */
export const askSites = (which: WhichTimers) =>
  request<VersionedId[]>('GET', linesPath('/api/timers-sites', which));

/** What to change on many sites: one of the three. */
export type ManyTo =
  | { readonly rulesId: string | null }
  | { readonly personId: string | null }
  | { readonly isArchived: boolean };

export function useChangeMany() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ sites, to }: { readonly sites: readonly VersionedId[]; readonly to: ManyTo }) =>
      request<{ changed: number }>('POST', '/api/sites/many', {
        id: newId(),
        sites: sites.map(({ id, version }) => ({ id, baseVersion: version })),
        to,
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: siteKeys.all }),
  });
}
