import { useSession } from '../../data/api/people.ts';

/** Whether the person may change sites, timers and the library; apprentices only suggest. */
export const useMayWork = (): boolean => useSession().data?.person?.role !== 'apprentice';
