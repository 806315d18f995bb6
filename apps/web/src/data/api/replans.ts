/** Replans of many timers. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { newId, request, styleQuery, type Style } from './request.ts';
import { siteKeys } from './sites.ts';
import { say } from '@water-clock/core';

export const SHOWN = {
  all: say`All`,
  phone: say`By phone`,
  visit: say`By visit`,
  open: say`No plan found`,
  done: say`Decided`,
  troubled: say`Could not be accepted`,
} as const;
export type Shown = keyof typeof SHOWN;

export interface Replan {
  readonly id: string;
  readonly aim: 'rules' | 'percent';
  readonly rulesId: string | null;
  /** Name of the rules. */
  readonly rules: string | null;
  /** 1 to 12. */
  readonly month: number | null;
  readonly by: string;
  /** ISO instant. */
  readonly at: string;
  readonly counts: Readonly<Record<Shown | 'waiting' | 'fits' | 'accepting', number>>;
}

export interface ReplanLine {
  readonly id: string;
  readonly timerId: string;
  readonly timer: string;
  readonly site: string;
  readonly houseNumber: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly person: string;
  readonly phone: string;
  readonly state: 'waiting' | 'fits' | 'none' | 'proposed';
  /** Rule that the current settings break; empty: none. */
  readonly reason: string;
  readonly why: string;
  /** Why "Accept all" failed on it; empty if it did not. */
  readonly trouble: string;
  /** Number of settings to change at the timer. */
  readonly lines: number | null;
  /** `YYYY-MM-DD`: the date from which the timer must have it. */
  readonly from: string | null;
  readonly proposal: {
    readonly id: string;
    readonly state: 'draft' | 'sent' | 'withdrawn' | 'accepted' | 'refused';
  } | null;
}

export interface ReplanPage extends Replan {
  readonly total: number;
  readonly lines: readonly ReplanLine[];
}

const keys = { all: ['replans'] as const };
const LOOK_AGAIN_MS = 2_000;

export const useReplans = () =>
  useQuery({
    queryKey: keys.all,
    queryFn: () => request<Replan[]>('GET', '/api/replans'),
    refetchInterval: ({ state }) =>
      state.data?.some(({ counts }) => counts.waiting > 0) ? LOOK_AGAIN_MS : false,
  });

const loadReplan = (id: string, show: Shown, page: number, style?: Style) =>
  request<ReplanPage>(
    'GET',
    `/api/replans/${id}?show=${show}&page=${page}${style ? `&${styleQuery(style)}` : ''}`,
  );

/** Polls while some timers wait. */
export const useReplan = (id: string, show: Shown, page: number, style: Style) =>
  useQuery({
    queryKey: [...keys.all, id, show, page, style],
    queryFn: () => loadReplan(id, show, page, style),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => {
      const { waiting = 0, accepting = 0 } = state.data?.counts ?? {};
      return waiting + accepting > 0 ? LOOK_AGAIN_MS : false;
    },
  });

export type ReplanAsked = { readonly rulesId: string } | { readonly month: number };

export function useStartReplan() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (asked: ReplanAsked) => {
      const id = newId();
      await request('POST', '/api/replans', { id, ...asked });
      return id;
    },
    onSuccess: () => client.invalidateQueries({ queryKey: keys.all }),
  });
}

/** All pages of one part. */
async function allLines(id: string, show: Shown): Promise<ReplanLine[]> {
  const all: ReplanLine[] = [];
  for (let page = 1; ; page++) {
    const { lines, total } = await loadReplan(id, show, page);
    all.push(...lines);
    if (lines.length === 0 || all.length >= total) return all;
  }
}

/** Timers that need a visit, in order. */
export const timersToVisit = async (id: string): Promise<string[]> =>
  (await allLines(id, 'visit')).map(({ timerId }) => timerId);

/** Starts or stops "Accept all", a server job that does not need this page. */
export function useAcceptance(id: string, act: 'start' | 'stop') {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      request('POST', `/api/replans/${id}/acceptance${act === 'stop' ? '/stop' : ''}`, {
        id: newId(),
      }),
    onSettled: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: keys.all }),
        client.invalidateQueries({ queryKey: siteKeys.all }),
      ]),
  });
}

export const replansKey = keys.all;
