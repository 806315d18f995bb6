/** Which answers are kept on the device, and whether what a page shows is in step with the office. */

export interface Owner {
  readonly id: string;
  readonly companyId: string;
}

/** A name for what is theirs on the device. */
export const ownerOf = ({ companyId, id }: Owner): string => `${companyId}.${id}`;

export const KEPT_DATABASE = 'water-clock-kept';
/** Nobody is known before the session is: its last answer belongs to the device, and goes when somebody signs out. */
export const OF_DEVICE = 'device';
export const SESSION_PATH = '/api/session';

/** What a visit needs. Lists of many gardens, photos, reports and what is downloaded are not kept. */
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

/**
 * Whether to keep an answer. That nobody is signed in is kept only where somebody was: for a stranger nothing of this is loaded.
 */
export function isWorthKeeping(path: string, answer: unknown): boolean {
  // The cast only looks.
  const isNobody = path === SESSION_PATH && !(answer as { person?: object | null } | null)?.person;
  try {
    if (isNobody) return localStorage.getItem(MARK) !== null;
    localStorage.setItem(MARK, '1');
  } catch {
    // Storage is forbidden; then nothing is kept either.
  }
  return true;
}

/** The kept answer that a write makes old; null: none. */
export function changedBy(path: string): string | null {
  const [timer] = /^\/api\/timers\/[0-9a-f-]{36}(?=\/)/u.exec(path) ?? [];
  return timer ?? null;
}

/** When the oldest of what is shown was in step with the office, milliseconds; null: all of it is now. */
let behind: number | null = null;
const listeners = new Set<() => void>();
const tell = (next: number | null) => {
  if (next === behind) return;
  behind = next;
  for (const listener of listeners) listener();
};

export const syncStatus = {
  /** An answer of the office came. */
  answered: () => tell(null),
  /** In place of an answer stands what was kept then. */
  keptFrom: (at: number) => tell(Math.min(at, behind ?? at)),
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  behind: () => behind,
};
