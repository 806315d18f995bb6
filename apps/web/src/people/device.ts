/** What of a person is on this device: counted before they sign out, and taken away when they do. */
import { countPending, isAnothersPending } from '../editor/pendingWrites.ts';
import { ownerName } from '../api/whose.ts';
import { OF_DEVICE } from '../kept/keeping.ts';
import { countWaitingPhotos, dropWaitingPhotos } from '../photos/photos.ts';

export interface Unsent {
  readonly changes: number;
  readonly photos: number;
}

/** What has not reached the server. */
export const unsentHere = async (): Promise<Unsent> => ({
  changes: countPending(),
  photos: await countWaitingPhotos(),
});

const counted = (count: number, one: string, many: string) =>
  count === 0 ? [] : [count === 1 ? `one ${one}` : `${count} ${many}`];

/** `2 changes and one photo`; null: nothing waits. */
export function unsentWords({ changes, photos }: Unsent): string | null {
  const parts = [...counted(changes, 'change', 'changes'), ...counted(photos, 'photo', 'photos')];
  return parts.length > 0 ? parts.join(' and ') : null;
}

/** Leaves nothing of the person; what waits for somebody else stays theirs. */
export async function clearDevice(): Promise<void> {
  await dropWaitingPhotos();
  const { forget } = await import('../kept/kept.ts');
  await forget(ownerName(), OF_DEVICE);
  for (const key of Object.keys(localStorage))
    if (!isAnothersPending(key)) localStorage.removeItem(key);
  sessionStorage.clear();
}
