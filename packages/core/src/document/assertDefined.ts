/**
 * Returns a value that cannot be missing here, such as a list entry below the length, or a time accepted by a reader.
 *
 * @param what names the value in the error
 * @throws Error if it is missing: our own bug, never the caller's
 */
export function assertDefined<T>(value: T, what: string): NonNullable<T> {
  if (value === undefined || value === null) throw new Error(`${what} is missing`);
  return value;
}
