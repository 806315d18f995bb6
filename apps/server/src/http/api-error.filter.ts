import { say } from '@water-clock/core';
import { Catch, HttpException, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';
import { API_CODES, type ApiCode } from './api-codes.ts';
import { ApiError, unavailable } from './api-error.ts';
import { isDatabaseTrouble } from '../platform/database-trouble.ts';

/** Codes of the framework's own failures: the first code with the status. */
const codeOfStatus = (status: number): ApiCode =>
  // Safe cast: the keys of the table are the codes.
  (Object.keys(API_CODES) as ApiCode[]).find((code) => API_CODES[code].status === status) ??
  'malformed-request';

/** Any failure in the API's form. */
function failureOf(error: unknown): ApiError {
  if (error instanceof ApiError) return error;
  if (error instanceof HttpException && error.getStatus() < 500) {
    const status = error.getStatus();
    const message = status === 404 ? say`this page does not exist` : error.message;
    return new ApiError({ code: codeOfStatus(status), message });
  }
  if (isDatabaseTrouble(error)) return unavailable();
  return new ApiError({
    code: 'failed',
    message: say`something went wrong on the server; check whether your change was saved before you try again`,
  });
}

/** Answers failures as `ApiErrorBody`. Details go only to the log, with the request id. */
export function answerFailure(error: unknown, response: Response): void {
  const failure = failureOf(error);
  // The request log reads it from here.
  if (error instanceof Error && failure.getStatus() >= 500)
    (response as { err?: Error }).err = error;
  // Remove headers the route set before failing; otherwise a browser would cache "no such photo" for a year.
  response.setHeader('Cache-Control', 'no-store');
  if (failure.retryAfterSeconds !== null)
    response.setHeader('Retry-After', failure.retryAfterSeconds);
  response.status(failure.getStatus()).json(failure.getResponse());
}

@Catch()
export class ApiErrorFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    answerFailure(error, host.switchToHttp().getResponse<Response>());
  }
}
