import { ValidationPipe, type ValidationError } from '@nestjs/common';
import { ApiError, type ApiFault } from './api-error.ts';

export function faultsOf(errors: readonly ValidationError[], parent: string): ApiFault[] {
  return errors.flatMap((error) => {
    // Paths as core writes them, with list indexes in brackets.
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

/** Validates request bodies against their DTO classes and refuses unknown fields. */
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
