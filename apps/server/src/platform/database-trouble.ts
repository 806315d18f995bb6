import { QueryFailedError } from 'typeorm';

/** PostgreSQL error classes and codes (appendix A of its manual) that mean trouble with the database, not with the request. */
const TROUBLE = [
  /^08/, // connection
  /^53/, // out of disk, memory or connections
  /^57/, // stopped by an operator, starting up, or timed out
  /^58/, // system
  /^25P0[34]$/, // idle for too long
  /^40/, // rolled back in favour of another: deadlock
  /^55P03$/, // lock not available
];

const NETWORK = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EHOSTUNREACH'];

/** The driver has no codes for these. */
const ENDED =
  /^(Connection terminated|Client has encountered a connection error|timeout exceeded when trying to connect|Query read timeout|Driver not Connected)/;

/** Whether an error means that the database is not available. The request may have been carried out all the same. */
export function isDatabaseTrouble(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const cause: unknown = error instanceof QueryFailedError ? error.driverError : error;
  if (!(cause instanceof Error)) return false;
  const code = 'code' in cause && typeof cause.code === 'string' ? cause.code : '';
  return (
    NETWORK.includes(code) || TROUBLE.some((one) => one.test(code)) || ENDED.test(cause.message)
  );
}
