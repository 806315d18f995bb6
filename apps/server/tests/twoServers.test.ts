/** Two servers on one database: starting together on an empty one, writing at once, and leaving demo mode. */
import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { demoSignIn } from '../src/demo/demo.service.ts';
import { isLong } from '../../../packages/core/tests/cases.ts';
import { makeTestDatabase } from '../../../scripts/test-database.mjs';
import { applicationOn, FENNIMORE } from './testServer.ts';

const CLIENTS = isLong ? 20 : 8;
const WRITES_EACH = 3;

let url: string;
let servers: NestExpressApplication[];
beforeAll(async () => {
  url = await makeTestDatabase();
  servers = await Promise.all([applicationOn(url), applicationOn(url)]);
});
afterAll(() => Promise.all(servers.map((server) => server.close())));

const signIn = async (server: NestExpressApplication | undefined) => {
  if (!server) throw new Error('no server');
  const { email, password } = demoSignIn();
  const agent = request.agent(server.getHttpServer());
  const { status } = await agent.post('/api/session').send({ email, password });
  return { agent, status };
};

test('both start on an empty database, and its first data is there once', async () => {
  const database = servers[0]?.get(DataSource);
  const rows: { count: string }[] = (await database?.query('select count(*) from companies')) ?? [];
  expect(rows).toEqual([{ count: '1' }]);
  for (const server of servers) expect((await signIn(server)).status).toBe(204);
});

test(`${CLIENTS} people on one timer, through both, lose nothing and double nothing`, async () => {
  let acknowledged = 0;
  const work = async (server: NestExpressApplication | undefined) => {
    const { agent } = await signIn(server);
    const path = `/api/timers/${FENNIMORE}`;
    let { version } = (await agent.get(`${path}/version`)).body as { version: number };
    for (let done = 0; done < WRITES_EACH;) {
      const body = {
        id: randomUUID(),
        baseVersion: version,
        way: 'do',
        change: { type: 'note', fields: { rain: done % 2 === 0 ? 'sensor' : null } },
      };
      const answer = await agent.post(`${path}/changes`).send(body);
      const told = answer.body as { version: number; current: { version: number } };
      if (answer.status === 200) {
        acknowledged++;
        done++;
        ({ version } = told);
      } else {
        expect(answer.status).toBe(409);
        ({ version } = told.current);
      }
    }
  };
  await Promise.all(Array.from({ length: CLIENTS }, (_, i) => work(servers[i % 2])));
  expect(acknowledged).toBe(CLIENTS * WRITES_EACH);
  const { agent } = await signIn(servers[1]);
  const { version } = (await agent.get(`/api/timers/${FENNIMORE}/version`)).body as {
    version: number;
  };
  expect(version).toBe(1 + acknowledged);
});

test('what strangers try is counted by both together', async () => {
  const pair = await Promise.all(
    [1, 2].map(() => applicationOn(url, { signInTriesPerMinute: 4, workSeconds: 1 })),
  );
  try {
    const statuses: number[] = [];
    for (let n = 0; n < 6; n++) {
      const server = pair[n % 2];
      if (!server) throw new Error('no server');
      const answer = await request(server.getHttpServer())
        .post('/api/session')
        .send({ email: 'somebody@else.example', password: 'guess' });
      statuses.push(answer.status);
    }
    expect(statuses).toEqual([401, 401, 401, 401, 429, 429]);
  } finally {
    await Promise.all(pair.map((server) => server.close()));
  }
});

test('nightly work is planned once for both, and does not keep a server from stopping', async () => {
  const pair = await Promise.all([1, 2].map(() => applicationOn(url, { jobs: true })));
  const planned: { name: string; cron: string }[] =
    (await servers[0]
      ?.get(DataSource)
      .query('select name, cron from pgboss.schedule order by name')) ?? [];
  // A server that does not stop would disturb later tests.
  await Promise.all(pair.map((server) => server.close()));
  expect(planned).toEqual([
    { name: 'hourly-checks', cron: '1 * * * *' },
    { name: 'nightly-clearing', cron: '30 2 * * *' },
  ]);
});

test('nobody waits for ever for the database', async () => {
  const database = servers[0]?.get(DataSource);
  for (const limit of [
    'statement_timeout',
    'lock_timeout',
    'idle_in_transaction_session_timeout',
  ]) {
    const [row]: Record<string, string>[] = (await database?.query(`show ${limit}`)) ?? [];
    expect(row?.[limit]).toMatch(/^[1-9]\d*(s|min)$/);
  }
});

test('without demo mode nobody gets in by the demo, also who was in; with it again they do', async () => {
  const { agent: before } = await signIn(servers[0]);
  await before.get('/api/sites').expect(200);
  const closed = await applicationOn(url, { demo: false });
  try {
    expect((await signIn(closed)).status).toBe(401);
    await before.get('/api/sites').expect(401);
    const told = await request(closed.getHttpServer()).get('/api/session').expect(200);
    expect(told.body).toEqual({ person: null, preferences: null, demo: null });
  } finally {
    await closed.close();
  }
  const again = await applicationOn(url);
  expect((await signIn(again)).status).toBe(204);
  await again.close();
});
