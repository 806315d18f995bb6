/** The person's own password, second factor and sessions. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { sessionKey } from './people.ts';
import { request } from './request.ts';

export interface SessionEntry {
  readonly id: string;
  /** User agent. */
  readonly device: string;
  readonly address: string | null;
  /** ISO instants. */
  readonly since: string;
  readonly seen: string;
  /** The current session. */
  readonly isThis: boolean;
}

export interface NewFactor {
  /** Base32, for typing. */
  readonly secret: string;
  /** For a QR code. */
  readonly address: string;
}

const sessionsKey = ['account', 'sessions'] as const;

export const useSessions = () =>
  useQuery({
    queryKey: sessionsKey,
    queryFn: () => request<SessionEntry[]>('GET', '/api/account/sessions'),
  });

/** @param id of one session; null: all others */
export function useEndSession() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string | null) =>
      request<undefined>('DELETE', `/api/account/sessions${id === null ? '' : `/${id}`}`),
    onSettled: () => client.invalidateQueries({ queryKey: sessionsKey }),
  });
}

export function useChangePassword() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: { readonly password: string; readonly newPassword: string }) =>
      request<undefined>('POST', '/api/account/password', body),
    onSuccess: () => client.invalidateQueries({ queryKey: sessionsKey }),
  });
}

export const useNewFactor = () =>
  useQuery({
    queryKey: ['account', 'new factor'],
    queryFn: () => request<NewFactor>('GET', '/api/account/second-factor/new'),
    // Keep it: a new secret would not be the one the app has.
    staleTime: Infinity,
    gcTime: 0,
  });

interface SetFactor {
  readonly password: string;
  readonly secret: string;
  readonly code: string;
}

/** Sets up a second factor, or removes it with the password. */
export function useSecondFactor() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: SetFactor | { readonly password: string }) =>
      request<undefined>(
        'POST',
        `/api/account/second-factor${'secret' in body ? '' : '/off'}`,
        body,
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: sessionKey }),
  });
}

/** What a token may be used for (server identity/rights.ts). */
export type Scope = 'read' | 'write' | 'calendar';

export interface ApiToken {
  readonly id: string;
  /** What it is for. */
  readonly name: string;
  readonly scopes: readonly Scope[];
  /** ISO instants. */
  readonly madeAt: string;
  readonly expiresAt: string;
  readonly usedAt: string | null;
}

const tokensKey = ['account', 'tokens'] as const;

export const useApiTokens = () =>
  useQuery({
    queryKey: tokensKey,
    queryFn: () => request<ApiToken[]>('GET', '/api/account/tokens'),
  });

export function useMakeToken() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: {
      readonly id: string;
      readonly token: string;
      readonly name: string;
      readonly scopes: readonly Scope[];
      readonly password: string;
      readonly days: number;
    }) => request<ApiToken>('POST', '/api/account/tokens', body),
    onSettled: () => client.invalidateQueries({ queryKey: tokensKey }),
  });
}

export function useWithdrawToken() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => request<undefined>('DELETE', `/api/account/tokens/${id}`),
    onSettled: () => client.invalidateQueries({ queryKey: tokensKey }),
  });
}
