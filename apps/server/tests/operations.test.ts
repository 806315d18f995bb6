/** What an operator relies on: health, logs, metrics, the activity log and clean-up. */
import { randomUUID } from 'node:crypto';
import { Writable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { RetentionService } from '../src/retention/retention.service.ts';
import { demoSignIn } from '../src/demo/demo.service.ts';
import { makeTestDatabase } from '../../../scripts/test-database.mjs';
import { applicationOn, FENNIMORE, startTestServer, type TestServer } from './testServer.ts';

const { email, password } = demoSignIn();
const TOKEN = 'a-token-for-the-metrics';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer(8, { metricsToken: TOKEN, trustProxy: '1', secureCookies: true });
});
afterAll(() => server.stop());

const http = () => request(server.app.getHttpServer());
const signIn = (agent: request.Agent, from: string, with_ = password) =>
  agent.post('/api/session').set('X-Forwarded-For', from).send({ email, password: with_ });
/** Over HTTP a browser would not send the cookie, so the test does. */
async function cookieOf(from: string): Promise<string> {
  const answer = await signIn(request.agent(server.app.getHttpServer()), from).expect(204);
  const [cookie = ''] = answer.get('Set-Cookie') ?? [];
  return cookie;
}

describe('who comes in', () => {
  test('over https the cookie is bound to the host', async () => {
    const cookie = await cookieOf('10.0.0.1');
    expect(cookie).toMatch(/^__Host-water_clock_session=[\w-]{43}; /);
    for (const part of ['Path=/', 'HttpOnly', 'Secure', 'SameSite=Lax']) {
      expect(cookie).toContain(part);
    }
    expect(cookie).not.toContain('Domain');
  });

  test('who guesses a password locks nobody else out, and is told when to try again', async () => {
    const agent = request.agent(server.app.getHttpServer());
    const statuses: number[] = [];
    for (let i = 0; i < 9; i++) statuses.push((await signIn(agent, '10.0.0.66', 'guess')).status);
    expect(statuses).toEqual([...Array<number>(8).fill(401), 429]);
    const told = await signIn(agent, '10.0.0.66').expect(429);
    expect(told.body).toMatchObject({ code: 'too-many-tries' });
    const seconds = Number(told.headers['retry-after']);
    expect(seconds).toBeGreaterThan(0);
    expect(seconds).toBeLessThanOrEqual(60);
    await signIn(agent, '10.0.0.67').expect(204);
    // Another server on the same database counts too.
    const { database } = server;
    const keys: { key: string }[] = await database.query('select key from tries');
    expect(keys.length).toBeGreaterThan(0);
    expect(JSON.stringify(keys)).not.toMatch(/brindlewick|10\.0\.0/);
  });

  test('a session that nobody uses ends', async () => {
    const [cookie = ''] = (await cookieOf('10.0.0.2')).split(';');
    const ask = () => http().get('/api/sites').set('Cookie', cookie);
    await ask().expect(200);
    const seen = (ago: string) =>
      server.database.query(`update sessions set seen_at = now() - interval '${ago}'`);
    await seen('167 hours');
    await ask().expect(200);
    // The session was used, so it stays.
    const [{ fresh } = { fresh: false }]: { fresh: boolean }[] = await server.database.query(
      `select bool_or(seen_at > now() - interval '1 minute') as fresh from sessions`,
    );
    expect(fresh).toBe(true);
    await seen('169 hours');
    await ask().expect(401);
  });

  test('a browser takes no styles into the page but ours', async () => {
    const page = await http().get('/sites').expect(200);
    const rules = page.headers['content-security-policy'] as string;
    const nonce = /style-src 'self' 'nonce-([^']+)'/.exec(rules)?.[1];
    expect(page.text).toContain(`nonce="${nonce}"`);
    expect(rules).not.toContain('unsafe-inline');
    expect(page.headers['cache-control']).toBe('no-store');
    const again = (await http().get('/sites')).headers['content-security-policy'];
    expect(again).not.toBe(rules);
  });

  test('search engines keep nothing', async () => {
    for (const path of ['/', '/api/session', '/l'])
      expect((await http().get(path)).headers['x-robots-tag']).toBe('noindex, nofollow');
  });
});

