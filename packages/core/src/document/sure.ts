/**
 * A value that cannot be missing here, such as an entry of a list at an index below its length, or a time that a reader has
 * accepted.
 *
 * @throws Error where it is missing after all: our own mistake, never the caller's.
 */
export function sure<T>(value: T): NonNullable<T> {
  if (value === undefined || value === null) throw new Error('a value is missing');
  return value;
}
