export interface Mark {
  readonly pid: number;
  readonly began: string | null;
}
export function markOf(pid: number): Mark;
export function isThere(mark: Mark): boolean;
