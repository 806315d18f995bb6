/** Every error code of the API, with status and meaning. A test compares docs/api.md and the OpenAPI document with this table. */
export const API_CODES = {
  'malformed-request': {
    status: 400,
    meaning: 'not JSON, wrong types, unknown or missing fields, or text that cannot be stored',
  },
  'not-signed-in': { status: 401, meaning: 'no session' },
  'taken-out': {
    status: 401,
    meaning: 'the person was removed from the company; waiting changes can still be handed in',
  },
  'wrong-sign-in': { status: 401, meaning: 'wrong address or password' },
  'code-needed': { status: 401, meaning: 'the person uses a second factor; send its code as well' },
  'wrong-code': { status: 401, meaning: 'the code of the second factor is wrong, expired or used' },
  'another-person': {
    status: 403,
    meaning: 'made for another person than the one signed in',
  },
  'confirm-needed': {
    status: 403,
    meaning: 'the password was not given in the last ten minutes; `POST /api/session/confirm`',
  },
  'not-allowed': { status: 403, meaning: 'the person’s role does not allow it' },
  'founding-closed': {
    status: 403,
    meaning: 'no one may create a company here, or the one-time code is wrong',
  },
  'foreign-origin': { status: 403, meaning: 'a write from a page of another site' },
  'not-found': {
    status: 404,
    meaning: 'it does not exist or belongs to another company; the answer is the same',
  },
  'stale-version': { status: 409, meaning: 'someone else saved first; `current` is what is saved' },
  'address-taken': { status: 409, meaning: 'another account has this e-mail address' },
  'proposal-moved': {
    status: 409,
    meaning: 'the suggestion was sent, answered or withdrawn in the meantime',
  },
  'visit-open': { status: 409, meaning: 'a visit is open; close it first' },
  'export-first': {
    status: 409,
    meaning: 'permanent deletion requires an archive saved by the same person within a day',
  },
  'last-owner': { status: 409, meaning: 'a company must keep at least one owner' },
  'id-reused': { status: 409, meaning: 'the id was used for another write' },
  'link-used': { status: 410, meaning: 'invitations and password links work once' },
  'link-expired': { status: 410, meaning: 'the link has expired or was withdrawn' },
  'too-large': {
    status: 413,
    meaning:
      'more than 1,000,000 bytes; more than 5,000 without a session, 3,000,000 for a photo, 60,000,000 for an archive',
  },
  'wrong-media-type': { status: 415, meaning: 'the body is not JSON' },
  'not-accepted': {
    status: 422,
    meaning: 'core refuses the document or change; `faults` says what is wrong and where',
  },
  'too-much-work': {
    status: 422,
    meaning: 'the answer would take more time or memory than one question may',
  },
  'too-many-tries': {
    status: 429,
    meaning:
      'limits on failed sign-ins (by address and account, and by address), on openings of homeowner’s pages and on mailed links',
  },
  busy: {
    status: 503,
    meaning: 'the company’s or the server’s limit of heavy work is reached; try again',
  },
  unavailable: {
    status: 503,
    meaning:
      'the database is not available; whether a write was saved is not known, and sending it again with its id is safe',
  },
  failed: { status: 500, meaning: 'a bug of ours; the log says more' },
} as const satisfies Record<string, { readonly status: number; readonly meaning: string }>;

export type ApiCode = keyof typeof API_CODES;
