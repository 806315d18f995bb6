import type { INestApplication } from '@nestjs/common';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import { ApiError, type ApiFault } from './api-error.ts';

/** The largest plan that the format allows is about 200 kB; five times that. */
export const MOST_BODY_BYTES = 1_000_000;
/** A photo scaled down on the device: 1,600 pixels of an ordinary garden are well below this. */
export const MOST_PHOTO_BYTES = 3_000_000;
/** A site with its photos, packed. */
export const MOST_ARCHIVE_BYTES = 60_000_000;
/** A plan document is six levels deep. */
const MOST_LEVELS = 32;

/** Routes whose body is bytes and not JSON; their content is checked later. */
const RAW_BODIES = [
  { path: /^\/api\/photos\/[^/]+$/, what: 'photo', limit: MOST_PHOTO_BYTES },
  { path: /^\/api\/sites\/[^/]+\/archive$/, what: 'archive', limit: MOST_ARCHIVE_BYTES },
] as const;

const pathOf = ({ url = '' }: Pick<Request, 'url'>) => url.split('?')[0] ?? '';
const rawBodyOf = (request: Pick<Request, 'url' | 'method'>) =>
  request.method === 'PUT' ? RAW_BODIES.find(({ path }) => path.test(pathOf(request))) : undefined;

/** Refuses bodies that are neither JSON nor bytes on a route for bytes. */
function mediaType(request: Request, _response: Response, next: NextFunction): void {
  const hasBody =
    request.headers['transfer-encoding'] !== undefined ||
    Number(request.headers['content-length'] ?? 0) > 0;
  if (!hasBody || rawBodyOf(request) || request.is(['application/json', '+json'])) {
    next();
    return;
  }
  // Read and drop the rest, so that the client gets this answer and not a broken connection.
  request.resume();
  next(
    new ApiError({
      code: 'wrong-media-type',
      message: 'the body must be JSON: Content-Type: application/json',
    }),
  );
}

/** The errors of the body parsers, by their `type`. */
interface BodyError {
  readonly type?: string;
  readonly message?: string;
}

/** Turns the errors of the body parsers into the API's own form. */
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
  const { type, message = 'the body cannot be read' } = error as BodyError;
  request.resume();
  if (type === 'entity.too.large') {
    const { what = 'body', limit = MOST_BODY_BYTES } = rawBodyOf(request) ?? {};
    next(
      new ApiError({
        code: 'too-large',
        message: `the ${what} is too large; allowed: ${limit} bytes`,
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

/** Reads request bodies with the framework's own parsers, within their limits, and refuses what cannot be kept. */
export function readBodies(app: NestExpressApplication): void {
  app.use(mediaType);
  for (const { path, limit } of RAW_BODIES)
    app.useBodyParser('raw', {
      limit,
      // The parser hands over Node's own request, whose `url` is the whole path.
      type: (request) =>
        request.method === 'PUT' && path.test(pathOf({ url: request.url ?? '' } as Request)),
    });
  app.useBodyParser('json', {
    limit: MOST_BODY_BYTES,
    strict: false,
    type: ['application/json', '+json'],
  });
  (app as INestApplication).use(bodyFailure, soundBody);
}

/** U+0000 and halves of surrogate pairs: valid in JSON, but no database can keep them. */
const isStorable = (text: string) => !/[\0\p{Surrogate}]/u.test(text);

/** The first thing in a JSON value that could not be kept, or would be unsafe to walk, or null. */
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

/** Refuses bodies with text that cannot be kept, before anything else sees them. */
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

/** Writes from another origin's page are refused; the session cookie's SameSite is the first line, this the second. */
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
