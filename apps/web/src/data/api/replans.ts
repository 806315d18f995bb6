/** Many timers planned anew together. */
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
  /** What the rules are called. */
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
  /** Which rule the settings of now break; empty: none. */
  readonly reason: string;
  readonly why: string;
  /** Why it could not be accepted with all others; empty: it could, or nobody tried. */
  readonly trouble: string;
  /** Settings that somebody at the box changes. */
  readonly lines: number | null;
  /** `YYYY-MM-DD`: from then on it has to stand in the timer. */
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

/** While some of it waits, it is asked for again. */
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

/** All pages of a part of it. */
async function allLines(id: string, show: Shown): Promise<ReplanLine[]> {
  const all: ReplanLine[] = [];
  for (let page = 1; ; page++) {
    const { lines, total } = await loadReplan(id, show, page);
    all.push(...lines);
    if (lines.length === 0 || all.length >= total) return all;
  }
}

/** The timers that somebody has to go to, in their order. */
export const timersToVisit = async (id: string): Promise<string[]> =>
  (await allLines(id, 'visit')).map(({ timerId }) => timerId);

/** Accepts everything that waits for an answer, or stops that: a job of the server, so this page may be closed. */
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
