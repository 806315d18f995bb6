/**
 * Photos on their way to the server: scaled down on the device, and kept there until they have arrived, so that closing the page
 * in the middle of a walk loses none.
 */
import { answered, newId, RefusedError } from '../../data/api/request.ts';
import { ownerName } from '../../data/api/whose.ts';
import { say } from '@water-clock/core';
import { scaled } from './scaled.ts';

/** Pixels along the longer side: enough to read a plate, small enough for a bad network. */
const LONGER_SIDE = 1600;
const QUALITY = 0.82;
/** A photo from a phone is not larger than this. */
const MOST_FILE_BYTES = 40_000_000;
const outboxName = () => `water-clock-photos:${ownerName()}`;
const openOutbox = () => caches.open(outboxName());

/** Answers of our API that stay the same however often a photo is sent. */
const FOR_GOOD = [
  'not-accepted',
  'too-large',
  'id-reused',
  'malformed-request',
  'not-found',
  'not-allowed',
];

export const photoPath = (id: string) => `/api/photos/${id}`;

/** Why a file cannot be a photo of a station. */
class NoPhotoError extends Error {}

/**
 * A file as a JPEG of bounded size, without what the camera wrote into it (such as the place).
 *
 * @throws NoPhotoError where it is too large, or no picture that this device can read.
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

/** Keeps a photo on the device under a new id; `sendWaiting` brings it to the server. */
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

/** How many of this person's photos have not arrived. Only pages served safely have such a store. */
export const countWaitingPhotos = async (): Promise<number> =>
  'caches' in globalThis ? (await (await openOutbox()).keys()).length : 0;

export const dropWaitingPhotos = async (): Promise<void> => {
  if ('caches' in globalThis) await caches.delete(outboxName());
};

/** A photo that has not arrived yet, from the device; null where it has. */
export async function waitingPhoto(id: string): Promise<Blob | null> {
  const found = await (await openOutbox()).match(photoPath(id));
  return found ? found.blob() : null;
}

/** Sends every photo that waits, also those of an earlier page; those that cannot be sent now stay. Resolves to how many are left. */
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
      // Refused for good: it would be refused again. Signed out, limited or unreachable: later.
      if (error instanceof RefusedError && FOR_GOOD.includes(error.code)) {
        await outbox.delete(request);
        throw error;
      }
      left++;
    }
  }
  return left;
}
