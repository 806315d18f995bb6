/** Checks a chosen file: is it JSON, and in a known format? */
import type { Fault, Outcome } from './fault.ts';
import { kindOf, shown } from './reader.ts';
import { say } from '../language/say.ts';

/** The one fault of a document in another format or version; more would only confuse. */
export function foreignDocument(value: unknown, known: string, knownVersion: number): Fault | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { code: 'wrong-type', path: [], expected: say`an object`, actual: kindOf(value) };
  const { format, version } = value as Record<string, unknown>;
  if (format !== undefined && format !== known)
    return { code: 'not-one-of', path: ['format'], allowed: [known], actual: shown(format) };
  if (version !== undefined && version !== knownVersion)
    return {
      code: 'wrong-version',
      path: ['version'],
      known: knownVersion,
      actual: shown(version),
    };
  return null;
}

/** Reads a document from a file's text; a byte order mark is allowed. */
export function readJson<T>(json: string, read: (value: unknown) => Outcome<T>): Outcome<T> {
  let value: unknown;
  try {
    value = JSON.parse(json.startsWith('\uFEFF') ? json.slice(1) : json);
  } catch (error) {
    const reason = error instanceof Error ? error.message : say`it cannot be read`;
    return { ok: false, faults: [{ code: 'not-json', path: [], reason }] };
  }
  return read(value);
}
