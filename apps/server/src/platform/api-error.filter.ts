import {
  Catch,
  HttpException,
  Logger,
  type ArgumentsHost,
  type ExceptionFilter,
} from '@nestjs/common';
import type { Response } from 'express';
import { ApiError, type ApiCode, type ApiErrorBody } from './api-error.ts';

const CODE_OF_STATUS: Readonly<Record<number, ApiCode>> = {
  400: 'malformed-request',
  401: 'not-signed-in',
  404: 'not-found',
  413: 'too-large',
  415: 'wrong-media-type',
  429: 'too-many-tries',
};

const MESSAGE_OF_STATUS: Readonly<Record<number, string>> = {
  404: 'there is nothing at this address',
  429: 'too many tries; wait a minute and try again',
};

/** Gives every failure the one form of `ApiErrorBody`. What nobody foresaw is logged, and told without its insides. */
@Catch()
export class ApiErrorFilter implements ExceptionFilter {
  private readonly logger = new Logger('ApiErrorFilter');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (error instanceof ApiError) {
      response.status(error.getStatus()).json(error.getResponse());
      return;
    }
    if (error instanceof HttpException) {
      const status = error.getStatus();
      const body: ApiErrorBody = {
        code: CODE_OF_STATUS[status] ?? 'malformed-request',
        message: MESSAGE_OF_STATUS[status] ?? error.message,
      };
      response.status(status).json(body);
      return;
    }
    this.logger.error(error);
    const body: ApiErrorBody = {
      code: 'failed',
      message: 'something went wrong on the server; nothing was changed',
    };
    response.status(500).json(body);
  }
}
