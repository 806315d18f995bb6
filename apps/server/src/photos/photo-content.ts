import { say } from '@water-clock/core';
import { createHash } from 'node:crypto';
import sharp, { type Metadata } from 'sharp';

/** Longest side in pixels; devices scale down to much less. */
const MOST_PIXELS = 4096;

export const MEDIA_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

const FORMATS: Readonly<Record<string, MediaType>> = {
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};
/** JPEG quality; no loss a person would notice. */
const QUALITY = 90;

/** A photo as stored: re-encoded pixels, upright, without location or date. */
export interface PhotoContent {
  readonly mediaType: MediaType;
  readonly bytes: Buffer;
  readonly width: number;
  readonly height: number;
  /** SHA-256 of the uploaded file, to recognise it when it is sent again. */
  readonly source: string;
}

/** Why a file is refused, as a message. */
export class NoPhoto extends Error {}

export const digestOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');

/**
 * Decodes and re-encodes a picture, ignoring its name and declared type. Runs off the event loop.
 *
 * @throws NoPhoto
 */
export async function photoContent(sent: Buffer): Promise<PhotoContent> {
  let known: Metadata;
  try {
    // Reads only the header, whatever size the picture claims.
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
