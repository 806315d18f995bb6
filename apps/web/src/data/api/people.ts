import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { SavedPreferences } from './userPreferences.ts';
import { RefusedError, request } from './request.ts';
import { workFor } from './whose.ts';

export type Role = 'owner' | 'office' | 'technician' | 'apprentice';

export interface SessionView {
  readonly person: {
    readonly id: string;
    readonly name: string;
    readonly companyId: string;
    readonly company: string;
    readonly role: Role;
    readonly email: string;
    /** Whether sign-in asks for a code. */
    readonly secondFactor: boolean;
  } | null;
  /** The person's preferences. */
  readonly preferences: SavedPreferences | null;
  readonly demo: {
    readonly name: string;
    readonly email: string;
    readonly password: string;
  } | null;
}

export const sessionKey = ['session'] as const;

export const sessionQuery = {
  queryKey: sessionKey,
  queryFn: async () => {
    const session = await request<SessionView>('GET', '/api/session');
    if (session.person) workFor(session.person);
    return session;
  },
  staleTime: 60_000,
};

export const useSession = () => useQuery(sessionQuery);

export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: { email: string; password: string; code?: string }) =>
      request<undefined>('POST', '/api/session', body),
    onSuccess: () => client.invalidateQueries(),
  });
}

const NOT_HERE = ['not-signed-in', 'another-person'];

/** @param clear removes what the device holds for them */
export function useSignOut(clear: () => Promise<void>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async () => {
      try {
        await request<undefined>('DELETE', '/api/session');
      } catch (error) {
        // Someone no longer signed in here is signed out already.
        if (!(error instanceof RefusedError) || !NOT_HERE.includes(error.code)) throw error;
      }
    },
    onSuccess: async () => {
      await clear();
      client.clear();
      location.assign('/');
    },
  });
}
