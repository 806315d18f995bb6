/** Photos on their way to the server: scaled down, and stored on the device until they have arrived, so that closing the page loses none. */
import { answered, newId, RefusedError } from '../../data/api/request.ts';
import { ownerName } from '../../data/api/whose.ts';
import { say } from '@water-clock/core';
import { scaled } from './scaled.ts';

/** Longest side in pixels: enough to read a label, small enough for a bad network. */
const LONGER_SIDE = 1600;
const QUALITY = 0.82;
/** Larger than any phone's photo. */
const MOST_FILE_BYTES = 40_000_000;
const outboxName = () => `water-clock-photos:${ownerName()}`;
const openOutbox = () => caches.open(outboxName());

/** Error codes that stay the same however often a photo is sent. */
const FOR_GOOD = [
  'not-accepted',
  'too-large',
  'id-reused',
  'malformed-request',
  'not-found',
  'not-allowed',
];

export const photoPath = (id: string) => `/api/photos/${id}`;

/** Why a file cannot be used as a photo. */
class NoPhotoError extends Error {}

/**
 * A file as a JPEG of limited size, without the camera's metadata (such as location).
 *
 * @throws NoPhotoError if it is too large or not a picture this device can read
 */
async function scaledDown(file: File): Promise<Blob> {
  if (file.size > MOST_FILE_BYTES)
    throw new NoPhotoError(
      say`${file.name} is ${Math.round(file.size / 1e6)} MB; the limit is ${MOST_FILE_BYTES / 1e6} MB`,
    );
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    throw new NoPhotoError(
      say`${file.name} is not a picture this device can read; use JPEG, PNG or WebP`,
    );
  }
  const canvas = scaled(picture, LONGER_SIDE);
  const blob = await new Promise<Blob | null>((resolve) =>
    canvas.toBlob(resolve, 'image/jpeg', QUALITY),
  );
  if (!blob) throw new NoPhotoError(say`${file.name} could not be scaled down on this device`);
  return blob;
}

const send = (id: string, blob: Blob) =>
  answered(photoPath(id), { method: 'PUT', headers: { 'content-type': 'image/jpeg' }, body: blob });

/** Stores a photo on the device under a new id; `sendWaiting` uploads it. */
export async function keepPhoto(file: File): Promise<string> {
  const blob = await scaledDown(file);
  const id = newId();
  const outbox = await openOutbox();
  await outbox.put(
    photoPath(id),
    new Response(blob, { headers: { 'content-type': 'image/jpeg' } }),
  );
  return id;
}

/** Number of this person's photos not uploaded yet. The store exists only in secure contexts. */
export const countWaitingPhotos = async (): Promise<number> =>
  'caches' in globalThis ? (await (await openOutbox()).keys()).length : 0;

export const dropWaitingPhotos = async (): Promise<void> => {
  if ('caches' in globalThis) await caches.delete(outboxName());
};

/** A waiting photo from the device; null once it is uploaded. */
export async function waitingPhoto(id: string): Promise<Blob | null> {
  const found = await (await openOutbox()).match(photoPath(id));
  return found ? found.blob() : null;
}

/** Uploads all waiting photos, also those of earlier pages; resolves to how many are left. */
export async function sendWaiting(): Promise<number> {
  const outbox = await openOutbox();
  let left = 0;
  for (const request of await outbox.keys()) {
    const response = await outbox.match(request);
    const id = new URL(request.url).pathname.split('/').at(-1) ?? '';
    if (!response) continue;
    try {
      await send(id, await response.blob());
      await outbox.delete(request);
    } catch (error) {
      // A refusal is final. If signed out, limited or unreachable, try again later.
      if (error instanceof RefusedError && FOR_GOOD.includes(error.code)) {
        await outbox.delete(request);
        throw error;
      }
      left++;
    }
  }
  return left;
}
