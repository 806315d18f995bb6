import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { ApiError, type ApiFault } from './api-error.ts';

export function faultsOf(errors: readonly ValidationError[], parent: string): ApiFault[] {
  return errors.flatMap((error) => {
    // As core writes paths: places in a list in brackets.
    const isPlace = /^\d+$/.test(error.property);
    const path =
      parent === ''
        ? error.property
        : isPlace
          ? `${parent}[${error.property}]`
          : `${parent}.${error.property}`;
    const own = Object.entries(error.constraints ?? {}).map(([code, message]) => ({
      code: code === 'whitelistValidation' ? 'unknown-field' : code,
      path,
      message,
    }));
    return [...own, ...faultsOf(error.children ?? [], path)];
  });
}

/** Checks request bodies against their DTO classes; a field that the class does not name is refused. */
export const validationPipe = () =>
  new ValidationPipe({
    whitelist: true,
    forbidNonWhitelisted: true,
    transform: true,
    stopAtFirstError: true,
    exceptionFactory: (errors) => {
      const faults = faultsOf(errors, '');
      const first = faults[0];
      return new ApiError({
        code: 'malformed-request',
        message: first ? first.message : 'the request is malformed',
        faults,
      });
    },
  });
