/** The private database cluster of bin/start and bin/test. */
import net from 'node:net';
import { afterAll, expect, jest, test } from '@jest/globals';
import pg from 'pg';
import { ensureDatabase, freePort, startCluster, type Cluster } from '../scripts/cluster.mjs';

jest.setTimeout(900_000);
// Named like those of test runs, so that the next run removes one left behind.
const name = `test-${process.pid}`;
let cluster: Cluster | null = null;
afterAll(() => cluster?.remove());

async function ask(url: string, sql: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(sql)).rows;
  } finally {
    await client.end();
  }
}

test('it asks for the password, listens on loopback alone, and keeps its data through a restart', async () => {
  cluster = await startCluster({ name, throwAway: true });
  await ensureDatabase(cluster.url('postgres'), 'kept');
  await ensureDatabase(cluster.url('postgres'), 'kept');
  await ask(cluster.url('kept'), 'create table garden (name text)');
  await ask(cluster.url('kept'), "insert into garden values ('lawn')");
  const wrong = new URL(cluster.url('kept'));
  wrong.password = 'guess';
  await expect(ask(wrong.href, 'select 1')).rejects.toThrow(/password authentication failed/);
  const [setting] = await ask(cluster.url('kept'), 'show listen_addresses');
  expect(setting).toEqual({ listen_addresses: '127.0.0.1' });
  const [encryption] = await ask(cluster.url('kept'), 'show password_encryption');
  expect(encryption).toEqual({ password_encryption: 'scram-sha-256' });

  cluster.stop();
  await expect(ask(cluster.url('kept'), 'select 1')).rejects.toThrow(/ECONNREFUSED/);
  cluster = await startCluster({ name, throwAway: true });
  expect(await ask(cluster.url('kept'), 'select name from garden')).toEqual([{ name: 'lawn' }]);
  // A killed start leaves its cluster running; the next start takes it over.
  cluster = await startCluster({ name, throwAway: true });
  expect(await ask(cluster.url('kept'), 'select name from garden')).toEqual([{ name: 'lawn' }]);
});

test('a port that is taken is told, and any free one is found', async () => {
  const port = await freePort();
  const other = net.createServer();
  await new Promise<void>((resolve) => other.listen(port, '127.0.0.1', resolve));
  await expect(freePort(port)).rejects.toThrow(/EADDRINUSE/);
  expect(await freePort()).not.toBe(port);
  await new Promise((resolve) => other.close(resolve));
});
