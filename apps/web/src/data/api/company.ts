import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { newId, request } from './request.ts';

export interface Company {
  readonly name: string;
  readonly version: number;
  /** Days after which old changes are thinned out; null: never. */
  readonly keepChangesDays: number | null;
}

export type Audited =
  | 'sign-in'
  | 'sign-in-failed'
  | 'sign-out'
  | 'link-made'
  | 'link-opened'
  | 'link-withdrawn'
  | 'export'
  | 'deletion'
  | 'setting'
  | 'founded'
  | 'invited'
  | 'invitation-withdrawn'
  | 'joined'
  | 'role-changed'
  | 'taken-out'
  | 'password-changed'
  | 'password-forgotten'
  | 'second-factor-on'
  | 'second-factor-off'
  | 'sessions-ended'
  | 'timer-deleted'
  | 'site-deleted'
  | 'personal-data-deleted'
  | 'token-made'
  | 'token-withdrawn';

export interface AuditEntry {
  readonly id: string;
  /** ISO instant. */
  readonly at: string;
  readonly what: Audited;
  /** Null: someone without an account. */
  readonly by: string | null;
  /** The site or the person it is about. */
  readonly about: string | null;
  /** Network address. */
  readonly address: string | null;
}

const companyKeys = { company: ['company'] as const, audit: ['audit'] as const };
/** Entries in one answer. */
const PAGE = 100;

export const useCompany = () =>
  useQuery({
    queryKey: companyKeys.company,
    queryFn: () => request<Company>('GET', '/api/company'),
  });

export const useAudit = () =>
  useInfiniteQuery({
    queryKey: companyKeys.audit,
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      request<AuditEntry[]>('GET', `/api/audit${pageParam && `?before=${pageParam}`}`),
    getNextPageParam: (last) => (last.length < PAGE ? null : (last.at(-1)?.id ?? null)),
  });

export function useKeepChanges() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ company, days }: { company: Company; days: number | null }) =>
      request<Company>('POST', '/api/company/changes', {
        id: newId(),
        baseVersion: company.version,
        keepChangesDays: days,
      }),
    onSettled: () =>
      Promise.all(
        [companyKeys.company, companyKeys.audit].map((queryKey) =>
          client.invalidateQueries({ queryKey }),
        ),
      ),
  });
}
