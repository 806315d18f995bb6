/** How what is kept lies on the device: encrypted with the key of its owner where the browser offers that. */

export interface Sealed {
  /** Absent where the browser offers no encryption: outside https and loopback. */
  readonly iv?: Uint8Array<ArrayBuffer>;
  readonly data: ArrayBuffer;
}

export const CIPHER = 'AES-GCM';

/** @param key null: it is not encrypted */
export async function seal(body: unknown, key: CryptoKey | null): Promise<Sealed> {
  const text = new TextEncoder().encode(JSON.stringify(body));
  const plain = text.buffer.slice(0, text.byteLength);
  if (!key) return { data: plain };
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const data = await crypto.subtle.encrypt({ name: CIPHER, iv }, key, plain);
  return { data, iv };
}

/** @throws DOMException where the key is another's, or what is kept is broken */
export async function unseal({ iv, data }: Sealed, key: CryptoKey | null): Promise<unknown> {
  const plain = iv && key ? await crypto.subtle.decrypt({ name: CIPHER, iv }, key, data) : data;
  return JSON.parse(new TextDecoder().decode(plain)) as unknown;
}
