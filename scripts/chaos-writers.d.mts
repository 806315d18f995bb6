import type { Compared } from './chaos.mjs';

export class Writers {
  constructor(urls: () => readonly string[], count: number, on?: { timers?: number });
  readonly acknowledged: readonly { readonly id: string }[];
  /** Resolves when so many more writes have been acknowledged. */
  acknowledge(more: number): Promise<void>;
  stop(): Promise<void>;
}
export function compare(
  writers: Writers,
  query: (sql: string) => Promise<Record<string, unknown>[]>,
): Promise<Compared>;
