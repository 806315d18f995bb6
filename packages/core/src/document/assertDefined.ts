/**
 * Returns a value that cannot be missing here, such as an entry of a list at an index below its length, or a time that a reader has accepted.
 *
 * @param what names the value in the error
 * @throws Error where it is missing after all: our own fault, never the caller's
 */
export function assertDefined<T>(value: T, what: string): NonNullable<T> {
  if (value === undefined || value === null) throw new Error(`${what} is missing`);
  return value;
}
