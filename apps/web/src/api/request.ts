/** Requests to the server, and what can go wrong with them. */
import type { ClockStyle, DateOrder } from '@water-clock/core';

export interface ApiFault {
  readonly code: string;
  readonly path: string;
  readonly message: string;
}

/** The server refused; `body` is its whole answer. */
export class RefusedError extends Error {
  readonly status: number;
  readonly code: string;
  readonly faults: readonly ApiFault[];
  readonly body: Readonly<Record<string, unknown>>;

  constructor(status: number, body: Readonly<Record<string, unknown>>) {
    super(typeof body['message'] === 'string' ? body['message'] : `the server answered ${status}`);
    this.status = status;
    this.code = typeof body['code'] === 'string' ? body['code'] : 'failed';
    // The cast trusts our own server: `faults` is always a list of ApiFault there.
    this.faults = Array.isArray(body['faults']) ? (body['faults'] as ApiFault[]) : [];
    this.body = body;
  }
}

/** The server could not be reached, or broke down: trying again may help. */
export class UnreachableError extends Error {}

/** Bodies above this cannot outlive the page (a limit of `keepalive` in browsers). */
const KEEPALIVE_BYTES = 60_000;

/**
 * One request. The answer's type is trusted, being our own server's.
 *
 * @throws RefusedError for 4xx, UnreachableError for everything else that is not a success.
 */
export async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const json = body === undefined ? null : JSON.stringify(body);
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: json === null ? {} : { 'content-type': 'application/json' },
      body: json,
      // So that a change still arrives if the page is closed right after it.
      keepalive: json !== null && json.length < KEEPALIVE_BYTES,
    });
  } catch {
    throw new UnreachableError('the server cannot be reached');
  }
  if (response.status === 204) return undefined as T;
  const answer: unknown = await response.json().catch(() => ({}));
  if (response.ok) return answer as T;
  const record = answer as Readonly<Record<string, unknown>>;
  if (response.status >= 500) throw new UnreachableError('the server broke down');
  throw new RefusedError(response.status, record);
}

/** A new id for a write. */
export const newId = (): string => crypto.randomUUID();

/** How times and dates are written in sentences that the server makes. */
export interface Style {
  readonly clock: ClockStyle;
  readonly order: DateOrder;
}

export const styleQuery = ({ clock, order }: Style): string => `clock=${clock}&order=${order}`;
