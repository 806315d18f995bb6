export interface Cluster {
  readonly url: (database: string) => string;
  readonly port: number;
  readonly pid: number;
  readonly ended: Promise<string>;
  readonly stop: () => void;
  readonly remove: () => void;
}
export function startCluster(options: {
  name: string;
  throwAway?: boolean;
  port?: number;
  settings?: readonly string[];
}): Promise<Cluster>;
export function ensureDatabase(adminUrl: string, name: string, template?: string): Promise<void>;
export function freePort(wanted?: number): Promise<number>;
