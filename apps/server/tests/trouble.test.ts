/** If the database fails during a write, the answer says that the outcome is not known. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { QueryFailedError } from 'typeorm';
import { isDatabaseTrouble } from '../src/platform/database-trouble.ts';
import { FENNIMORE, startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const failed = (code: string, message = 'no') =>
  new QueryFailedError('select 1', [], Object.assign(new Error(message), { code }));

test.each([
  ['a server that shuts down', failed('57P01'), true],
  ['a statement out of time', failed('57014'), true],
  ['a deadlock', failed('40P01'), true],
  ['a full disk', failed('53100'), true],
  ['a lock out of time', failed('55P03'), true],
  ['nobody who listens', Object.assign(new Error('connect'), { code: 'ECONNREFUSED' }), true],
  ['a connection that ended', new Error('Connection terminated unexpectedly'), true],
  ['a row that is there already', failed('23505'), false],
  ['text where a number is due', failed('22P02'), false],
  ['a mistake of ours', new TypeError('x is undefined'), false],
  ['no error', 'timeout exceeded when trying to connect', false],
])('%s: trouble with the database is told from other failures', (_what, error, is) => {
  expect(isDatabaseTrouble(error)).toBe(is);
});

test('a write whose connection ends is answered as not known, and is safe to send again', async () => {
  const { database, tamsin } = server;
  const { version } = (await tamsin.get(`/api/timers/${FENNIMORE}/version`)).body as {
    version: number;
  };
  const body = {
    id: randomUUID(),
    baseVersion: version,
    way: 'do',
    change: { type: 'note', fields: { rain: 'sensor' } },
  };
  const send = () => tamsin.post(`/api/timers/${FENNIMORE}/changes`).send(body);
  const holder = database.createQueryRunner();
  await holder.startTransaction();
  await holder.query('select 1 from timers where id = $1 for update', [FENNIMORE]);
  const answer = send().then((response) => response);
  const waiting = `select pid from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`;
  let pids: { pid: number }[] = [];
  while (pids.length === 0) pids = await database.query(waiting);
  await database.query('select pg_terminate_backend($1)', [pids[0]?.pid]);
  const told = await answer;
  await holder.rollbackTransaction();
  await holder.release();
  expect(told.status).toBe(503);
  expect(told.headers['retry-after']).toBe('2');
  expect(told.body).toMatchObject({ code: 'unavailable' });
  expect((told.body as { message: string }).message).toMatch(/could not confirm/);
  expect((await send().expect(200)).body).toEqual({ version: version + 1 });
  expect((await send().expect(200)).body).toEqual({ version: version + 1 });
});
