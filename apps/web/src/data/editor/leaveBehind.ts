/** Hands in what waits on the device of a removed person, for the office to read as a suggestion. Deleted here only once the server has it. */
import { newId, request } from '../api/request.ts';
import { allPending } from './pendingWrites.ts';

type Left = ReturnType<typeof allPending>[number];

const idKey = (key: string) => `water-clock:left-behind:${key}`;

/** The same id until it has arrived, so that it arrives once. */
function idOf(key: string): string {
  const known = localStorage.getItem(idKey(key));
  if (known !== null) return known;
  const id = newId();
  localStorage.setItem(idKey(key), id);
  return id;
}

async function handOver({ key, personId, timerId, queues }: Left): Promise<number> {
  const changes = queues.flatMap(({ writes }) => writes.map(({ change }) => change));
  if (changes.length > 0)
    await request(
      ...(['POST', '/api/left-behind', { id: idOf(key), timerId, changes }] as const),
      // People who share a device hand in their own changes.
      { 'water-clock-person': personId },
    );
  localStorage.removeItem(key);
  localStorage.removeItem(idKey(key));
  return changes.length;
}

/** Hands in everything; returns how many changes the server now has. Refused ones stay. */
export async function leaveBehind(): Promise<number> {
  let handed = 0;
  for (const left of allPending()) handed += await handOver(left).catch(() => 0);
  return handed;
}
