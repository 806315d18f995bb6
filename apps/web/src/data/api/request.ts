/** Requests to the server and their errors. */
import { language, say, type ClockStyle, type DateOrder } from '@water-clock/core';
import {
  changedBy,
  syncStatus,
  isKept,
  isWorthKeeping,
  OF_DEVICE,
  SESSION_PATH,
} from '../offlineCache/keeping.ts';
import { confirming } from './confirming.ts';
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
    // Safe cast: our own server always sends a list of ApiFault here.
    this.faults = Array.isArray(body['faults']) ? (body['faults'] as ApiFault[]) : [];
    this.body = body;
  }
}

/** No answer from our API, or one that reports trouble. Whether a write arrived is not known; sending it again may help. */
export class UnreachableError extends Error {}

/** Header on every answer of our API and no other (server http/api-mark.ts). */
const MARK = 'water-clock-api';

/**
 * A successful answer from our own API. Anything else, such as the login page of a guest network, is treated as no answer.
 *
 * @throws RefusedError for 4xx, UnreachableError for every other failure
 */
export async function answered(path: string, init: RequestInit): Promise<Response> {
  let response: Response;
  // Safe cast: only plain objects are passed as headers here.
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
  // Safe cast: our own server's refusals are objects.
  throw new RefusedError(status, body as Readonly<Record<string, unknown>>);
}

/** Larger bodies are not sent once the page closes (browsers limit `keepalive`). */
const KEEPALIVE_BYTES = 60_000;

/**
 * One request; the type of the answer is trusted. Answers that a visit needs are stored on the device and used when the server cannot be
 * reached; `syncStatus` tells.
 *
 * @throws RefusedError for 4xx, UnreachableError for every other failure
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
    // Safe cast: an earlier answer of our own server.
    return kept.body as T;
  }
}

/**
 * Always asks the server, and stores the answer on the device.
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

/** Changes come in bursts; milliseconds. */
const SETTLED_MS = 2000;
const settling = new Map<string, ReturnType<typeof setTimeout>>();

/** Refetches a stored answer that a write made old, once writing pauses. */
function keepAnew(path: string): void {
  clearTimeout(settling.get(path));
  settling.set(
    path,
    setTimeout(() => {
      settling.delete(path);
      // Offline, the old answer stays, and the page says how old it is.
      void fetchAnew<unknown>(path).catch(() => undefined);
    }, SETTLED_MS),
  );
}

/** Loaded on first use; sign-in does not need it. */
const keptModule = () => import('../offlineCache/kept.ts');
const ownerOf = (path: string) => (path === SESSION_PATH ? OF_DEVICE : ownerName());

/** Asks for the password again where the server wants that, and sends the request once more. */
async function asked<T>(...asking: Parameters<typeof sent<T>>): Promise<T> {
  try {
    return await sent<T>(...asking);
  } catch (error) {
    const isUnconfirmed = error instanceof RefusedError && error.code === 'confirm-needed';
    if (!isUnconfirmed || !(await confirming.ask())) throw error;
    return sent<T>(...asking);
  }
}

async function sent<T>(
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

/** Why a write failed, as a message. Without an answer the outcome is not known; sending the same write again does it once. */
export const failureWords = (error: unknown, refused: string): string =>
  error instanceof RefusedError
    ? `${refused}: ${error.faults.map(({ message }) => message).join(' ') || error.message}`
    : error instanceof Error
      ? say`We could not confirm the save: ${error.message}. Try again; it is only done once.`
      : say`We could not confirm the save: there was no answer. Try again; it is only done once.`;

/** A new id for a write. */
export const newId = (): string => crypto.randomUUID();

/** How to write times and dates in messages made by the server. */
export interface Style {
  readonly clock: ClockStyle;
  readonly order: DateOrder;
}

export const styleQuery = ({ clock, order }: Style): string => `clock=${clock}&order=${order}`;
