/** Which answers are stored on the device, and whether the page shows current data. */

export interface Owner {
  readonly id: string;
  readonly companyId: string;
}

/** Name under which a person's data is stored. */
export const ownerOf = ({ companyId, id }: Owner): string => `${companyId}.${id}`;

export const KEPT_DATABASE = 'water-clock-kept';
/** Before sign-in no one is known, so the last session answer belongs to the device; it is deleted on sign-out. */
export const OF_DEVICE = 'device';
export const SESSION_PATH = '/api/session';

/** What a visit needs. Long lists, photos, reports and downloads are not stored. */
const KEPT: readonly RegExp[] = [
  /^\/api\/session$/u,
  /^\/api\/timers\/[0-9a-f-]{36}(\/(proposals|page|links|visits|comments))?$/u,
  /^\/api\/timers\?show=under-way/u,
  /^\/api\/timers\?sort=verdict&size=1&/u,
  /^\/api\/sites\/[0-9a-f-]{36}(\/[a-z]+)?$/u,
  /^\/api\/library\/[a-z]+$/u,
  /^\/api\/weather\/towns(\/[a-z0-9-]+\/normals)?$/u,
  /^\/api\/calendar/u,
  /^\/api\/(people|practice)$/u,
];
export const isKept = (path: string): boolean => KEPT.some((like) => like.test(path));

const MARK = 'water-clock:kept';

/** Whether to store an answer. "No one is signed in" is stored only where someone was: strangers load none of this. */
export function isWorthKeeping(path: string, answer: unknown): boolean {
  // The cast only reads.
  const isNobody = path === SESSION_PATH && !(answer as { person?: object | null } | null)?.person;
  try {
    if (isNobody) return localStorage.getItem(MARK) !== null;
    localStorage.setItem(MARK, '1');
  } catch {
    // Without storage nothing is kept.
  }
  return true;
}

/** The stored answer that a write makes old; null: none. */
export function changedBy(path: string): string | null {
  const [timer] = /^\/api\/timers\/[0-9a-f-]{36}(?=\/)/u.exec(path) ?? [];
  return timer ?? null;
}

/** When the oldest shown data was current, milliseconds; null: everything is current. */
let behind: number | null = null;
const listeners = new Set<() => void>();
const tell = (next: number | null) => {
  if (next === behind) return;
  behind = next;
  for (const listener of listeners) listener();
};

export const syncStatus = {
  /** The server answered. */
  answered: () => tell(null),
  /** A stored answer is shown instead. */
  keptFrom: (at: number) => tell(Math.min(at, behind ?? at)),
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  behind: () => behind,
};
