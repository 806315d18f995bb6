/** The server's settings from the environment. */
import { expect, test } from '@jest/globals';
import { readSettings } from '../src/platform/settings.ts';

const DATABASE_URL = 'postgres://localhost/clock';

test('only the database has to be named; all else has a usual value', () => {
  expect(readSettings({ DATABASE_URL })).toMatchObject({
    databaseUrl: DATABASE_URL,
    port: 0,
    host: '127.0.0.1',
    demo: false,
    secureCookies: false,
    signInTriesPerMinute: 10,
    pageTriesPerMinute: 60,
    webRoot: null,
    logLevel: 'info',
  });
});

test('text becomes numbers and flags', () => {
  const env = {
    DATABASE_URL,
    PORT: '8080',
    WATER_CLOCK_DEMO: '1',
    WATER_CLOCK_SECURE_COOKIES: 'yes',
  };
  expect(readSettings(env)).toMatchObject({ port: 8080, demo: true, secureCookies: false });
});

test.each([
  [{}, 'DATABASE_URL is missing: run bin/start, or name a PostgreSQL server'],
  [{ DATABASE_URL, PORT: 'many' }, 'PORT must be a whole number, 0 or more'],
  [{ DATABASE_URL, WATER_CLOCK_URL: 'company' }, /WATER_CLOCK_URL must be an address/],
  [{ DATABASE_URL, WATER_CLOCK_SIGN_UP: 'yes' }, /WATER_CLOCK_SIGN_UP must be one of closed, open/],
  [
    { DATABASE_URL, WATER_CLOCK_SMTP: 'smtp://localhost' },
    /WATER_CLOCK_MAIL_FROM is missing.*WATER_CLOCK_URL is missing/,
  ],
  [{ DATABASE_URL, PORT: '-1' }, 'PORT must be a whole number, 0 or more'],
  [{ DATABASE_URL, PORT: '80.5' }, 'PORT must be a whole number, 0 or more'],
  [
    { DATABASE_URL, WATER_CLOCK_SIGN_IN_TRIES: 'x' },
    'WATER_CLOCK_SIGN_IN_TRIES must be a whole number, 0 or more',
  ],
  [
    { DATABASE_URL, WATER_CLOCK_PAGE_TRIES: '-5' },
    'WATER_CLOCK_PAGE_TRIES must be a whole number, 0 or more',
  ],
  [
    { DATABASE_URL, LOG_LEVEL: 'loud' },
    'LOG_LEVEL must be one of fatal, error, warn, info, debug, trace, silent',
  ],
])('%j is refused with what is allowed', (env, message) => {
  expect(() => readSettings(env)).toThrow(message);
});

test('all that is wrong is told at once', () => {
  const env = { PORT: 'x', LOG_LEVEL: 'y' };
  for (const name of ['DATABASE_URL is missing', 'PORT must be', 'LOG_LEVEL must be'])
    expect(() => readSettings(env)).toThrow(name);
});