describe('the audit record', () => {
  test('says who came in and what went out, to owners alone', async () => {
    const app = await applicationOn(await makeTestDatabase());
    try {
      const owner = request.agent(app.getHttpServer());
      const other = request.agent(app.getHttpServer());
      await owner.post('/api/session').send({ email, password: 'wrong' }).expect(401);
      await owner.post('/api/session').send({ email, password }).expect(204);
      const jory = { email: 'jory@brindlewick.example', password: 'soak-before-sunrise' };
      await other.post('/api/session').send(jory).expect(204);
      const token = 'x'.repeat(43);
      const link = { id: randomUUID(), token, days: 30 };
      for (let i = 0; i < 2; i++)
        await other.post(`/api/timers/${FENNIMORE}/links`).send(link).expect(200);
      await request(app.getHttpServer())
        .get('/api/page')
        .set('Authorization', `Bearer ${token}`)
        .expect(200);
      await other.get(`/api/timers/${FENNIMORE}/export`).expect(200);
      await other.delete('/api/session').expect(204);

      const { body } = await owner
        .get('/api/audit')
        .expect(200)
        .then((answer) => ({
          body: answer.body as { id: string; what: string; by: string | null }[],
        }));
      expect(body.map(({ what, by }) => [what, by])).toEqual([
        ['sign-out', 'Jory Pellaway'],
        ['export', 'Jory Pellaway'],
        ['link-opened', null],
        ['link-made', 'Jory Pellaway'],
        ['sign-in', 'Jory Pellaway'],
        ['sign-in', 'Tamsin Orrowby'],
        ['sign-in-failed', 'Tamsin Orrowby'],
      ]);
      const rest = await owner.get(`/api/audit?before=${body[4]?.id}`).expect(200);
      expect(rest.body).toEqual(body.slice(5));
      await owner.get('/api/audit?before=yesterday').expect(400);
      await other.post('/api/session').send(jory).expect(204);
      const refused = await other.get('/api/audit').expect(403);
      expect(refused.body).toMatchObject({ code: 'not-allowed' });
      await other
        .post('/api/company/changes')
        .send({ id: randomUUID(), baseVersion: 1, keepChangesDays: 90 })
        .expect(403);
    } finally {
      await app.close();
    }
  });
});

describe('a write', () => {
  test('or a question of a page that is open for one person is not answered for another', async () => {
    const { tamsin, jory, stop } = await startTestServer(1000);
    const me = (await tamsin.get('/api/session')).body as { person: { id: string } };
    const body = { id: randomUUID(), baseVersion: 1, preferences: { theme: 'night' } };
    const send = (agent: typeof tamsin, person: string) =>
      agent.post('/api/preferences/changes').set('Water-Clock-Person', person).send(body);
    const refused = await send(jory, me.person.id).expect(403);
    expect(refused.body).toMatchObject({ code: 'another-person' });
    const list = await jory.get('/api/sites').set('Water-Clock-Person', me.person.id);
    expect([list.status, (list.body as { code: string }).code]).toEqual([403, 'another-person']);
    await jory.get('/api/session').set('Water-Clock-Person', me.person.id).expect(200);
    await send(tamsin, me.person.id).expect(200);
    await stop();
  });

  test('that is under way when the server is told to stop is finished', async () => {
    const { app, database, tamsin } = await startTestServer(1000, { databaseConnections: 12 });
    await app.listen(0);
    const [cookie = ''] = (
      await request(await app.getUrl())
        .post('/api/session')
        .send({ email, password })
    ).get('Set-Cookie') ?? [''];
    const { version } = (await tamsin.get(`/api/timers/${FENNIMORE}/version`)).body as {
      version: number;
    };
    const holder = database.createQueryRunner();
    await holder.startTransaction();
    await holder.query('select 1 from timers where id = $1 for update', [FENNIMORE]);
    const url = `${await app.getUrl()}/api/timers/${FENNIMORE}/changes`;
    const headers = { 'content-type': 'application/json', cookie: cookie.split(';')[0] ?? '' };
    const writes = Array.from({ length: 8 }, () =>
      fetch(url, {
        method: 'POST',
        headers,
        body: JSON.stringify({
          id: randomUUID(),
          baseVersion: version,
          way: 'do',
          change: { type: 'note', fields: { rain: 'sensor' } },
        }),
      }),
    );
    const waiting = `select count(*)::int as count from pg_stat_activity
      where datname = current_database() and wait_event_type = 'Lock'`;
    const countOf = async () => {
      const [row]: { count: number }[] = await database.query(waiting);
      return row?.count ?? 0;
    };
    for (let count = 0; count < 8;) count = await countOf();
    const closed = app.close();
    await holder.rollbackTransaction();
    await holder.release();
    const statuses = (await Promise.all(writes)).map(({ status }) => status).sort();
    expect(statuses).toEqual([200, ...Array<number>(7).fill(409)]);
    const began = performance.now();
    await closed;
    // Kept-alive connections do not delay it.
    expect(performance.now() - began).toBeLessThan(4000);
  });
});

