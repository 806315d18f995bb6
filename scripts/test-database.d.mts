export function makeTestDatabase(): Promise<string>;
