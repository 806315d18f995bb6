import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { request } from './request.ts';

export interface SessionView {
  readonly person: { readonly id: string; readonly name: string; readonly company: string } | null;
  readonly demo: {
    readonly name: string;
    readonly email: string;
    readonly password: string;
  } | null;
}

const sessionKey = ['session'] as const;

export const useSession = () =>
  useQuery({
    queryKey: sessionKey,
    queryFn: () => request<SessionView>('GET', '/api/session'),
    staleTime: 60_000,
  });

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
