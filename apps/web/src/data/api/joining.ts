/** For people who have no account yet, or cannot use theirs. */
import { useMutation, useQuery } from '@tanstack/react-query';
import type { Role } from './people.ts';
import { request } from './request.ts';

export type Founding = 'open' | 'code' | 'closed';

export const useFounding = () =>
  useQuery({
    queryKey: ['founding'],
    queryFn: async () =>
      (await request<{ readonly founding: Founding }>('GET', '/api/companies')).founding,
  });

export interface NewCompany {
  readonly id: string;
  readonly personId: string;
  readonly company: string;
  readonly name: string;
  readonly email: string;
  readonly password: string;
  readonly code: string | null;
}

interface Account {
  readonly email: string;
}

export const useFound = () =>
  useMutation({
    mutationFn: (company: NewCompany) => request<Account>('POST', '/api/companies', company),
  });

export interface LinkPurpose {
  readonly purpose: 'invitation' | 'password';
  readonly company: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role | null;
}

const by = (token: string) => ({ authorization: `Bearer ${token}` });

export const useLinkPurpose = (token: string) =>
  useQuery({
    queryKey: ['join', token],
    queryFn: () => request<LinkPurpose>('GET', '/api/join', undefined, by(token)),
    staleTime: Infinity,
  });

export const useJoin = (token: string) =>
  useMutation({
    mutationFn: (body: { readonly personId: string; readonly password: string }) =>
      request<Account>('POST', '/api/join', body, by(token)),
  });

export const useForgotten = () =>
  useMutation({
    mutationFn: (email: string) => request<undefined>('POST', '/api/session/forgotten', { email }),
  });
