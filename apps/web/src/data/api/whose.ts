/** The person this page works for. What waits on a device belongs to them and is never sent for anyone else. */
import { ownerOf, type Owner } from '../offlineCache/keeping.ts';

let owner: Owner | null = null;

/** A page works for one person while it is open; when someone else signs in, it reloads. */
export function workFor(person: Owner): void {
  if (owner && owner.id !== person.id) location.reload();
  owner = { id: person.id, companyId: person.companyId };
}

/** Name under which the device stores a person's data; no name before the person is known. */
export const ownerName = (): string => (owner ? ownerOf(owner) : 'nobody');

/** Sent with each request; the server refuses it if someone else is signed in by now. */
export const ownerHeader = (): Record<string, string> =>
  owner ? { 'water-clock-person': owner.id } : {};
