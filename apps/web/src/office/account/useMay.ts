import { useSession } from '../../data/api/people.ts';

/** Whether the person may change the company's sites, timers and library; apprentices only propose. */
export const useMayWork = (): boolean => useSession().data?.person?.role !== 'apprentice';
