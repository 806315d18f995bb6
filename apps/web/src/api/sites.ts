import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ClockStyle, Plan, SiteFields, Verdict } from '@water-clock/core';
import { RefusedError, request } from './request.ts';

export interface Site extends SiteFields {
  readonly id: string;
  readonly version: number;
}

export interface SiteSummary extends Site {
  readonly timers: readonly {
    readonly id: string;
    readonly name: string;
    readonly stations: number;
    readonly programs: number;
    readonly verdict: Verdict;
    readonly headline: string;
    readonly nextVisit: string | null;
  }[];
}

export const siteKeys = { list: (clock: ClockStyle) => ['sites', clock] as const, all: ['sites'] };

export const useSites = (clock: ClockStyle) =>
  useQuery({
    queryKey: siteKeys.list(clock),
    queryFn: () => request<SiteSummary[]>('GET', `/api/sites?clock=${clock}`),
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
  const response = await fetch(`/api/sites/${encodeURIComponent(id)}/archive`, {
    method: 'PUT',
    headers: { 'content-type': 'application/zip' },
    body: archive,
  });
  const answer = (await response.json()) as { timerIds: string[] } & Record<string, unknown>;
  if (!response.ok) throw new RefusedError(response.status, answer);
  return answer;
}
