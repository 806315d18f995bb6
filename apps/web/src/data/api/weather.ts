import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import {
  climateOf,
  type Climate,
  type ClimateDocument,
  type EtoWay,
  type SiteFields,
  type WeatherDay,
  type WeatherTown,
} from '@water-clock/core';
import { useLibrary } from './library.ts';
import { request } from './request.ts';

const weatherKeys = {
  towns: ['weather'] as const,
  normals: (town: string) => ['weather', town] as const,
};

export const useTowns = () =>
  useQuery({
    queryKey: weatherKeys.towns,
    queryFn: () => request<WeatherTown[]>('GET', '/api/weather/towns'),
    staleTime: Infinity,
  });

export const loadDays = (town: string) =>
  request<WeatherDay[]>('GET', `/api/weather/towns/${encodeURIComponent(town)}/days`);

export interface SiteWeather {
  readonly document: ClimateDocument;
  readonly climate: Climate & { readonly ways: readonly EtoWay[] };
}

const weatherOf = (document: ClimateDocument): SiteWeather => ({
  document,
  climate: climateOf(document),
});

/** The weather of a site: a town of the feed, or a climate of the library; null: none is chosen or to be had, undefined: it is on its way. */
export function useSiteWeather({ town, climateId }: SiteFields): SiteWeather | null | undefined {
  const climates = useLibrary('climates');
  const normals = useQuery({
    queryKey: weatherKeys.normals(town ?? ''),
    queryFn: () =>
      request<ClimateDocument>(
        'GET',
        `/api/weather/towns/${encodeURIComponent(town ?? '')}/normals`,
      ),
    enabled: town !== null,
    staleTime: Infinity,
    select: weatherOf,
  });
  const document = climates.data?.find(({ id }) => id === climateId)?.document;
  // One object for one document, so that everything that follows from it is worked out once.
  const ofLibrary = useMemo(() => (document ? weatherOf(document) : null), [document]);
  if (town !== null) return normals.isPending ? undefined : (normals.data ?? null);
  return climateId !== null && climates.isPending ? undefined : ofLibrary;
}
