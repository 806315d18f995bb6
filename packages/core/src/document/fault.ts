/**
 * What is wrong with a document, change or entry, as data. The sentence comes from `faultSentence` in `words.ts`; code never branches on
 * it.
 */

/** A place in a document: field names and list indexes from the root. Empty: the document itself. */
export type Path = readonly (string | number)[];

export type Fault = { readonly path: Path } & (
  | { readonly code: 'not-json'; readonly reason: string }
  | { readonly code: 'wrong-type'; readonly expected: string; readonly actual: string }
  | { readonly code: 'missing-field'; readonly expected: string }
  | { readonly code: 'unknown-field'; readonly allowed: readonly string[] }
  | {
      readonly code: 'out-of-range';
      readonly least: number;
      readonly most: number | null;
      /** True if `least` itself is not allowed. */
      readonly above?: boolean;
      readonly actual: number;
    }
  | {
      readonly code: 'not-one-of';
      readonly allowed: readonly (string | number)[];
      readonly actual: string;
    }
  | { readonly code: 'wrong-length'; readonly expected: string; readonly actual: number }
  | { readonly code: 'malformed'; readonly expected: string; readonly actual: string }
  | { readonly code: 'repeated'; readonly actual: string }
  | { readonly code: 'wrong-version'; readonly known: number; readonly actual: string }
  | { readonly code: 'unknown-station'; readonly station: number }
  | { readonly code: 'linked-to-linked'; readonly station: number }
  | { readonly code: 'run-of-linked'; readonly station: number; readonly linkedTo: number }
  | { readonly code: 'unknown-program'; readonly program: string }
  | { readonly code: 'beyond-timer'; readonly what: 'program' | 'station'; readonly last: string }
  | { readonly code: 'starts-with-hours-rule' }
  | { readonly code: 'no-free-second' }
  | { readonly code: 'too-much-work' }
  | { readonly code: 'too-many-events'; readonly most: number }
  /** `before` is the moment of the preceding event. */
  | { readonly code: 'out-of-order'; readonly before: string }
  /** Moments as text. */
  | { readonly code: 'outside-span'; readonly from: string; readonly to: string }
  | { readonly code: 'factory-not-known' }
  | { readonly code: 'already-exists'; readonly what: string }
  | { readonly code: 'still-used'; readonly station: number; readonly programs: readonly string[] }
);

export type FaultCode = Fault['code'];

/** A valid value, or every fault found. */
export type Outcome<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly faults: readonly Fault[] };

/** A path as text: `programs[0].starts[1]`; the root is `document`. */
export function pathText(path: Path): string {
  const text = path
    .map((part, i) => (typeof part === 'number' ? `[${part}]` : i === 0 ? part : `.${part}`))
    .join('');
  return text === '' ? 'document' : text;
}

/** A bug of ours, never the caller's: stops at once. */
export function assert(condition: unknown, message: string): asserts condition {
  if (!condition) throw new Error(`assertion failed: ${message}`);
}
