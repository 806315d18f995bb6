import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { UserPreferences, SavedPreferences } from './userPreferences.ts';
import { sessionKey, type SessionView } from './people.ts';
import { newId, RefusedError, request } from './request.ts';

/** A change made on another device at the same moment stays; ours goes on top of it. */
async function send(change: UserPreferences, on: SavedPreferences): Promise<SavedPreferences> {
  const write = (to: SavedPreferences) =>
    request<SavedPreferences>('POST', '/api/preferences/changes', {
      id: newId(),
      baseVersion: to.version,
      preferences: { ...to.preferences, ...change },
    });
  try {
    return await write(on);
  } catch (error) {
    if (!(error instanceof RefusedError) || error.code !== 'stale-version') throw error;
    const { preferences } = await request<SessionView>('GET', '/api/session');
    if (!preferences) throw error;
    return write(preferences);
  }
}

/** Saves the signed-in person's preferences on the server. */
export function useLike() {
  const client = useQueryClient();
  return useMutation({
    // One after another, so that each is based on the last.
    scope: { id: 'preferences' },
    mutationFn: async (change: UserPreferences) => {
      const session = client.getQueryData<SessionView>(sessionKey);
      return session?.preferences ? send(change, session.preferences) : null;
    },
    onSuccess: (saved) => {
      if (saved)
        client.setQueryData<SessionView>(
          sessionKey,
          (session) => session && { ...session, preferences: saved },
        );
    },
  });
}
