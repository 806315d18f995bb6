/** Timers kept offline on this device: loaded once a day, whether or not a visit is planned. */
import { ownerName } from '../api/whose.ts';

const keyOf = () => `water-clock:starred:${ownerName()}`;

export function starred(): readonly string[] {
  try {
    // Safe cast: our own data.
    return JSON.parse(localStorage.getItem(keyOf()) ?? '[]') as string[];
  } catch {
    return [];
  }
}

/** Stars timers or removes their stars. */
export function star(ids: readonly string[], isStarred: boolean): void {
  const others = starred().filter((id) => !ids.includes(id));
  try {
    localStorage.setItem(keyOf(), JSON.stringify(isStarred ? [...others, ...ids] : others));
  } catch {
    // Without storage nothing is kept offline at all.
  }
}
