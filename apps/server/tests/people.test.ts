import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { demoSignIn } from '../src/demo/demo.service.ts';
import { FENNIMORE, FENNIMORE_SITE, startTestServer, type TestServer } from './testServer.ts';

const DEMO_PERSON = demoSignIn();

let server: TestServer;
beforeAll(async () => {
  // Signing in the test's own people uses up three of these.
  server = await startTestServer(8);
});
afterAll(() => server.stop());

const change = { type: 'set-starts', program: 'A', starts: [] };
const write = { id: randomUUID(), baseVersion: 1, way: 'do', change };
const site = { name: 'X', timeZone: 'Europe/Lisbon' };
const requests: ['get' | 'post', string, object | undefined][] = [
  ['get', `/api/timers/${FENNIMORE}`, undefined],
  ['get', `/api/timers/${FENNIMORE}/version`, undefined],
  ['get', `/api/timers/${FENNIMORE}/export`, undefined],
  ['post', `/api/timers/${FENNIMORE}/changes`, write],
  ['post', `/api/sites/${FENNIMORE_SITE}/changes`, { id: randomUUID(), baseVersion: 1, site }],
];

test.each(requests)(
  '%s %s is closed to strangers and to other companies',
  async (method, path, body) => {
    const nobody = await server.nobody[method](path).send(body);
    expect([nobody.status, (nobody.body as { code: string }).code]).toEqual([401, 'not-signed-in']);
    const other = await server.stranger[method](path).send(body);
    const missing = await server.stranger[method](path.replace('6f0c', '0000')).send(body);
    expect([other.status, other.body]).toEqual([404, missing.body]);
  },
);

test('lists show the own company alone, and ids of another one can be used without a trace of it', async () => {
  expect((await server.stranger.get('/api/sites').expect(200)).body).toEqual([]);
  const { plan } = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as { plan: object };
  const body = { siteId: FENNIMORE_SITE, timerId: FENNIMORE, site, plan };
  await server.stranger.post('/api/sites').send(body).expect(201);
  expect((await server.stranger.get('/api/sites')).body).toMatchObject([{ name: 'X' }]);
  const ours = (await server.tamsin.get('/api/sites')).body as { name: string }[];
  expect(ours).toHaveLength(10);
  expect(ours.map(({ name }) => name)).not.toContain('X');
});

test('the database itself refuses a row that crosses companies', async () => {
  const insert = server.database.query(
    `insert into timers (company_id, id, site_id, version, plan)
     select $1, $2, id, 1, '{}' from sites where name = 'Larkholt'`,
    [server.otherCompanyId, randomUUID()],
  );
  await expect(insert).rejects.toThrow(/timers_of_site/);
});

test('migrations make just the tables that the entities describe', async () => {
  const { upQueries } = await server.database.driver.createSchemaBuilder().log();
  expect(upQueries.map(({ query }) => query)).toEqual([]);
});

test('the session is a cookie that scripts and other sites do not get, and ends with the sign-out', async () => {
  const { email, password } = DEMO_PERSON;
  const signedIn = await server.nobody
    .post('/api/session')
    .send({ email: ` ${email.toUpperCase()} `, password })
    .expect(204);
  const [cookie = ''] = signedIn.get('Set-Cookie') ?? [];
  expect(cookie).toMatch(/HttpOnly/);
  expect(cookie).toMatch(/SameSite=Lax/);
  const token = /=([^;]+)/.exec(cookie)?.[1];
  const stored: unknown = await server.database.query('select token_hash from sessions');
  expect(JSON.stringify(stored)).not.toContain(token);
  await server.nobody.get('/api/sites').expect(200);
  await server.nobody.delete('/api/session').expect(204);
  await server.nobody.get('/api/sites').set('Cookie', cookie).expect(401);
});

test('a write from the page of another site is refused', async () => {
  const answer = await server.tamsin
    .delete('/api/session')
    .set('Origin', 'https://elsewhere.example')
    .expect(403);
  expect(answer.body).toMatchObject({ code: 'foreign-origin' });
  await server.tamsin.get('/api/sites').expect(200);
});

test('what is not there is a 404 in the one form of all failures', async () => {
  for (const path of ['/api/nothing', '/api/timers/not-an-id', '/api/timers/1%27--/version'])
    expect((await server.tamsin.get(path).expect(404)).body).toMatchObject({ code: 'not-found' });
});

test('sign-in tells nothing about accounts, and only so many tries are allowed', async () => {
  const tryIt = (email: string, password: unknown = 'wrong') =>
    server.nobody.post('/api/session').send({ email, password });
  const wrong = await tryIt(DEMO_PERSON.email).expect(401);
  const unknown = await tryIt('unknown@nowhere.example').expect(401);
  expect(unknown.body).toEqual(wrong.body);
  expect(wrong.body).toMatchObject({ code: 'wrong-sign-in' });
  const empty = await tryIt('', { $ne: 1 }).expect(400);
  const { faults } = empty.body as { faults: { path: string }[] };
  expect(faults.map(({ path }) => path)).toEqual(['email', 'password']);
  const statuses = new Set<number>();
  for (let i = 0; i < 10; i++) statuses.add((await tryIt(DEMO_PERSON.email)).status);
  expect(statuses).toContain(429);
  const locked = await tryIt(DEMO_PERSON.email, DEMO_PERSON.password).expect(429);
  expect(locked.body).toMatchObject({ code: 'too-many-tries' });
});

test('only so many guesses at links of homeowners’ pages are allowed', async () => {
  const guess = () => server.nobody.get('/api/page').set('Authorization', 'Bearer nothing');
  const answers: number[] = [];
  for (let i = 0; i < 10; i++) answers.push((await guess()).status);
  expect(answers.slice(0, 8)).toEqual(new Array(8).fill(404));
  expect(answers.slice(8)).toEqual([429, 429]);
});