describe('health', () => {
  test('answers within a second, whatever the database does', async () => {
    const busy = await applicationOn(await makeTestDatabase(), {
      ...{ databaseConnections: 2, databasePatience: 1 },
    });
    const database = busy.get(DataSource);
    const holders = [database.createQueryRunner(), database.createQueryRunner()];
    try {
      const ask = (path: string) => request(busy.getHttpServer()).get(`/api/health${path}`);
      await ask('/ready').expect(200, { ok: true });
      // New connections are refused.
      for (const holder of holders) await holder.connect();
      const answers = await Promise.all(['/live', '/ready', ''].map((path) => ask(path)));
      expect(answers.map(({ status }) => status)).toEqual([200, 503, 503]);
      expect(answers[1]?.body).toMatchObject({ code: 'unavailable' });
      expect(answers[1]?.headers['retry-after']).toBe('2');
    } finally {
      for (const holder of holders) await holder.release();
      await busy.close();
    }
  }, 30_000);
});

describe('the log', () => {
  const lines: Record<string, unknown>[] = [];
  let app: NestExpressApplication;
  beforeAll(async () => {
    const to = new Writable({
      write: (chunk: Buffer, _encoding, done) => {
        for (const line of chunk.toString().trim().split('\n'))
          lines.push(JSON.parse(line) as Record<string, unknown>);
        done();
      },
    });
    app = await applicationOn(await makeTestDatabase(), { logLevel: 'info' }, to);
  });
  afterAll(() => app.close());

  test('has each request under the id that its answer has, early refusals too', async () => {
    const ids: string[] = [];
    for (const path of ['/api/session', '/api/sites', '/api/health/live'])
      ids.push((await request(app.getHttpServer()).get(path)).headers['x-request-id'] as string);
    const early = await request(app.getHttpServer()).post('/api/sites').send({}).expect(401);
    ids.push(early.headers['x-request-id'] as string);
    const given = await request(app.getHttpServer())
      .get('/api/session?secret=1')
      .set('X-Request-Id', 'from-the-proxy-1');
    expect(given.headers['x-request-id']).toBe('from-the-proxy-1');
    ids.push('from-the-proxy-1');
    const logged = lines.map(({ req }) => (req as { id?: string } | undefined)?.id);
    for (const id of ids) expect(logged).toContain(id);
    expect(JSON.stringify(lines)).not.toContain('secret=1');
  });

  test('has nothing personal in it, also where the database fails', async () => {
    const agent = request.agent(app.getHttpServer());
    await agent.post('/api/session').send({ email, password }).expect(204);
    // A constraint error in the database quotes the whole row.
    await app
      .get(DataSource)
      .query(`alter table sites add constraint nobody check (name <> 'Merriweather')`);
    const { plan } = (await agent.get(`/api/timers/${FENNIMORE}`)).body as { plan: object };
    const people = [{ name: 'Odalys Fenwick', role: 'owner', phone: '555 0199' }];
    const site = {
      name: 'Merriweather',
      timeZone: 'Europe/Lisbon',
      notes: 'Key under pot',
      people,
    };
    await agent
      .post('/api/sites')
      .send({ siteId: randomUUID(), timerId: randomUUID(), site, plan })
      .expect(500);
    const told = lines.filter(({ level }) => Number(level) >= 50);
    expect(told.length).toBeGreaterThan(0);
    expect(JSON.stringify(told)).toContain('"constraint":"nobody"');
    expect(JSON.stringify(lines)).not.toMatch(/Merriweather|Odalys|555 0199|Key under pot|tamsin@/);
  });
});

