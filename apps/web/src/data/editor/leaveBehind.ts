/**
 * What waits on a device whose person was taken out of the company: it is handed over to the office, which reads it as a proposal. It is taken away here only once the office
 * has it.
 */
import { newId, request } from '../api/request.ts';
import { allPending } from './pendingWrites.ts';

type Left = ReturnType<typeof allPending>[number];

const idKey = (key: string) => `water-clock:left-behind:${key}`;

/** The same until it has arrived, so that it arrives once. */
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
      // Of several people on one device each hands over their own.
      { 'water-clock-person': personId },
    );
  localStorage.removeItem(key);
  localStorage.removeItem(idKey(key));
  return changes.length;
}

/** Hands over everything; how many changes the office has now. What it does not take stays. */
export async function leaveBehind(): Promise<number> {
  let handed = 0;
  for (const left of allPending()) handed += await handOver(left).catch(() => 0);
  return handed;
}
