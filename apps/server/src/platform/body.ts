import type { NextFunction, Request, RequestHandler, Response } from 'express';
import express from 'express';
import type { ApiErrorBody, ApiFault } from './api-error.ts';

/** The largest plan that the format allows is about 200 kB; five times that. */
export const MOST_BODY_BYTES = 1_000_000;
/** A plan document is six levels deep. */
const MOST_LEVELS = 32;

interface BodyError {
  readonly status?: number;
  readonly type?: string;
  readonly message?: string;
}

const refuse = (response: Response, status: number, body: ApiErrorBody) =>
  response.status(status).json(body);

/** Reads JSON bodies up to `MOST_BODY_BYTES`, and says in the API's own form what is wrong with others. */
export function jsonBody(): RequestHandler {
  const parse = express.json({ limit: MOST_BODY_BYTES, strict: false });
  return (request, response, next) => {
    // A photo has been read already.
    if (Buffer.isBuffer(request.body)) {
      next();
      return;
    }
    const hasBody =
      request.headers['transfer-encoding'] !== undefined ||
      Number(request.headers['content-length'] ?? 0) > 0;
    if (hasBody && !request.is(['application/json', '+json'])) {
      request.resume();
      refuse(response, 415, {
        code: 'wrong-media-type',
        message: 'the body must be JSON: Content-Type: application/json',
      });
      return;
    }
    parse(request, response, (error?: unknown) => {
      if (error === undefined) {
        next();
        return;
      }
      const { status = 400, type, message } = error as BodyError;
      // Drain the rest, so that the client reads this answer and not a broken connection.
      request.resume();
      if (type === 'entity.too.large')
        refuse(response, 413, {
          code: 'too-large',
          message: `the body is too large; allowed: ${MOST_BODY_BYTES} bytes`,
        });
      else if (type === 'entity.parse.failed')
        refuse(response, 400, {
          code: 'malformed-request',
          message: `the body is not JSON: ${message ?? ''}`,
          faults: [{ code: 'not-json', path: 'document', message: message ?? '' }],
        });
      else
        refuse(response, status >= 400 && status < 500 ? status : 400, {
          code: 'malformed-request',
          message: message ?? 'the body cannot be read',
        });
    });
  };
}

/** A photo as a device sends it, scaled down: 1,600 pixels of an ordinary garden are well below this. */
export const MOST_PHOTO_BYTES = 3_000_000;
/** A site with its photos, packed. */
export const MOST_ARCHIVE_BYTES = 60_000_000;

interface RawPath {
  readonly path: RegExp;
  readonly what: string;
  readonly limit: number;
}
const RAW_PATHS: readonly RawPath[] = [
  { path: /^\/api\/photos\/[^/]+$/, what: 'photo', limit: MOST_PHOTO_BYTES },
  { path: /^\/api\/sites\/[^/]+\/archive$/, what: 'archive', limit: MOST_ARCHIVE_BYTES },
];

/** Reads the bytes of what is no JSON; what they are is looked at later, by content. */
export function rawBody(): RequestHandler {
  const readers = RAW_PATHS.map((one) => ({
    ...one,
    read: express.raw({ limit: one.limit, type: () => true }),
  }));
  return (request, response, next) => {
    const raw = readers.find(({ path }) => request.method === 'PUT' && path.test(request.path));
    if (!raw) {
      next();
      return;
    }
    raw.read(request, response, (error?: unknown) => {
      if (error === undefined) {
        next();
        return;
      }
      request.resume();
      refuse(response, 413, {
        code: 'too-large',
        message: `the ${raw.what} is too large; allowed: ${raw.limit} bytes`,
      });
    });
  };
}

/** U+0000 and halves of surrogate pairs: valid in JSON, but no text that a database can keep. */
const isStorable = (text: string) => !/[\0\p{Surrogate}]/u.test(text);

/** The first thing in a JSON value that could not be kept, or would be unsafe to walk; null where there is none. */
export function bodyFault(body: unknown): ApiFault | null {
  const waiting: { value: unknown; path: string; level: number }[] = [
    { value: body, path: '', level: 0 },
  ];
  for (let one = waiting.pop(); one; one = waiting.pop()) {
    const { value, path, level } = one;
    const at = path === '' ? 'document' : path;
    if (typeof value === 'string' && !isStorable(value))
      return {
        code: 'unstorable-text',
        path: at,
        message: 'this text holds U+0000 or half a character; write it without them',
      };
    if (typeof value !== 'object' || value === null) continue;
    if (level >= MOST_LEVELS)
      return { code: 'too-deep', path: at, message: `at most ${MOST_LEVELS} levels are allowed` };
    for (const [key, child] of Object.entries(value)) {
      const childPath = Array.isArray(value) ? `${path}[${key}]` : path ? `${path}.${key}` : key;
      if (key === '__proto__' || !isStorable(key))
        return {
          code: 'unknown-field',
          path: isStorable(childPath) ? childPath : at,
          message: 'a field of this name is not allowed anywhere',
        };
      waiting.push({ value: child, path: childPath, level: level + 1 });
    }
  }
  return null;
}

/** Refuses bodies that hold what nobody could keep, before anything else sees them. */
export function soundBody(request: Request, response: Response, next: NextFunction): void {
  const fault = Buffer.isBuffer(request.body) ? null : bodyFault(request.body);
  if (fault)
    refuse(response, 400, {
      code: 'malformed-request',
      message: `${fault.path}: ${fault.message}`,
      faults: [fault],
    });
  else next();
}

/** Writes from another origin's page are refused; the session cookie's SameSite is the first line, this the second. */
export function sameOrigin(request: Request, response: Response, next: NextFunction): void {
  const { origin, host } = request.headers;
  const reads = request.method === 'GET' || request.method === 'HEAD';
  const own = origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
  if (reads || own) next();
  else
    refuse(response, 403, {
      code: 'foreign-origin',
      message: 'this request comes from the page of another site',
    });
}
