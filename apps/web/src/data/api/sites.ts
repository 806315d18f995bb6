import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { SiteFields } from '@water-clock/core';
import { keepNewSite, type NewSite } from './newSites.ts';
import { answered, request, UnreachableError } from './request.ts';

export interface Site extends SiteFields {
  readonly id: string;
  readonly version: number;
}

export const siteKeys = {
  list: (find: string) => ['sites', 'names', find] as const,
  one: (id: string) => ['sites', id] as const,
  all: ['sites'],
};

/** The first sites by name that contain all words. */
export const useSites = (find: string) =>
  useQuery({
    queryKey: siteKeys.list(find),
    queryFn: () => request<Site[]>('GET', `/api/sites?find=${encodeURIComponent(find)}`),
    placeholderData: keepPreviousData,
  });

/** If the server cannot be reached, the site waits on the device and opens there. */
async function addSite(site: NewSite): Promise<{ timerId: string }> {
  try {
    return await request<{ timerId: string }>('POST', '/api/sites', site);
  } catch (error) {
    if (!(error instanceof UnreachableError) || !(await keepNewSite(site))) throw error;
    return { timerId: site.timerId };
  }
}

export function useAddSite() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: addSite,
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

/** Creates a site from an archive. The id is the new site's, so that sending it again is harmless. */
export async function bringSite(id: string, archive: Blob): Promise<{ timerIds: string[] }> {
  const response = await answered(`/api/sites/${encodeURIComponent(id)}/archive`, {
    method: 'PUT',
    headers: { 'content-type': 'application/zip' },
    body: archive,
  });
  // Safe cast: our own server.
  return (await response.json()) as { timerIds: string[] };
}

/** A site with an empty timer of some kind. The ids are made once, so that sending it again is harmless. */
export interface ImportedSite {
  readonly siteId: string;
  readonly timerId: string;
  readonly kindId: string;
  readonly site: SiteFields;
}

/** Most sites in one request. */
export const SITES_AT_ONCE = 100;

export const bringSites = (id: string, sites: readonly ImportedSite[]) =>
  request<{ timerIds: string[] }>('POST', '/api/sites/several', { id, sites });
