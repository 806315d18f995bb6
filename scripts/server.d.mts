export interface RunningServer {
  readonly url: string;
  readonly pid: number;
  /** Resolves with how it ended. */
  readonly ended: Promise<string>;
  readonly stop: () => Promise<void>;
}
export function startServer(options: {
  databaseUrl: string;
  port?: number;
  env?: Record<string, string>;
  nodeArguments?: readonly string[];
  logFile: string;
}): Promise<RunningServer>;
