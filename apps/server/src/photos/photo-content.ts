import { imageSize } from 'image-size';

/** Pixels along the longer side; a device scales down to much less. */
export const MOST_PIXELS = 4096;

export const MEDIA_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

/** Formats that every browser shows, by the bytes with which a file of them ends. */
const FORMATS: Readonly<
  Record<string, { mediaType: MediaType; whole: (bytes: Buffer) => boolean }>
> = {
  jpg: { mediaType: 'image/jpeg', whole: (bytes) => bytes.includes(Buffer.from([0xff, 0xd9])) },
  png: { mediaType: 'image/png', whole: (bytes) => bytes.subarray(-8).includes('IEND') },
  webp: {
    mediaType: 'image/webp',
    whole: (bytes) => bytes.readUInt32LE(4) + 8 <= bytes.length + 1,
  },
};

export type PhotoContent =
  | {
      readonly ok: true;
      readonly mediaType: MediaType;
      readonly width: number;
      readonly height: number;
    }
  | { readonly ok: false; readonly reason: string };

/** What a file is, by its content; its name and the client's word for it do not count. */
export function photoContent(bytes: Buffer): PhotoContent {
  let found;
  try {
    found = imageSize(bytes);
  } catch {
    return { ok: false, reason: 'this is not a photo; JPEG, PNG and WebP are accepted' };
  }
  const { width, height, type = '' } = found;
  const format = FORMATS[type];
  if (!format) return { ok: false, reason: `${type} is not accepted; JPEG, PNG and WebP are` };
  if (!(width > 0 && height > 0 && Math.max(width, height) <= MOST_PIXELS))
    return {
      ok: false,
      reason: `the photo has ${width} × ${height} pixels; at most ${MOST_PIXELS} along a side are accepted`,
    };
  if (!format.whole(bytes)) return { ok: false, reason: 'the photo is incomplete' };
  return { ok: true, mediaType: format.mediaType, width, height };
}
