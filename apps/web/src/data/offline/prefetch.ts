/** What is fetched before somebody leaves: each answer is kept on the device as it comes (`api/request.ts`). */
import { keepSmallPhotos } from '../../shared/photos/smallPhotos.ts';
import { fetchAnew } from '../api/request.ts';

const SHELVES = ['kinds', 'rules', 'minutes', 'climates', 'office'];

/**
 * Fetches what a visit to some timers needs, one after the other.
 *
 * @returns how many of them could not be fetched.
 */
export async function prefetch(timerIds: readonly string[]): Promise<number> {
  let missing = 0;
  const fetched = async (path: string) => {
    try {
      // What is kept already is no answer of the office.
      return await fetchAnew<unknown>(path);
    } catch {
      missing += 1;
      return null;
    }
  };
  for (const shelf of SHELVES) await fetched(`/api/library/${shelf}`);
  for (const id of timerIds) {
    const timer = await fetched(`/api/timers/${id}`);
    await fetched(`/api/timers/${id}/proposals`);
    const visits = await fetched(`/api/timers/${id}/visits`);
    await keepSmallPhotos([timer, visits]);
  }
  return missing;
}
