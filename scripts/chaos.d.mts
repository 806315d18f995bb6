import type { Cluster } from './cluster.mjs';
import type { RunningServer } from './server.mjs';

type Row = Record<string, unknown>;

/** What was told against what is there. */
export interface Compared {
  readonly sent: number;
  readonly acknowledged: number;
  readonly lost: number;
  readonly doubled: number;
  readonly gaps: number;
  readonly toldWrongly: number;
}
interface Times {
  readonly kills: number;
  readonly medianMs: number;
  readonly p99Ms: number;
}
export interface Stage {
  readonly cluster: Cluster;
  readonly folder: string;
  readonly start: (options?: { databaseUrl?: string; port?: number }) => Promise<RunningServer>;
  readonly query: (sql: string, url?: string) => Promise<Row[]>;
}
export function theatre<T>(work: (stage: Stage) => Promise<T>): Promise<T>;
export function kills(options: {
  count: number;
  seed: number;
}): Promise<
  Compared & { readonly crashes: number; readonly times: Record<'server' | 'database', Times> }
>;
export function lostCommits(options: {
  count: number;
}): Promise<Compared & { readonly answersLost: number }>;
export function twoServers(options: {
  clients: number;
  /** Acknowledged before the kill, and after it. */
  writes: number;
}): Promise<Compared & { readonly before: number; readonly after: number }>;
