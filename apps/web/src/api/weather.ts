import { useQuery } from '@tanstack/react-query';
import {
  climateOf,
  type Climate,
  type ClimateDocument,
  type EtoWay,
  type WeatherDay,
  type WeatherTown,
} from '@water-clock/core';
import { useLibrary } from './library.ts';
import { request } from './request.ts';

export const weatherKeys = {
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

const IS_ID = /^[0-9a-f]{8}-/;

export interface PlaceWeather {
  readonly document: ClimateDocument;
  readonly climate: Climate & { readonly ways: readonly EtoWay[] };
}

/** The weather of a place: a town of the feed, or a climate of the library; null where none is chosen or it is not there yet. */
export function usePlaceWeather(place: string | null): PlaceWeather | null {
  const ofLibrary = place !== null && IS_ID.test(place);
  const climates = useLibrary('climates');
  const normals = useQuery({
    queryKey: weatherKeys.normals(place ?? ''),
    queryFn: () =>
      request<ClimateDocument>(
        'GET',
        `/api/weather/towns/${encodeURIComponent(place ?? '')}/normals`,
      ),
    enabled: place !== null && !ofLibrary,
    staleTime: Infinity,
    select: (document): PlaceWeather => ({ document, climate: climateOf(document) }),
  });
  if (!ofLibrary) return normals.data ?? null;
  const document = climates.data?.find(({ id }) => id === place)?.document;
  return document ? { document, climate: climateOf(document) } : null;
}
