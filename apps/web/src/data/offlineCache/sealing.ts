/** Encryption of stored answers with their owner's key, where the browser supports it. */

export interface Sealed {
  /** Undefined outside HTTPS and loopback. */
  readonly iv?: Uint8Array<ArrayBuffer>;
  readonly data: ArrayBuffer;
}

export const CIPHER = 'AES-GCM';

/** @param key null: stored unencrypted */
export async function seal(body: unknown, key: CryptoKey | null): Promise<Sealed> {
  const text = new TextEncoder().encode(JSON.stringify(body));
  const plain = text.buffer.slice(0, text.byteLength);
  if (!key) return { data: plain };
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const data = await crypto.subtle.encrypt({ name: CIPHER, iv }, key, plain);
  return { data, iv };
}

/** @throws DOMException if the key is another's or the data is damaged */
export async function unseal({ iv, data }: Sealed, key: CryptoKey | null): Promise<unknown> {
  const plain = iv && key ? await crypto.subtle.decrypt({ name: CIPHER, iv }, key, data) : data;
  return JSON.parse(new TextDecoder().decode(plain)) as unknown;
}
