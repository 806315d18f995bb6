/**
 * Server answers stored on the device for offline use: by person and company, encrypted with a key that never leaves the browser, limited
 * in size, and deleted on sign-out.
 */
import { Dexie, type EntityTable, type Table } from 'dexie';
import { KEPT_DATABASE } from './keeping.ts';
import { CIPHER, seal, unseal, type Sealed } from './sealing.ts';

interface Kept extends Sealed {
  readonly owner: string;
  readonly path: string;
  /** When the server answered, milliseconds. */
  readonly at: number;
  readonly bytes: number;
}

interface OwnersKey {
  readonly owner: string;
  readonly key: CryptoKey;
}

/** Largest total; the oldest goes first. */
export const MOST_KEPT_BYTES = 60_000_000;
/** Answers not opened for this long are deleted. */
export const MOST_KEPT_DAYS = 14;
const DAY_MS = 86_400_000;
/** Answers between two clean-ups. */
const BETWEEN_PRUNES = 50;

class KeptAnswers extends Dexie {
  readonly answers!: Table<Kept, [string, string]>;
  readonly keys!: EntityTable<OwnersKey, 'owner'>;

  constructor() {
    super(KEPT_DATABASE);
    this.version(1).stores({ answers: '[owner+path], owner, at', keys: 'owner' });
    // Until version 1.1 the answers included pictures of pages.
    this.version(2).upgrade((change) =>
      change
        .table<Kept>('answers')
        .filter(({ path }) => !path.startsWith('/'))
        .delete(),
    );
  }
}

let opened: KeptAnswers | null = null;
const database = () => (opened ??= new KeptAnswers());

const cryptography = (): SubtleCrypto | undefined => globalThis.crypto?.subtle;

/** The owner's key, created on first use; null if the browser has no encryption. */
async function keyOf(owner: string): Promise<CryptoKey | null> {
  const subtle = cryptography();
  if (!subtle) return null;
  const { keys } = database();
  const known = await keys.get(owner);
  if (known) return known.key;
  const made = await subtle.generateKey({ name: CIPHER, length: 256 }, false, [
    'encrypt',
    'decrypt',
  ]);
  // If two tabs create one at once, both use the first.
  return database().transaction('rw', keys, async () => {
    const before = await keys.get(owner);
    if (before) return before.key;
    await keys.add({ owner, key: made });
    return made;
  });
}

let sincePruned = 0;

/** Deletes what is too old, then the oldest until the rest fits. */
export async function prune(now = Date.now()): Promise<void> {
  const { answers } = database();
  await answers
    .where('at')
    .below(now - MOST_KEPT_DAYS * DAY_MS)
    .delete();
  const all = await answers.orderBy('at').reverse().toArray();
  let bytes = 0;
  const gone = all.filter((one) => (bytes += one.bytes) > MOST_KEPT_BYTES);
  await answers.bulkDelete(gone.map(({ owner, path }): [string, string] => [owner, path]));
}

/** Stores an answer; if the device refuses, nothing is stored. */
export async function keepAnswer(
  owner: string,
  path: string,
  body: unknown,
  now = Date.now(),
): Promise<void> {
  try {
    // Stored at once: the page may be closed as soon as it is read.
    const sealed = await seal(body, await keyOf(owner));
    const { byteLength: bytes } = sealed.data;
    await database().answers.put({ owner, path, at: now, bytes, ...sealed });
    sincePruned = (sincePruned + 1) % BETWEEN_PRUNES;
    if (sincePruned === 0) await prune(now);
  } catch {
    // The device is full or forbids it; then the answer is not available offline.
  }
}

export interface KeptAnswer {
  readonly body: unknown;
  readonly at: number;
}

/** The server's last answer; null if it is not stored or cannot be read. */
export async function keptAnswer(owner: string, path: string): Promise<KeptAnswer | null> {
  try {
    const kept = await database().answers.get([owner, path]);
    if (!kept) return null;
    return { body: await unseal(kept, kept.iv ? await keyOf(owner) : null), at: kept.at };
  } catch {
    return null;
  }
}

/** What is stored for an owner, newest first, without the contents. */
export async function keptPaths(owner: string): Promise<Pick<Kept, 'path' | 'at' | 'bytes'>[]> {
  const all = await database().answers.where('owner').equals(owner).toArray();
  return all.map(({ path, at, bytes }) => ({ path, at, bytes })).sort((a, b) => b.at - a.at);
}

const TIMER = /^\/api\/timers\/([0-9a-f-]{36})$/u;

/** An owner's stored timers and when the server last answered for each, newest first. */
export const keptTimers = async (owner: string) =>
  (await keptPaths(owner)).flatMap(({ path, at }) => {
    const [, id] = TIMER.exec(path) ?? [];
    return id === undefined ? [] : [{ id, path, at }];
  });

/** Deletes everything of some owners, with their keys. */
export async function forget(...owners: readonly string[]): Promise<void> {
  // A browser without such storage has kept nothing.
  if (!Dexie.dependencies.indexedDB) return;
  const { answers, keys } = database();
  await database().transaction('rw', answers, keys, async () => {
    for (const owner of owners) {
      await answers.where('owner').equals(owner).delete();
      await keys.delete(owner);
    }
  });
}
