/** A person's data on this device: counted before sign-out, deleted afterwards. */
import { listed, say } from '@water-clock/core';
import { countPending, isAnothersPending } from '../../data/editor/pendingWrites.ts';
import { isAnothersNewSite, newTimers } from '../../data/api/newSites.ts';
import { ownerName } from '../../data/api/whose.ts';
import { OF_DEVICE } from '../../data/offlineCache/keeping.ts';
import { countWaitingPhotos, dropWaitingPhotos } from '../../shared/photos/photos.ts';

export interface Unsent {
  readonly sites: number;
  readonly changes: number;
  readonly photos: number;
}

/** What has not reached the server. */
export const unsentHere = async (): Promise<Unsent> => ({
  sites: newTimers().length,
  changes: countPending(),
  photos: await countWaitingPhotos(),
});

const counted = (count: number, one: string, many: string) =>
  count === 0 ? [] : [count === 1 ? say`one ${one}` : `${count} ${many}`];

/** `2 changes and one photo`; null: nothing waits. */
export function unsentWords({ sites, changes, photos }: Unsent): string | null {
  const parts = [
    ...counted(sites, say`new site`, say`new sites`),
    ...counted(changes, 'change', 'changes'),
    ...counted(photos, 'photo', 'photos'),
  ];
  return parts.length > 0 ? listed(parts) : null;
}

/** Deletes the person's data; what waits for others stays. */
export async function clearTimer(): Promise<void> {
  await dropWaitingPhotos();
  const { forget } = await import('../../data/offlineCache/kept.ts');
  await forget(ownerName(), OF_DEVICE);
  for (const key of Object.keys(localStorage))
    if (!isAnothersPending(key) && !isAnothersNewSite(key)) localStorage.removeItem(key);
  sessionStorage.clear();
}
