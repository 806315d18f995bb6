import {
  Catch,
  HttpException,
  Logger,
  type ArgumentsHost,
  type ExceptionFilter,
} from '@nestjs/common';
import type { Response } from 'express';
import { API_CODES, type ApiCode } from './api-codes.ts';
import { ApiError, type ApiErrorBody } from './api-error.ts';
import { isDatabaseTrouble } from './database-trouble.ts';

/** The codes of the framework's own failures: the first code with that status. */
const codeOfStatus = (status: number): ApiCode =>
  // The cast holds because the keys of the table are the codes.
  (Object.keys(API_CODES) as ApiCode[]).find((code) => API_CODES[code].status === status) ??
  'malformed-request';

const MESSAGE_OF_STATUS: Readonly<Record<number, string>> = {
  404: 'there is nothing at this address',
  429: 'too many tries; wait a minute and try again',
};

const RETRY_AFTER_SECONDS = 2;

/** Gives every failure the form of `ApiErrorBody`. Unexpected ones are logged, and their details stay in the log. */
@Catch()
export class ApiErrorFilter implements ExceptionFilter {
  private readonly logger = new Logger('ApiErrorFilter');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (error instanceof ApiError) {
      if (error.getStatus() === 503) response.setHeader('Retry-After', RETRY_AFTER_SECONDS);
      response.status(error.getStatus()).json(error.getResponse());
      return;
    }
    if (error instanceof HttpException && error.getStatus() < 500) {
      const status = error.getStatus();
      const body: ApiErrorBody = {
        code: codeOfStatus(status),
        message: MESSAGE_OF_STATUS[status] ?? error.message,
      };
      response.status(status).json(body);
      return;
    }
    if (isDatabaseTrouble(error)) {
      this.logger.warn(error);
      const body: ApiErrorBody = {
        code: 'unavailable',
        message:
          'the database cannot be reached at the moment; whether your change was saved is not known, and sending it again is safe',
      };
      response
        .status(API_CODES.unavailable.status)
        .setHeader('Retry-After', RETRY_AFTER_SECONDS)
        .json(body);
      return;
    }
    this.logger.error(error);
    const body: ApiErrorBody = {
      code: 'failed',
      message:
        'something went wrong on the server; check whether your change was saved before you try again',
    };
    response.status(API_CODES.failed.status).json(body);
  }
}
