export interface RunningServer {
  readonly url: string;
  readonly exited: Promise<number | null>;
  readonly stop: () => Promise<void>;
}
export function startServer(options: {
  databaseUrl: string;
  port?: number;
  env?: Record<string, string>;
  logFile: string;
}): Promise<RunningServer>;
