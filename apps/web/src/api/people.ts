import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { LikedView } from './liked.ts';
import { request } from './request.ts';

export interface SessionView {
  readonly person: { readonly id: string; readonly name: string; readonly company: string } | null;
  /** Of the person. */
  readonly preferences: LikedView | null;
  readonly demo: {
    readonly name: string;
    readonly email: string;
    readonly password: string;
  } | null;
}

export const sessionKey = ['session'] as const;

export const sessionQuery = {
  queryKey: sessionKey,
  queryFn: () => request<SessionView>('GET', '/api/session'),
  staleTime: 60_000,
};

export const useSession = () => useQuery(sessionQuery);

export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: { email: string; password: string }) =>
      request<undefined>('POST', '/api/session', body),
    onSuccess: () => client.invalidateQueries(),
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => request<undefined>('DELETE', '/api/session'),
    onSuccess: () => {
      client.clear();
      location.assign('/');
    },
  });
}
