/**
 * Strict readers of JSON values. A reader returns the typed value, or reports each fault by path and returns `undefined`. It never throws,
 * and drops nothing silently: unknown fields are faults.
 */
import { assert, type Fault, type Path } from './fault.ts';
import { plural, say } from '../language/say.ts';

export type Reader<T> = (value: unknown, path: Path, faults: Fault[]) => T | undefined;

/** Type of a JSON value, in the words of someone writing a document. */
export function kindOf(value: unknown): string {
  if (value === null) return 'null';
  if (Array.isArray(value)) return say`a list`;
  switch (typeof value) {
    case 'string':
      return say`text`;
    case 'number':
      return Number.isInteger(value) ? say`a whole number` : say`a number`;
    case 'boolean':
      return String(value);
    case 'undefined':
      return say`nothing`;
    default:
      return say`an object`;
  }
}

/** A value for a message: short, on one line. */
export function shown(value: unknown): string {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}

function wrongType(value: unknown, path: Path, faults: Fault[], expected: string): undefined {
  faults.push({ code: 'wrong-type', path, expected, actual: kindOf(value) });
  return undefined;
}

export function integer(least: number, most: number): Reader<number> {
  return (value, path, faults) => {
    if (typeof value !== 'number' || !Number.isInteger(value))
      return wrongType(value, path, faults, say`a whole number, ${least} to ${most}`);
    if (value < least || value > most) {
      faults.push({ code: 'out-of-range', path, least, most, actual: value });
      return undefined;
    }
    return value;
  };
}

/** A finite number from `least` to `most` (null: no upper limit); `above` excludes `least`. */
export function decimal(least: number, most: number | null, above = false): Reader<number> {
  return (value, path, faults) => {
    if (typeof value !== 'number' || !Number.isFinite(value))
      return wrongType(value, path, faults, say`a number`);
    if (value < least || (above && value === least) || (most !== null && value > most)) {
      faults.push({ code: 'out-of-range', path, least, most, above, actual: value });
      return undefined;
    }
    return value;
  };
}

export const boolean: Reader<boolean> = (value, path, faults) =>
  typeof value === 'boolean' ? value : wrongType(value, path, faults, say`true or false`);

export function text(leastLength = 0): Reader<string> {
  return (value, path, faults) => {
    if (typeof value !== 'string') return wrongType(value, path, faults, say`text`);
    if (value.length < leastLength) {
      faults.push({
        code: 'wrong-length',
        path,
        expected: plural(leastLength, 'at least # character', 'at least # characters'),
        actual: value.length,
      });
      return undefined;
    }
    return value;
  };
}

/** Text accepted by `accepts`; `expected` describes it in a message. */
export function textLike(accepts: (text: string) => boolean, expected: string): Reader<string> {
  return (value, path, faults) => {
    if (typeof value !== 'string') return wrongType(value, path, faults, expected);
    if (!accepts(value)) {
      faults.push({ code: 'malformed', path, expected, actual: shown(value) });
      return undefined;
    }
    return value;
  };
}

export function oneOf<const T extends string | number>(allowed: readonly T[]): Reader<T> {
  return (value, path, faults) => {
    const found = allowed.find((one) => one === value);
    if (found === undefined)
      faults.push({ code: 'not-one-of', path, allowed, actual: shown(value) });
    return found;
  };
}

export interface ListLimits {
  readonly least?: number;
  readonly most?: number;
  /** No duplicate values. */
  readonly unique?: boolean;
}

export function list<T>(item: Reader<T>, limits: ListLimits = {}): Reader<readonly T[]> {
  const { least = 0, most = Infinity, unique = false } = limits;
  return (value, path, faults) => {
    if (!Array.isArray(value)) return wrongType(value, path, faults, say`a list`);
    if (value.length < least || value.length > most) {
      const expected =
        least === most
          ? say`exactly ${least}`
          : value.length > most
            ? say`at most ${most}`
            : say`at least ${least}`;
      faults.push({ code: 'wrong-length', path, expected, actual: value.length });
      return undefined;
    }
    const seen = new Set<unknown>();
    const items: T[] = [];
    let sound = true;
    value.forEach((one: unknown, i) => {
      const read = item(one, [...path, i], faults);
      if (read === undefined) {
        sound = false;
        return;
      }
      if (unique && seen.has(read)) {
        faults.push({ code: 'repeated', path: [...path, i], actual: shown(read) });
        sound = false;
      }
      seen.add(read);
      items.push(read);
    });
    return sound ? items : undefined;
  };
}

