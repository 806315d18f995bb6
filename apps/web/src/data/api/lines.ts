/** The list of timers, as the server seeks, filters, sorts and pages it. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Verdict } from '@water-clock/core';
import { newId, request, styleQuery, type Style } from './request.ts';
import { siteKeys, type Site } from './sites.ts';
import { say } from '@water-clock/core';

/** What a list says of a timer; `breach`: nothing overlaps, but the rules of the place are broken. */
type Status = Verdict | 'breach';

/** Dates are `YYYY-MM-DD`; null: there is none, or it is not known. */
export interface TimerLine {
  readonly id: string;
  readonly name: string;
  readonly site: Pick<Site, 'id' | 'version' | 'name' | 'houseNumber' | 'street'>;
  readonly town: string;
  /** Its house has other timers as well. */
  readonly ofSeveral: boolean;
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly stations: number;
  readonly programs: number;
  /** Null: not worked out yet. */
  readonly verdict: Status | null;
  readonly headline: string;
  readonly breaches: number;
  readonly headroomPercent: number | null;
  /** The first date of trouble. */
  readonly trouble: string | null;
  readonly battery: string | null;
  readonly lastVisit: string | null;
  readonly nextVisit: string | null;
  /** A visit was begun and is not closed. */
  readonly underWay: boolean;
  /** The coming seven dates; empty: switched off, or too much to work out. */
  readonly week: readonly {
    readonly date: string;
    /** The letters of those that water. */
    readonly programs: string;
    readonly overlaps: boolean;
  }[];
  /** All of it is as things are now; otherwise as they were when it was last worked out. */
  readonly checked: boolean;
}

export const FILTERS = {
  all: say`All`,
  overlap: say`Overlap`,
  breach: say`Breaks rules`,
  coming: say`Rules about to change`,
  unset: say`Not complete`,
  due: say`Due this week`,
  'under-way': say`In progress`,
} as const;
export type Filter = keyof typeof FILTERS;

export const filterOf = (word: string | null): Filter =>
  (Object.keys(FILTERS) as Filter[]).find((one) => one === word) ?? 'all';

export interface TimerLines {
  /** Under the filter that was asked for. */
  readonly total: number;
  readonly counts: Readonly<Record<Filter, number>>;
  /** Timers of the company that are being worked out again. */
  readonly checking: number;
  readonly lines: readonly TimerLine[];
}

/** Which timers; what is absent does not matter. */
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

/** While something is worked out again, it is asked for again. */
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

/** The houses of all timers that are sought. */
export const askSites = (which: WhichTimers) =>
  request<VersionedId[]>('GET', linesPath('/api/timers-sites', which));

/** What many houses become: one of the three. */
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
