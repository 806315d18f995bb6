import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Plan, SiteFields, Verdict } from '@water-clock/core';
import { answered, request, styleQuery, type Style } from './request.ts';

export interface Site extends SiteFields {
  readonly id: string;
  readonly version: number;
}

/** What a list says of a timer; `breach`: nothing overlaps, but the rules of the place are broken. */
export type Standing = Verdict | 'breach';

export interface SiteSummary extends Site {
  readonly timers: readonly {
    readonly id: string;
    readonly name: string;
    readonly stations: number;
    readonly programs: number;
    readonly verdict: Standing;
    readonly headline: string;
    /** `YYYY-MM-DD`. */
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
  }[];
}

export type SiteState = 'kept' | 'archived';

export const siteKeys = {
  list: (style: Style, state: SiteState) => ['sites', style, state] as const,
  one: (id: string) => ['sites', id] as const,
  all: ['sites'],
};

export const useSites = (style: Style, state: SiteState = 'kept') =>
  useQuery({
    queryKey: siteKeys.list(style, state),
    queryFn: () => request<SiteSummary[]>('GET', `/api/sites?${styleQuery(style)}&state=${state}`),
  });

export interface NewSite {
  readonly siteId: string;
  readonly timerId: string;
  readonly site: SiteFields;
  readonly plan: Plan;
}

export function useAddSite() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (site: NewSite) => request<{ timerId: string }>('POST', '/api/sites', site),
    onSuccess: () => client.invalidateQueries({ queryKey: siteKeys.all }),
  });
}

export function useChangeSite(siteId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (write: { id: string; baseVersion: number; site: SiteFields }) =>
      request<Site>('POST', `/api/sites/${siteId}/changes`, write),
    onSuccess: () => client.invalidateQueries({ queryKey: siteKeys.all }),
  });
}

/** Makes a site of an archive; the id is that of the new site, so that sending it again is harmless. */
export async function bringSite(id: string, archive: Blob): Promise<{ timerIds: string[] }> {
  const response = await answered(`/api/sites/${encodeURIComponent(id)}/archive`, {
    method: 'PUT',
    headers: { 'content-type': 'application/zip' },
    body: archive,
  });
  // The cast trusts our own server.
  return (await response.json()) as { timerIds: string[] };
}

/** A house with an empty timer of some kind; the ids are made once, so that sending it again is harmless. */
export interface ImportedSite {
  readonly siteId: string;
  readonly timerId: string;
  readonly kindId: string;
  readonly site: SiteFields;
}

/** As many as one request brings. */
export const SITES_AT_ONCE = 100;

export const bringSites = (id: string, sites: readonly ImportedSite[]) =>
  request<{ timerIds: string[] }>('POST', '/api/sites/several', { id, sites });