/** Exactly two values. */
export function pair<A, B>(first: Reader<A>, second: Reader<B>): Reader<readonly [A, B]> {
  return (value, path, faults) => {
    if (!Array.isArray(value)) return wrongType(value, path, faults, say`a list of two`);
    if (value.length !== 2) {
      faults.push({ code: 'wrong-length', path, expected: say`exactly 2`, actual: value.length });
      return undefined;
    }
    const a = first(value[0], [...path, 0], faults);
    const b = second(value[1], [...path, 1], faults);
    return a === undefined || b === undefined ? undefined : [a, b];
  };
}

export interface Field<T> {
  readonly read: Reader<T>;
  readonly optional: boolean;
  /** What belongs here, for the message if it is missing. */
  readonly expected: string;
}

export const required = <T>(read: Reader<T>, expected = say`a value`): Field<T> => ({
  read,
  optional: false,
  expected,
});
export const optional = <T>(read: Reader<T>): Field<T> => ({ read, optional: true, expected: '' });

export type Fields<T> = { readonly [K in keyof T]-?: Field<Exclude<T[K], undefined>> };

/** An object with these fields and no others; optional ones may be absent and stay absent. */
export function object<T extends object>(fields: Fields<T>): Reader<T> {
  const entries = Object.entries<Field<unknown>>(fields);
  const allowed = entries.map(([name]) => name);
  return (value, path, faults) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return wrongType(value, path, faults, say`an object`);
    const given = value as Record<string, unknown>;
    const before = faults.length;
    for (const name of Object.keys(given))
      if (!allowed.includes(name))
        faults.push({ code: 'unknown-field', path: [...path, name], allowed });
    const result: Record<string, unknown> = {};
    for (const [name, field] of entries) {
      if (!Object.hasOwn(given, name)) {
        if (!field.optional)
          faults.push({ code: 'missing-field', path: [...path, name], expected: field.expected });
        continue;
      }
      const read = field.read(given[name], [...path, name], faults);
      if (read !== undefined) result[name] = read;
    }
    // Safe cast: every required field was read, and no fault was added since `before`.
    return faults.length === before ? (result as T) : undefined;
  };
}

/** New values for some fields of a record; null removes a field. */
export type FieldsToSet<T> = { readonly [K in keyof T]?: Exclude<T[K], undefined> | null };

/** Any of some optional fields, each with a value or null. */
export function fieldsToSet<T extends object>(fields: Fields<T>): Reader<FieldsToSet<T>> {
  const entries = Object.entries<Field<unknown>>(fields).map(
    ([name, { read }]) => [name, optional(nullable(read))] as const,
  );
  // Safe cast: each field is read as before or is null.
  return object(Object.fromEntries(entries) as unknown as Fields<FieldsToSet<T>>);
}

/** One of several objects, distinguished by one text field. */
export function variant<T extends object>(
  tag: string,
  cases: Readonly<Record<string, Reader<T>>>,
): Reader<T> {
  const allowed = Object.keys(cases);
  return (value, path, faults) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return wrongType(value, path, faults, say`an object`);
    const given = value as Record<string, unknown>;
    if (!Object.hasOwn(given, tag)) {
      faults.push({
        code: 'missing-field',
        path: [...path, tag],
        expected: say`one of ${allowed.join(', ')}`,
      });
      return undefined;
    }
    const name = given[tag];
    if (typeof name !== 'string' || !Object.hasOwn(cases, name)) {
      faults.push({ code: 'not-one-of', path: [...path, tag], allowed, actual: shown(name) });
      return undefined;
    }
    const read = cases[name];
    assert(read, 'a case that is its own property is there');
    return read(value, path, faults);
  };
}

export function nullable<T>(read: Reader<T>): Reader<T | null> {
  return (value, path, faults) => (value === null ? null : read(value, path, faults));
}

/** Notes are for people; longer text is not a note. */
export const MOST_NOTE_LENGTH = 2000;

export const readLine: Reader<string> = textLike(
  (t) => t.trim() !== '' && t.length <= 200,
  'text of 1 to 200 characters',
);
export const readNote: Reader<string> = textLike(
  (t) => t.length <= MOST_NOTE_LENGTH,
  'text of at most 2000 characters',
);
/** An id made by a client. */
export const readUuid: Reader<string> = textLike(
  (t) => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(t),
  'a UUID in lowercase',
);