describe('metrics', () => {
  test('are read with the token, count by route, and know the event loop, the threads and the connections', async () => {
    await http().get('/metrics').expect(404);
    await http().get('/metrics').set('Authorization', 'Bearer no').expect(404);
    const read = async () =>
      (await http().get('/metrics').set('Authorization', `Bearer ${TOKEN}`).expect(200)).text;
    await http().post('/api/sites').send({}).expect(401);
    await http().get(`/api/timers/${FENNIMORE}`).expect(401);
    const text = await read();
    expect(text).toMatch(/nodejs_eventloop_lag_p99_seconds \d/);
    expect(text).toMatch(/water_clock_work\{state="waiting"\} 0/);
    expect(text).toMatch(/water_clock_database_connections\{state="idle"\} \d/);
    expect(text).toMatch(
      /request_seconds_count\{method="GET",route="\/api\/timers\/:id",status="401"\} 1/,
    );
    expect(text).not.toContain(FENNIMORE);
  });

  test('without a token only a program on this machine reads them, not one behind a proxy', async () => {
    const app = await applicationOn(await makeTestDatabase());
    try {
      await request(app.getHttpServer()).get('/metrics').expect(200);
      await request(app.getHttpServer())
        .get('/metrics')
        .set('X-Forwarded-For', '10.1.2.3')
        .expect(404);
    } finally {
      await app.close();
    }
  });
});

describe('the nightly clearing', () => {
  test('takes what nobody can use any more, and nothing else', async () => {
    const app = await applicationOn(await makeTestDatabase());
    const database = app.get(DataSource);
    const sql = (text: string, values: unknown[] = []): Promise<Record<string, unknown>[]> =>
      database.query(text, values);
    const countOf = async (table: string) =>
      Number((await sql(`select count(*) from ${table}`))[0]?.['count']);
    try {
      const agent = request.agent(app.getHttpServer());
      await agent.post('/api/session').send({ email, password }).expect(204);
      const png = Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      );
      const [used, unused, undone] = [randomUUID(), randomUUID(), randomUUID()];
      for (const id of [used, unused, undone])
        await agent.put(`/api/photos/${id}`).send(png).expect(200);
      const path = `/api/timers/${FENNIMORE}`;
      let { version } = (await agent.get(path)).body as { version: number };
      const write = async (change: object) => {
        const body = { id: randomUUID(), baseVersion: version, way: 'do', change };
        const answer = await agent.post(`${path}/changes`).send(body).expect(200);
        ({ version } = answer.body as { version: number });
      };
      for (const photos of [[undone], [used]])
        await write({ type: 'note-station', station: 1, fields: { photos } });
      const entry = randomUUID();
      const shelve = (baseVersion: number, document: unknown) =>
        agent
          .post(`/api/library/minutes/${entry}/changes`)
          .send({ id: randomUUID(), baseVersion, document })
          .expect(200);
      const [{ document } = { document: null }] = await sql(
        `select document from library where shelf = 'minutes' and document is not null limit 1`,
      );
      await shelve(0, document);
      await shelve(1, null);

      const clear = () => app.get(RetentionService).clear();
      expect(Object.values(await clear()).every((count) => count === 0)).toBe(true);
      await sql(`update photos set at = at - interval '31 days'`);
      await sql(`update changes set at = at - interval '91 days'`);
      await sql(
        `insert into sessions (token_hash, id, company_id, person_id, expires_at)
         select 'old', gen_random_uuid(), company_id, person_id, now() - interval '1 hour' from sessions limit 1`,
      );
      expect(await clear()).toMatchObject({ sessions: 1, photos: 1, library: 1, changes: 0 });
      await agent.get(`/api/photos/${unused}`).expect(404);
      for (const id of [used, undone]) await agent.get(`/api/photos/${id}`).expect(200);
      await agent.get('/api/sites').expect(200);
      // The same id may be used again.
      await shelve(0, document);

      const before = await countOf('changes');
      const settings = { id: randomUUID(), baseVersion: 1, keepChangesDays: 90 };
      await agent
        .post('/api/company/changes')
        .send({ ...settings, keepChangesDays: 89 })
        .expect(400);
      await agent.post('/api/company/changes').send(settings).expect(200);
      expect((await clear()).changes).toBe(1);
      expect(await countOf('changes')).toBe(before);
      expect((await agent.get(path)).body).toMatchObject({ version });
      // Undoing the last change would bring that photo back.
      expect((await clear()).photos).toBe(0);
      await agent.get(`/api/photos/${undone}`).expect(200);
    } finally {
      await app.close();
    }
  });
});
