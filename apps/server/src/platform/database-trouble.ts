import { QueryFailedError } from 'typeorm';

/** Classes and codes of PostgreSQL (appendix A of its manual) that mean trouble with the database, not with what was asked. */
const TROUBLE = [
  /^08/, // connection
  /^53/, // out of disk, memory or connections
  /^57/, // ended by an operator, starting up, or out of time
  /^58/, // system
  /^25P0[34]$/, // idle for too long
  /^40/, // rolled back for another's sake: a deadlock
  /^55P03$/, // a lock that was not to be had
];

const NETWORK = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH'];

/** The driver has no codes for these. */
const ENDED =
  /^(Connection terminated|Client has encountered a connection error|timeout exceeded when trying to connect|Query read timeout|Driver not Connected)/;

/** Whether an error means that the database is not to be had now. What was asked may have been done nevertheless. */
export function isDatabaseTrouble(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const cause: unknown = error instanceof QueryFailedError ? error.driverError : error;
  if (!(cause instanceof Error)) return false;
  const code = 'code' in cause && typeof cause.code === 'string' ? cause.code : '';
  return (
    NETWORK.includes(code) || TROUBLE.some((one) => one.test(code)) || ENDED.test(cause.message)
  );
}
