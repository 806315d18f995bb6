/** Requests to the server, and what can go wrong with them. */
import { language, say, type ClockStyle, type DateOrder } from '@water-clock/core';
import {
  changedBy,
  syncStatus,
  isKept,
  isWorthKeeping,
  OF_DEVICE,
  SESSION_PATH,
} from '../offlineCache/keeping.ts';
import { ownerHeader, ownerName } from './whose.ts';

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
    super(
      typeof body['message'] === 'string' ? body['message'] : say`the server answered ${status}`,
    );
    this.status = status;
    this.code = typeof body['code'] === 'string' ? body['code'] : 'failed';
    // The cast trusts our own server: `faults` is always a list of ApiFault there.
    this.faults = Array.isArray(body['faults']) ? (body['faults'] as ApiFault[]) : [];
    this.body = body;
  }
}

/** No answer of our own API, or one that says that it has trouble: whether a write arrived is not known, and sending it again may help. */
export class UnreachableError extends Error {}

/** On every answer of our API, and on no other (server http/api-mark.ts). */
const MARK = 'water-clock-api';

/**
 * An answer of our own API that is a success. What anything between says in its place, such as the page of a guest network, is no answer.
 *
 * @throws RefusedError for 4xx, UnreachableError for everything else that is not a success.
 */
export async function answered(path: string, init: RequestInit): Promise<Response> {
  let response: Response;
  // The cast holds: only plain objects are passed as headers here.
  const headers = {
    'accept-language': language(),
    ...(init.headers as Record<string, string> | undefined),
    ...ownerHeader(),
  };
  try {
    response = await fetch(path, { ...init, headers });
  } catch {
    throw new UnreachableError(say`the server cannot be reached`);
  }
  const { ok, status } = response;
  if (!response.headers.has(MARK))
    throw new UnreachableError(say`the answer did not come from the server`);
  if (ok) return response;
  if (status >= 500) throw new UnreachableError(say`the server is having trouble; retrying`);
  const body: unknown = await response.json().catch(() => ({}));
  // The cast trusts our own server, whose refusals are objects.
  throw new RefusedError(status, body as Readonly<Record<string, unknown>>);
}

/** Bodies above this cannot outlive the page (a limit of `keepalive` in browsers). */
const KEEPALIVE_BYTES = 60_000;

/**
 * One request. The answer's type is trusted, being our own server's. What a visit needs is kept on the device as it comes, and stands in for an answer
 * that does not; `syncStatus` says so.
 *
 * @throws RefusedError for 4xx, UnreachableError for everything else that is not a success.
 */
export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  more: Readonly<Record<string, string>> = {},
): Promise<T> {
  if (method !== 'GET') {
    const answer = await asked<T>(method, path, body, more);
    const changed = changedBy(path);
    if (changed !== null) keepAnew(changed);
    return answer;
  }
  if (!isKept(path)) return asked<T>(method, path, body, more);
  try {
    return await fetchAnew<T>(path);
  } catch (error) {
    if (!(error instanceof UnreachableError)) throw error;
    const { keptAnswer } = await keptModule();
    const kept = await keptAnswer(ownerOf(path), path);
    if (!kept) throw error;
    syncStatus.keptFrom(kept.at);
    // The cast trusts what our own server once answered.
    return kept.body as T;
  }
}

/**
 * What the server answers now, kept as it comes; nothing stands in for it.
 *
 * @throws RefusedError, UnreachableError
 */
export async function fetchAnew<T>(path: string): Promise<T> {
  const answer = await asked<T>('GET', path);
  syncStatus.answered();
  const owner = ownerOf(path);
  if (isWorthKeeping(path, answer))
    void keptModule().then(({ keepAnswer }) => keepAnswer(owner, path, answer));
  return answer;
}

/** Changes come in bursts, milliseconds. */
const SETTLED_MS = 2000;
const settling = new Map<string, ReturnType<typeof setTimeout>>();

/** What was kept is older than what has just been saved: once no more is saved for a moment, it is fetched again. */
function keepAnew(path: string): void {
  clearTimeout(settling.get(path));
  settling.set(
    path,
    setTimeout(() => {
      settling.delete(path);
      // Without a network it stays as it was; the page says since when.
      void fetchAnew<unknown>(path).catch(() => undefined);
    }, SETTLED_MS),
  );
}

/** It comes when it is first needed: the sign-in does without. */
const keptModule = () => import('../offlineCache/kept.ts');
const ownerOf = (path: string) => (path === SESSION_PATH ? OF_DEVICE : ownerName());

async function asked<T>(
  method: string,
  path: string,
  body?: unknown,
  more: Readonly<Record<string, string>> = {},
): Promise<T> {
  const json = body === undefined ? null : JSON.stringify(body);
  const response = await answered(path, {
    method,
    headers: { ...more, ...(json === null ? {} : { 'content-type': 'application/json' }) },
    body: json,
    // So that a change still arrives if the page is closed right after it.
    keepalive: json !== null && json.length < KEEPALIVE_BYTES,
  });
  if (response.status === 204) return undefined as T;
  try {
    return (await response.json()) as T;
  } catch {
    throw new UnreachableError(say`the server’s answer was cut off`);
  }
}

/** What became of a write that failed, for a person. Without an answer it is not known; the same one sent again is done once. */
export const failureWords = (error: unknown, refused: string): string =>
  error instanceof RefusedError
    ? `${refused}: ${error.faults.map(({ message }) => message).join(' ') || error.message}`
    : error instanceof Error
      ? say`We could not confirm the save: ${error.message}. Try again; it is only done once.`
      : say`We could not confirm the save: there was no answer. Try again; it is only done once.`;

/** A new id for a write. */
export const newId = (): string => crypto.randomUUID();

/** How times and dates are written in sentences that the server makes. */
export interface Style {
  readonly clock: ClockStyle;
  readonly order: DateOrder;
}

export const styleQuery = ({ clock, order }: Style): string => `clock=${clock}&order=${order}`;
