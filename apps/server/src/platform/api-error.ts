import { HttpException } from '@nestjs/common';
import { faultSentence, pathText, type Fault, type Path } from '@water-clock/core';

/** One thing wrong with a request, for a machine (`code`, `path`) and a person (`message`). */
export interface ApiFault {
  readonly code: string;
  readonly path: string;
  readonly message: string;
}

/** Every code that an answer of the API can carry; docs/architecture.md lists what each means. */
export type ApiCode =
  | 'malformed-request'
  | 'not-accepted'
  | 'too-large'
  | 'wrong-media-type'
  | 'not-signed-in'
  | 'wrong-sign-in'
  | 'too-many-tries'
  | 'foreign-origin'
  | 'not-found'
  | 'stale-version'
  | 'id-reused'
  | 'failed';

/** The body of every answer that is not a success. */
export interface ApiErrorBody {
  readonly code: ApiCode;
  readonly message: string;
  readonly faults?: readonly ApiFault[];
}

/** An expected failure on its way to the client. */
export class ApiError extends HttpException {
  constructor(status: number, body: ApiErrorBody & Record<string, unknown>) {
    super(body, status);
  }
}

/** Core's faults as the API tells them, their paths seen from the request body. */
export function apiFaults(faults: readonly Fault[], prefix: Path): ApiFault[] {
  return faults.map((fault) => ({
    code: fault.code,
    path: pathText([...prefix, ...fault.path]),
    message: faultSentence(fault),
  }));
}

/** 422: the request is well formed, but core refuses what it asks for. */
export function notAccepted(faults: readonly ApiFault[]): ApiError {
  const first = faults[0];
  return new ApiError(422, {
    code: 'not-accepted',
    message: first ? `${first.path}: ${first.message}` : 'this was not accepted',
    faults,
  });
}

/** 404, the same for what does not exist and what belongs to another company. */
export const notFound = (what: string) =>
  new ApiError(404, { code: 'not-found', message: `there is no such ${what}` });
