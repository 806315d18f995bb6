import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { request } from './request.ts';

/** Totals of visits. Watering hours and litres are yearly, as found minus as left. */
export interface ReportRow {
  readonly visits: number;
  readonly minutes: number;
  readonly overlapsFound: number;
  readonly overlapsCured: number;
  readonly hoursSaved: number;
  readonly litresSaved: number;
  readonly repeatCalls: number;
}

export interface Report {
  /** `YYYY-MM`. */
  readonly months: readonly (ReportRow & { readonly month: string })[];
  readonly people: readonly (ReportRow & { readonly person: string })[];
  readonly houses: readonly (ReportRow & { readonly siteId: string; readonly site: string })[];
  /** Visits not evaluated yet. */
  readonly waiting: number;
}

const LOOK_AGAIN_MS = 2_000;

/** @param from `YYYY-MM-DD`, as is `to`; both inclusive */
export const useReport = (from: string, to: string) =>
  useQuery({
    queryKey: ['reports', from, to],
    queryFn: () => request<Report>('GET', `/api/reports?from=${from}&to=${to}`),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => ((state.data?.waiting ?? 0) > 0 ? LOOK_AGAIN_MS : false),
  });
