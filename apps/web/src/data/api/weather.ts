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

/** A site's weather, from a town or a climate in the library; null: none chosen or available; undefined: loading. */
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
  // One object for one document, so that everything derived from it is calculated once.
  const ofLibrary = useMemo(() => (document ? weatherOf(document) : null), [document]);
  if (town !== null) return normals.isPending ? undefined : (normals.data ?? null);
  return climateId !== null && climates.isPending ? undefined : ofLibrary;
}
