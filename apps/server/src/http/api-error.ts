import { HttpException } from '@nestjs/common';
import { faultSentence, pathText, type Fault, type Path, say, sayText } from '@water-clock/core';
import { API_CODES, type ApiCode } from './api-codes.ts';

/** One thing wrong with a request, for a machine (`code`, `path`) and a person (`message`). */
export interface ApiFault {
  readonly code: string;
  readonly path: string;
  readonly message: string;
}

/** The body of every answer that is not a success. */
export interface ApiErrorBody {
  readonly code: ApiCode;
  readonly message: string;
  readonly faults?: readonly ApiFault[];
  /** Number of faults not listed. */
  readonly moreFaults?: number;
}

/** More would not be read, and answers stay small. */
const MOST_FAULTS = 100;

const RETRY_AFTER_SECONDS = 2;

/** An expected failure, with the status of its code. */
export class ApiError extends HttpException {
  readonly code: ApiCode;
  /** Value of `Retry-After`; null if trying again does not help. */
  readonly retryAfterSeconds: number | null;

  constructor(
    body: ApiErrorBody & Record<string, unknown>,
    retryAfterSeconds: number | null = null,
  ) {
    const { faults = [] } = body;
    const more = faults.length - MOST_FAULTS;
    super(
      more > 0
        ? {
            ...body,
            message: say`${body.message} (and ${faults.length - 1} more)`,
            faults: faults.slice(0, MOST_FAULTS),
            moreFaults: more,
          }
        : body,
      API_CODES[body.code].status,
    );
    this.code = body.code;
    const status: number = API_CODES[body.code].status;
    this.retryAfterSeconds = retryAfterSeconds ?? (status === 503 ? RETRY_AFTER_SECONDS : null);
  }
}

/** Core's faults in the API's form, with paths as seen from the request body. */
export function apiFaults(faults: readonly Fault[], prefix: Path): ApiFault[] {
  return faults.map((fault) => ({
    code: fault.code,
    path: pathText([...prefix, ...fault.path]),
    message: faultSentence(fault),
  }));
}

/** 422: the request is well-formed, but core refuses it. */
export function notAccepted(faults: readonly ApiFault[]): ApiError {
  const first = faults[0];
  return new ApiError({
    code: 'not-accepted',
    message: first ? `${first.path}: ${first.message}` : say`this was not accepted`,
    faults,
  });
}

/** 404, the same whether it does not exist or belongs to another company. */
export const notFound = (what: string) =>
  new ApiError({ code: 'not-found', message: say`there is no such ${sayText(what)}` });

/** 503: the outcome of the request is not known. */
export const unavailable = (
  message = say`the database cannot be reached right now; we could not confirm the save. Sending it again is safe`,
) => new ApiError({ code: 'unavailable', message });
