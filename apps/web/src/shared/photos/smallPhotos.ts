/** Small photos for offline use: enough to recognise the box and the bed. */
import { keepAnswer, keptAnswer } from '../../data/offlineCache/kept.ts';
import { answered } from '../../data/api/request.ts';
import { ownerName } from '../../data/api/whose.ts';
import { photoPath } from './photos.ts';
import { scaled } from './scaled.ts';

/** Longest side in pixels. */
const LONGER_SIDE = 320;
const QUALITY = 0.6;
/** For one timer. */
const MOST = 40;

/** Ids of photos anywhere in a document: lists named `photos`. */
function photosIn(value: unknown): string[] {
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([name, one]: [string, unknown]) =>
    name === 'photos' && Array.isArray(one)
      ? one.filter((id): id is string => typeof id === 'string')
      : photosIn(one),
  );
}

async function small(photo: Blob): Promise<string> {
  return scaled(await createImageBitmap(photo), LONGER_SIDE).toDataURL('image/jpeg', QUALITY);
}

/** Stores the photos of a timer's answer that are not stored yet; skips those that cannot be loaded. */
export async function keepSmallPhotos(timer: unknown): Promise<void> {
  const owner = ownerName();
  for (const id of photosIn(timer).slice(0, MOST)) {
    const path = photoPath(id);
    try {
      if (await keptAnswer(owner, path)) continue;
      const photo = await (await answered(path, { method: 'GET' })).blob();
      await keepAnswer(owner, path, await small(photo));
    } catch {
      // The others are still worth having.
    }
  }
}

/** A prefetched photo as an object URL; null: not stored. */
export async function keptPhoto(id: string): Promise<string | null> {
  const kept = await keptAnswer(ownerName(), photoPath(id));
  return typeof kept?.body === 'string' ? kept.body : null;
}
