/** Every error code of the API, with status and meaning. A test compares docs/architecture.md and the OpenAPI document with this table. */
export const API_CODES = {
  'malformed-request': {
    status: 400,
    meaning: 'not JSON, wrong types, unknown or missing fields, or text that cannot be stored',
  },
  'not-signed-in': { status: 401, meaning: 'there is no session' },
  'taken-out': {
    status: 401,
    meaning: 'the person was taken out of the company; what they entered can be handed over',
  },
  'wrong-sign-in': { status: 401, meaning: 'the address and the password do not match' },
  'code-needed': { status: 401, meaning: 'the person has a second factor: send its code, too' },
  'wrong-code': { status: 401, meaning: 'the code of the second factor is wrong, old or used' },
  'another-person': {
    status: 403,
    meaning: 'somebody else is signed in than the one for whom this was made',
  },
  'not-allowed': { status: 403, meaning: 'the role of the person does not allow it' },
  'founding-closed': {
    status: 403,
    meaning: 'nobody may create a company here, or the one-time code is wrong',
  },
  'foreign-origin': { status: 403, meaning: 'a write from the page of another site' },
  'not-found': {
    status: 404,
    meaning: 'it does not exist, or it belongs to another company: the answers are the same',
  },
  'stale-version': { status: 409, meaning: 'somebody saved first; `current` is what is saved' },
  'address-taken': { status: 409, meaning: 'another account has this e-mail address' },
  'proposal-moved': {
    status: 409,
    meaning: 'the proposal was sent, answered or withdrawn meanwhile',
  },
  'visit-open': { status: 409, meaning: 'a visit is under way; close it first' },
  'export-first': {
    status: 409,
    meaning: 'nothing is deleted for good that this person did not save as a file within a day',
  },
  'last-owner': { status: 409, meaning: 'a company keeps at least one owner' },
  'id-reused': { status: 409, meaning: 'the id was used for another write' },
  'link-used': { status: 410, meaning: 'an invitation or a link for a password works once' },
  'link-expired': { status: 410, meaning: 'the invitation or link is too old, or was withdrawn' },
  'too-large': {
    status: 413,
    meaning:
      'more than 1,000,000 bytes; for what strangers send more than 5,000; for a photo more than 3,000,000; for an archive more than 60,000,000',
  },
  'wrong-media-type': { status: 415, meaning: 'the body is not JSON' },
  'not-accepted': {
    status: 422,
    meaning: 'core refuses the document or the change; `faults` says what is wrong and where',
  },
  'too-much-work': {
    status: 422,
    meaning: 'the answer would take more time or memory than one question may cost',
  },
  'too-many-tries': {
    status: 429,
    meaning:
      'failed sign-ins are limited by network address and account together, and by address; openings of a homeowner’s page by address',
  },
  busy: {
    status: 503,
    meaning:
      'as much as may be worked out at once for this company, or for all, is being worked out; try again',
  },
  unavailable: {
    status: 503,
    meaning:
      'the database is not to be had now; whether a write was saved is not known, and sending it again with its id is safe',
  },
  failed: { status: 500, meaning: 'our mistake; the log says more' },
} as const satisfies Record<string, { readonly status: number; readonly meaning: string }>;

export type ApiCode = keyof typeof API_CODES;
