import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ClosedVisit, HomeownerPage, Language } from '@water-clock/core';
import { request } from './request.ts';

export interface VisitSummary {
  readonly id: string;
  readonly by: string;
  readonly visit: Omit<ClosedVisit, 'asFound' | 'asLeft'>;
}

export interface VisitView {
  readonly id: string;
  readonly timerId: string;
  readonly by: string;
  readonly visit: ClosedVisit;
}

export interface Link {
  readonly id: string;
  readonly madeAt: string;
  readonly expiresAt: string;
  readonly withdrawnAt: string | null;
}

const timerPath = (id: string) => `/api/timers/${encodeURIComponent(id)}`;

export const visitKeys = {
  of: (timerId: string) => ['visits', timerId] as const,
  one: (id: string) => ['visit', id] as const,
  pages: ['page'] as const,
  page: (timerId: string, version: number, language: Language | null) =>
    ['page', timerId, version, language] as const,
  links: (timerId: string) => ['links', timerId] as const,
};

export const useVisits = (timerId: string) =>
  useQuery({
    queryKey: visitKeys.of(timerId),
    queryFn: () => request<VisitSummary[]>('GET', `${timerPath(timerId)}/visits`),
  });

export const loadVisit = (id: string) =>
  request<VisitView>('GET', `/api/visits/${encodeURIComponent(id)}`);

/** @param version of the timer; a new version refetches the page, and so does a change of the company's details */
export const usePage = (timerId: string, version: number, language: Language | null) =>
  useQuery({
    queryKey: visitKeys.page(timerId, version, language),
    queryFn: () =>
      request<HomeownerPage>(
        'GET',
        `${timerPath(timerId)}/page${language ? `?language=${language}` : ''}`,
      ),
    placeholderData: keepPreviousData,
  });

const inLanguage = (language: Language | null) => (language ? `&language=${language}` : '');

export const pagePdfPath = (timerId: string, paper: 'a4' | 'letter', language: Language | null) =>
  `${timerPath(timerId)}/page.pdf?paper=${paper}${inLanguage(language)}`;

export const cardPdfPath = (timerId: string, paper: 'a6' | '4x6', language: Language | null) =>
  `${timerPath(timerId)}/card.pdf?paper=${paper}${inLanguage(language)}`;

export const useLinks = (timerId: string) =>
  useQuery({
    queryKey: visitKeys.links(timerId),
    queryFn: () => request<Link[]>('GET', `${timerPath(timerId)}/links`),
  });

export const makeLink = (
  timerId: string,
  body: {
    readonly id: string;
    readonly token: string;
    readonly days: number;
    readonly language: Language | null;
  },
) => request<Link>('POST', `${timerPath(timerId)}/links`, body);

export const withdrawLink = (timerId: string, id: string) =>
  request<Link>('POST', `${timerPath(timerId)}/links/${encodeURIComponent(id)}/withdraw`, {});
