import { say } from '@water-clock/core';
import { createHash } from 'node:crypto';
import sharp, { type Metadata } from 'sharp';

/** Pixels along the longer side; a device scales down to much less. */
const MOST_PIXELS = 4096;

export const MEDIA_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

const FORMATS: Readonly<Record<string, MediaType>> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};
/** Percent; nothing is lost that a person sees. */
const QUALITY = 90;

/** A photo as it is kept: its pixels alone, written anew, upright, without where and when it was taken. */
export interface PhotoContent {
  readonly mediaType: MediaType;
  readonly bytes: Buffer;
  readonly width: number;
  readonly height: number;
  /** SHA-256 of the file as it was sent: the same file again is known by it. */
  readonly source: string;
}

/** Why a file is not kept, in words. */
export class NoPhoto extends Error {}

export const digestOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');

/**
 * Decodes a file and writes its picture anew. Its name and the client's word for it do not count. Works off the event loop.
 *
 * @throws NoPhoto
 */
export async function photoContent(sent: Buffer): Promise<PhotoContent> {
  let known: Metadata;
  try {
    // Only the header is read here, however large the picture says that it is.
    known = await sharp(sent, { limitInputPixels: false }).metadata();
  } catch {
    throw new NoPhoto(say`this is not a photo; JPEG, PNG and WebP are accepted`);
  }
  const { format, width, height } = known;
  const mediaType = FORMATS[format];
  if (!mediaType) throw new NoPhoto(say`${format} is not accepted; use JPEG, PNG or WebP`);
  if (Math.max(width, height) > MOST_PIXELS)
    throw new NoPhoto(
      say`the photo is ${width} × ${height} pixels; the limit is ${MOST_PIXELS} on each side`,
    );
  const upright = sharp(sent, { limitInputPixels: MOST_PIXELS ** 2, failOn: 'error' }).rotate();
  const written =
    mediaType === 'image/png'
      ? upright.png()
      : mediaType === 'image/webp'
        ? upright.webp({ quality: QUALITY })
        : upright.jpeg({ quality: QUALITY });
  try {
    const { data, info } = await written.toBuffer({ resolveWithObject: true });
    return {
      mediaType,
      bytes: data,
      width: info.width,
      height: info.height,
      source: digestOf(sent),
    };
  } catch {
    throw new NoPhoto(say`the photo is incomplete or damaged`);
  }
}
