/** How what is kept lies on the device: encrypted with the key of its owner where the browser offers that, and pressed where it is large and nobody waits for it. */

export interface Sealed {
  /** Absent where the browser offers no encryption: outside https and loopback. */
  readonly iv?: Uint8Array<ArrayBuffer>;
  /** Pressed by gzip. */
  readonly isSmall?: true;
  readonly data: ArrayBuffer;
}

export const CIPHER = 'AES-GCM';

const through = (data: ArrayBuffer | Uint8Array<ArrayBuffer>, way: TransformStream) =>
  new Response(new Blob([data]).stream().pipeThrough(way)).arrayBuffer();

/** @param key null: it is not encrypted */
export async function seal(
  body: unknown,
  key: CryptoKey | null,
  isSmall: boolean,
): Promise<Sealed> {
  const text = new TextEncoder().encode(JSON.stringify(body));
  const plain = isSmall
    ? await through(text, new CompressionStream('gzip'))
    : text.buffer.slice(0, text.byteLength);
  const small = isSmall ? { isSmall } : {};
  if (!key) return { data: plain, ...small };
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const data = await crypto.subtle.encrypt({ name: CIPHER, iv }, key, plain);
  return { data, iv, ...small };
}

/** @throws DOMException where the key is another's, or what is kept is broken */
export async function unseal(
  { iv, isSmall, data }: Sealed,
  key: CryptoKey | null,
): Promise<unknown> {
  const plain = iv && key ? await crypto.subtle.decrypt({ name: CIPHER, iv }, key, data) : data;
  const text = isSmall ? await through(plain, new DecompressionStream('gzip')) : plain;
  return JSON.parse(new TextDecoder().decode(text)) as unknown;
}
