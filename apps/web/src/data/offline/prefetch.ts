/** What is loaded before someone leaves. Each answer is stored on the device as it comes (`api/request.ts`). */
import { keepSmallPhotos } from '../../shared/photos/smallPhotos.ts';
import { fetchAnew } from '../api/request.ts';

const SHELVES = ['kinds', 'rules', 'minutes', 'climates', 'office'];

/**
 * Loads what visits to some timers need, one after the other.
 *
 * @returns how many could not be loaded
 */
export async function prefetch(timerIds: readonly string[]): Promise<number> {
  let missing = 0;
  const fetched = async (path: string) => {
    try {
      // A stored answer does not count.
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
