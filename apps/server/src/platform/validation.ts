import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { isUUID } from 'class-validator';
import { ApiError, notFound, type ApiFault } from './api-error.ts';

export function faultsOf(errors: readonly ValidationError[], parent: string): ApiFault[] {
  return errors.flatMap((error) => {
    const path = parent === '' ? error.property : `${parent}.${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([code, message]) => ({
      code: code === 'whitelistValidation' ? 'unknown-field' : code,
      path,
      message,
    }));
    return [...own, ...faultsOf(error.children ?? [], path)];
  });
}

/** Checks request bodies against their DTO classes; what the class does not name is refused. */
export const validationPipe = () =>
  new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    transform: true,
    stopAtFirstError: true,
    exceptionFactory: (errors) => {
      const faults = faultsOf(errors, '');
      const first = faults[0];
      return new ApiError(400, {
        code: 'malformed-request',
        message: first ? first.message : 'the request is malformed',
        faults,
      });
    },
  });

/** An id from a path. One that is no UUID names nothing, so it is answered like any other that is not there. */
export function parseId(text: string, what: string): string {
  if (!isUUID(text)) throw notFound(what);
  return text.toLowerCase();
}
