import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { newId, request } from './request.ts';

/** A person's best result, count and last date for a bench task. */
export interface Practice {
  readonly personId: string;
  readonly person: string;
  readonly task: string;
  readonly title: string;
  readonly points: number;
  readonly times: number;
  readonly lastAt: string;
}

interface Result {
  readonly task: string;
  readonly title: string;
  readonly points: number;
  readonly presses: number;
  readonly seconds: number;
  readonly hints: number;
  readonly tries: number;
}

const KEY = ['practice'] as const;

/** One's own results; everyone's for people who look after sites. */
export const usePractice = () =>
  useQuery({ queryKey: KEY, queryFn: () => request<Practice[]>('GET', '/api/practice') });

export function useKeepResult() {
  const client = useQueryClient();
  return useMutation({
    // One id for one result, however often it is sent.
    mutationFn: ({ id, ...result }: Result & { readonly id: string }) =>
      request<Practice[]>('POST', '/api/practice', { id, ...result }),
    onSuccess: (all) => client.setQueryData(KEY, all),
    retry: 2,
  });
}

export const newResultId = newId;
