/** For whom this page works. What waits on a device belongs to them, and is never sent for anybody else. */
import { ownerOf, type Owner } from '../offlineCache/keeping.ts';

let owner: Owner | null = null;

/** A page works for one person as long as it is open: where somebody else signs in, it is loaded anew. */
export function workFor(person: Owner): void {
  if (owner && owner.id !== person.id) location.reload();
  owner = { id: person.id, companyId: person.companyId };
}

/** A name for what is theirs on the device; nobody's before anybody is known. */
export const ownerName = (): string => (owner ? ownerOf(owner) : 'nobody');

/** Goes with each request; the server refuses it where somebody else is signed in by now. */
export const ownerHeader = (): Record<string, string> =>
  owner ? { 'water-clock-person': owner.id } : {};
