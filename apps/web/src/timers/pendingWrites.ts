/** Writes of this tab that are not known to be saved, kept through a reload. Sending one twice is harmless. */
import type { Write } from './editor.ts';

const key = (timerId: string) => `water-clock:pending:${timerId}`;

export function keepPending(timerId: string, writes: readonly Write[]): void {
  try {
    if (writes.length === 0) sessionStorage.removeItem(key(timerId));
    else sessionStorage.setItem(key(timerId), JSON.stringify(writes));
  } catch {
    // Full or forbidden storage: the write is still on its way, only a reload could lose it.
  }
}

export function pendingOf(timerId: string): readonly Write[] {
  try {
    // The cast trusts what this very tab wrote; the server checks each write again.
    return JSON.parse(sessionStorage.getItem(key(timerId)) ?? '[]') as Write[];
  } catch {
    return [];
  }
}
