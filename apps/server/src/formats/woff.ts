/** Unpacks a WOFF 1.0 font (https://www.w3.org/TR/WOFF/) once. The PDF library would unpack each table again for every document. */
import { inflateSync } from 'node:zlib';

const SIGNATURE = 0x774f4646;
const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const FONT_HEADER = 12;
const FONT_ENTRY = 16;

const padded = (length: number) => Math.ceil(length / 4) * 4;

/** @throws Error if it is not a WOFF file */
export function fontOfWoff(woff: Buffer): Buffer {
  if (woff.readUInt32BE(0) !== SIGNATURE) throw new Error('not a WOFF file');
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = WOFF_HEADER + i * WOFF_ENTRY;
    const offset = woff.readUInt32BE(at + 4);
    const packed = woff.subarray(offset, offset + woff.readUInt32BE(at + 8));
    const length = woff.readUInt32BE(at + 12);
    return {
      tag: woff.subarray(at, at + 4),
      checksum: woff.readUInt32BE(at + 16),
      // Tables that would not shrink are stored as they are.
      bytes: packed.length < length ? inflateSync(packed) : packed,
    };
  });
  const head = Buffer.alloc(FONT_HEADER + count * FONT_ENTRY);
  const power = Math.floor(Math.log2(count));
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(16 * 2 ** power, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(16 * count - 16 * 2 ** power, 10);
  const parts: Buffer[] = [head];
  let end = head.length;
  tables.forEach(({ tag, checksum, bytes }, i) => {
    const at = FONT_HEADER + i * FONT_ENTRY;
    tag.copy(head, at);
    head.writeUInt32BE(checksum, at + 4);
    head.writeUInt32BE(end, at + 8);
    head.writeUInt32BE(bytes.length, at + 12);
    const room = padded(bytes.length);
    parts.push(bytes, Buffer.alloc(room - bytes.length));
    end += room;
  });
  return Buffer.concat(parts);
}
