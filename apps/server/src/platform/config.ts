/** Settings of the server, read once from the environment. */

export interface Config {
  readonly databaseUrl: string;
  /** 0: any free port. */
  readonly port: number;
  readonly host: string;
  /** Loads the demo data once and offers the demo person at the sign-in. */
  readonly demo: boolean;
  /** Whether cookies are for https only. */
  readonly secureCookies: boolean;
  /** Sign-in tries a minute, for one address and for one account. */
  readonly signInTriesPerMinute: number;
  /** Openings of homeowners' pages a minute, for one address. */
  readonly pageTriesPerMinute: number;
  /** Folder of the built web application; null: the API alone. */
  readonly webRoot: string | null;
  readonly logLevel: string;
}

function wholeNumber(name: string, fallback: number): number {
  const text = process.env[name];
  if (text === undefined || text === '') return fallback;
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0)
    throw new Error(`${name} is "${text}"; a whole number of 0 or more is needed`);
  return value;
}

export function readConfig(): Config {
  const databaseUrl = process.env['DATABASE_URL'];
  if (!databaseUrl)
    throw new Error('DATABASE_URL is missing; bin/start sets it, or name a PostgreSQL server');
  return {
    databaseUrl,
    port: wholeNumber('PORT', 0),
    host: process.env['HOST'] ?? '127.0.0.1',
    demo: process.env['WATER_CLOCK_DEMO'] === '1',
    secureCookies: process.env['WATER_CLOCK_SECURE_COOKIES'] === '1',
    signInTriesPerMinute: wholeNumber('WATER_CLOCK_SIGN_IN_TRIES', 10),
    pageTriesPerMinute: wholeNumber('WATER_CLOCK_PAGE_TRIES', 60),
    webRoot: process.env['WATER_CLOCK_WEB_ROOT'] ?? null,
    logLevel: process.env['LOG_LEVEL'] ?? 'info',
  };
}

/** The injection token of `Config`. */
export const CONFIG = Symbol('config');
