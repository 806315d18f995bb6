/** The timers that somebody always has along, on this device: fetched anew once a day, whether a visit is planned or not. */
import { ownerName } from '../api/whose.ts';

const keyOf = () => `water-clock:starred:${ownerName()}`;

export function starred(): readonly string[] {
  try {
    // The cast trusts what this application wrote.
    return JSON.parse(localStorage.getItem(keyOf()) ?? '[]') as string[];
  } catch {
    return [];
  }
}

/** Stars timers, or takes the star from them. */
export function star(ids: readonly string[], isStarred: boolean): void {
  const others = starred().filter((id) => !ids.includes(id));
  try {
    localStorage.setItem(keyOf(), JSON.stringify(isStarred ? [...others, ...ids] : others));
  } catch {
    // Without storage nothing is kept on the device at all.
  }
}
