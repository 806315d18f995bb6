export function fuzzApi(options: {
  url: string;
  cookie: string;
  demo: { email: string; password: string };
  requests: number;
  seed: number;
  changes: () => Promise<number>;
}): Promise<{
  readonly sent: number;
  readonly byStatus: Readonly<Record<string, number>>;
  readonly slowest: number;
  readonly faults: readonly string[];
}>;
