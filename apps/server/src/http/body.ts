import { say, wordsOf } from '@water-clock/core';
import { isUtf8 } from 'node:buffer';
import type { IncomingMessage } from 'node:http';
import type { INestApplication } from '@nestjs/common';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { ApiError, type ApiFault } from './api-error.ts';
import { answerFailure } from './api-error.filter.ts';
import { isOfApi } from './api-mark.ts';
import { isPublicWrite } from './public.ts';

/** Five times the largest plan the format allows (about 200 kB). */
const MOST_BODY_BYTES = 1_000_000;
/** Photos scaled down on the device to 1,600 pixels are well below this. */
const MOST_PHOTO_BYTES = 3_000_000;
/** A packed site with photos. */
const MOST_ARCHIVE_BYTES = 60_000_000;
/** A plan document is six levels deep. */
const MOST_LEVELS = 32;

/** Names, an address and a password. */
const MOST_STRANGER_BYTES = 5_000;

interface BodyKind {
  readonly method: string;
  readonly is: (path: string) => boolean;
  readonly what: 'body' | 'photo' | 'archive';
  readonly limit: number;
  /** Bytes, whose content is checked later; otherwise JSON. */
  readonly raw?: true;
}

/** Body limits by route; the first match counts. */
const BODIES: readonly BodyKind[] = [
  { method: 'POST', is: isPublicWrite, what: 'body', limit: MOST_STRANGER_BYTES },
  {
    method: 'PUT',
    is: (path) => /^\/api\/photos\/[^/]+$/.test(path),
    what: 'photo',
    limit: MOST_PHOTO_BYTES,
    raw: true,
  },
  {
    method: 'PUT',
    is: (path) => /^\/api\/sites\/[^/]+\/archive$/.test(path),
    what: 'archive',
    limit: MOST_ARCHIVE_BYTES,
    raw: true,
  },
];
const BODY_WORDS = wordsOf({ body: 'body', photo: 'photo', archive: 'archive' });
const USUAL: BodyKind = { method: '', is: () => true, what: 'body', limit: MOST_BODY_BYTES };

const kindOf = ({ url = '', method = '' }: Pick<IncomingMessage, 'url' | 'method'>): BodyKind => {
  const path = url.split('?')[0] ?? '';
  return BODIES.find((kind) => kind.method === method && kind.is(path)) ?? USUAL;
};

/** Refuses bodies that are not JSON, or not bytes on routes for bytes. */
function mediaType(request: Request, _response: Response, next: NextFunction): void {
  const hasBody =
    request.headers['transfer-encoding'] !== undefined ||
    Number(request.headers['content-length'] ?? 0) > 0;
  if (!hasBody || kindOf(request).raw || request.is(['application/json', '+json'])) {
    next();
    return;
  }
  // Drain the body, so that the client gets this answer and not a broken connection.
  request.resume();
  next(
    new ApiError({
      code: 'wrong-media-type',
      message: 'the body must be JSON: Content-Type: application/json',
    }),
  );
}

/** Error types of the body parsers. */
interface BodyError {
  readonly type?: string;
  readonly message?: string;
}

/** Converts errors of the body parsers to the API's form. */
function bodyFailure(
  error: unknown,
  request: Request,
  _response: Response,
  next: NextFunction,
): void {
  if (error instanceof ApiError) {
    next(error);
    return;
  }
  const { type, message = say`the body cannot be read` } = error as BodyError;
  request.resume();
  if (type === 'entity.too.large') {
    const { what, limit } = kindOf(request);
    next(
      new ApiError({
        code: 'too-large',
        message: say`the ${BODY_WORDS[what]} is too large; allowed: ${limit} bytes`,
      }),
    );
  } else if (type === 'entity.parse.failed')
    next(
      new ApiError({
        code: 'malformed-request',
        message: `the body is not JSON: ${message}`,
        faults: [{ code: 'not-json', path: 'document', message }],
      }),
    );
  else next(type === undefined ? error : new ApiError({ code: 'malformed-request', message }));
}

/** JSON must be UTF-8 (RFC 8259); otherwise other characters would be saved than were sent. */
function utf8Only(_request: IncomingMessage, _response: unknown, bytes: Buffer, charset: string) {
  if (charset !== 'utf-8' || !isUtf8(bytes)) throw new Error('the body must be JSON in UTF-8');
}

/** Answers requests that failed before routing. Without it, the static file server would answer "not found". */
function earlyAnswer(error: unknown, request: Request, response: Response, next: NextFunction) {
  if (isOfApi(request.path)) answerFailure(error, response);
  else next(error);
}

/**
 * Parses request bodies with the framework's parsers and limits, and refuses what cannot be stored.
 *
 * @param before checks a request before its body is read
 */
export function readBodies(app: NestExpressApplication, before: RequestHandler): void {
  app.use(before, mediaType);
  for (const kind of [...BODIES, USUAL])
    if (kind.raw)
      app.useBodyParser('raw', { limit: kind.limit, type: (request) => kindOf(request) === kind });
    else
      app.useBodyParser('json', {
        limit: kind.limit,
        strict: false,
        type: (request) =>
          kindOf(request) === kind &&
          // Safe cast: an Express request.
          Boolean((request as Request).is(['application/json', '+json'])),
        verify: utf8Only,
      });
  (app as INestApplication).use(bodyFailure, soundBody, earlyAnswer);
}

/** U+0000 and lone surrogates are valid in JSON but cannot be stored. */
const isStorable = (text: string) => !/[\0\p{Surrogate}]/u.test(text);

/** The first part of a JSON value that cannot be stored or is unsafe to walk; null if there is none. */
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
        message: 'this text contains U+0000 or half a character; remove them',
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

/** Refuses bodies that cannot be stored, before any other code sees them. */
function soundBody(request: Request, _response: Response, next: NextFunction): void {
  const fault = Buffer.isBuffer(request.body) ? null : bodyFault(request.body);
  next(
    fault
      ? new ApiError({
          code: 'malformed-request',
          message: `${fault.path}: ${fault.message}`,
          faults: [fault],
        })
      : undefined,
  );
}

/** Refuses writes from pages of other origins. The cookie's SameSite attribute is the first defence, this the second. */
export function sameOrigin(request: Request, _response: Response, next: NextFunction): void {
  const { origin, host } = request.headers;
  const reads = request.method === 'GET' || request.method === 'HEAD';
  const own = origin === undefined || (URL.canParse(origin) && new URL(origin).host === host);
  next(
    reads || own
      ? undefined
      : new ApiError({
          code: 'foreign-origin',
          message: 'this request comes from the page of another site',
        }),
  );
}
