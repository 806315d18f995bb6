/** A new, empty database in the cluster of the test run, for one file of tests. */
import { randomBytes } from 'node:crypto';
import { ensureDatabase } from './cluster.mjs';

/** @returns {Promise<string>} its connection string */
export async function makeTestDatabase() {
  const adminUrl = process.env.TEST_DATABASE_ADMIN_URL;
  if (!adminUrl) throw new Error('TEST_DATABASE_ADMIN_URL is missing; run these tests by bin/test');
  const name = `test_${randomBytes(6).toString('hex')}`;
  await ensureDatabase(adminUrl, name);
  const url = new URL(adminUrl);
  url.pathname = name;
  return url.href;
}
