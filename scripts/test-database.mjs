/** Databases for tests: each file has its own copy of one that a server has filled with the demo data. */
import { randomBytes } from 'node:crypto';
import path from 'node:path';
import { ensureDatabase, withClient } from './cluster.mjs';
import { sleep } from './processes.mjs';
import { startServer } from './server.mjs';

const TEMPLATE = 'demo_template';

const within = (adminUrl, name) => {
  const url = new URL(adminUrl);
  url.pathname = name;
  return url.href;
};

/** Fills the template: tables, demo data, and every timer's status. */
export async function makeTemplate(adminUrl, folder) {
  await ensureDatabase(adminUrl, TEMPLATE);
  const databaseUrl = within(adminUrl, TEMPLATE);
  const server = await startServer({
    databaseUrl,
    env: { WATER_CLOCK_DEMO: '1', LOG_LEVEL: 'error' },
    logFile: path.join(folder, 'template.log'),
  });
  try {
    await withClient(databaseUrl, async (client) => {
      for (;;) {
        const { rows } = await client.query(
          'select 1 from timer_status where stale or claimed_until is not null limit 1',
        );
        if (rows.length === 0) return;
        await sleep(50);
      }
    });
  } finally {
    await server.stop();
  }
}

/**
 * @param {{ empty?: boolean }} [options] empty: without tables
 * @returns {Promise<string>} the connection string of a new database
 */
export async function makeTestDatabase({ empty = false } = {}) {
  const adminUrl = process.env.TEST_DATABASE_ADMIN_URL;
  if (!adminUrl) throw new Error('TEST_DATABASE_ADMIN_URL is missing; run these tests by bin/test');
  const name = `test_${randomBytes(6).toString('hex')}`;
  await ensureDatabase(adminUrl, name, empty ? undefined : TEMPLATE);
  return within(adminUrl, name);
}
