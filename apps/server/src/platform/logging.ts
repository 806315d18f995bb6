/** The log: JSON lines without personal data. */
import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { DestinationStream, Logger } from 'pino';
import { pino } from 'pino';
import { pinoHttp, type HttpLogger } from 'pino-http';
import { QueryFailedError } from 'typeorm';

const REQUEST_ID = 'X-Request-Id';
/** Keeps a request id from a proxy if it is valid. */
const SOUND_ID = /^[\w-]{8,64}$/;

const text = (value: unknown) => (typeof value === 'string' ? value : undefined);

/** Class and stack of an error. The database's own text can hold names, phone numbers and notes, so it is left out. */
function bareError(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error };
  const cause: unknown = error instanceof QueryFailedError ? error.driverError : error;
  const of: Record<string, unknown> = cause instanceof Error ? { ...cause } : {};
  const isOfDatabase = error instanceof QueryFailedError || 'severity' in of;
  return {
    type: error.constructor.name,
    code: text(of['code']),
    constraint: text(of['constraint']),
    table: text(of['table']),
    routine: text(of['routine']),
    ...(isOfDatabase ? {} : { message: error.message }),
    stack: error.stack
      ?.split('\n')
      .filter((line) => /^\s+at /.test(line))
      .join('\n'),
  };
}

/**
 * The server's log.
 *
 * @param to stream; standard output by default
 */
export const logOf = (level: string, to?: DestinationStream): Logger => {
  const options = { level, serializers: { err: bareError, error: bareError }, base: null };
  return to ? pino(options, to) : pino(options);
};

/** Logs each request with the id its answer carries. Leaves out the query. */
export const requestLog = (logger: Logger): HttpLogger =>
  pinoHttp({
    logger,
    genReqId: ({ headers }: IncomingMessage, response: ServerResponse) => {
      const given = headers[REQUEST_ID.toLowerCase()];
      const id = typeof given === 'string' && SOUND_ID.test(given) ? given : randomUUID();
      response.setHeader(REQUEST_ID, id);
      return id;
    },
    wrapSerializers: false,
    serializers: {
      req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
        id,
        method,
        // The last part of the path is the calendar's secret.
        path: url.split('?')[0]?.replace(/^(\/api\/calendars\/).*/, '$1…'),
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      err: bareError,
    },
    // 503 is an outage or overload; other 5xx are our bugs.
    customLogLevel: (_request, { statusCode }) =>
      statusCode < 500 ? 'info' : statusCode === 503 ? 'warn' : 'error',
  });
