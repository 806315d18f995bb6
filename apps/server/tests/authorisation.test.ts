/** Who may do what, for every route there is: the list comes from the server itself, so that a new route without a row here fails. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type request from 'supertest';
import {
  bytesOf,
  FENNIMORE,
  FENNIMORE_SITE,
  LARKHOLT,
  startTestServer,
  type TestServer,
} from './testServer.ts';

/** `open`: anybody; `link`: whoever has a link; `member`: anybody of the firm; `owner`: its owners. */
type Access = 'open' | 'link' | 'member' | 'owner';
type Method = 'get' | 'post' | 'put' | 'delete';
interface Row {
  readonly access: Access;
  /** Where it is about one thing of the firm: to others that does not exist. */
  readonly path?: () => string;
  readonly body?: () => object | Buffer | Promise<Buffer>;
  /** Answers of success where it is not 200. */
  readonly done?: number;
}

let server: TestServer;
let photo: string;
let visit: string;
let link: string;
const token = 'k'.repeat(43);
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
beforeAll(async () => {
  server = await startTestServer();
  const { tamsin } = server;
  [photo, link] = [randomUUID(), randomUUID()];
  await tamsin.put(`/api/photos/${photo}`).send(PNG).expect(200);
  await tamsin
    .post(`/api/timers/${LARKHOLT}/links`)
    .send({ id: link, token, days: 30 })
    .expect(200);
  const visits = await tamsin
    .get('/api/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0a/visits')
    .expect(200);
  visit = (visits.body as { id: string }[])[0]?.id ?? '';
});
afterAll(() => server.stop());

const timer = (rest = '') => `/api/timers/${FENNIMORE}${rest}`;
/** Not accepted for its content: whoever may not do it is told before that. */
const WRITE = { id: randomUUID(), baseVersion: 1_000_000 };
const archive = async () =>
  (await bytesOf(server.tamsin.get(`/api/sites/${FENNIMORE_SITE}/archive`)).expect(200))
    .body as Buffer;

const ROWS: Record<string, Row> = {
  'GET /metrics': { access: 'open' },
  'GET /api/health': { access: 'open' },
  'GET /api/health/live': { access: 'open' },
  'GET /api/health/ready': { access: 'open' },
  'GET /api/session': { access: 'open' },
  'POST /api/session': {
    access: 'open',
    done: 401,
    body: () => ({ email: 'a@b.example', password: 'x' }),
  },
  'DELETE /api/session': { access: 'member', done: 204 },
  'GET /api/docs': { access: 'open' },
  'GET /api/docs.json': { access: 'open' },
  'GET /api/page': { access: 'link' },
  'GET /api/page/pdf': { access: 'link' },
  'POST /api/preferences/changes': {
    access: 'member',
    done: 409,
    body: () => ({ ...WRITE, preferences: {} }),
  },
  'GET /api/sites': { access: 'member' },
  'POST /api/sites': { access: 'member', done: 400, body: () => ({}) },
  'POST /api/sites/:id/changes': {
    access: 'member',
    done: 409,
    path: () => `/api/sites/${FENNIMORE_SITE}/changes`,
    body: () => ({ ...WRITE, site: { name: 'X', timeZone: 'Europe/Lisbon' } }),
  },
  'GET /api/sites/:id/archive': {
    access: 'member',
    path: () => `/api/sites/${FENNIMORE_SITE}/archive`,
  },
  // Its id is made by the client, so another company may have one of the same id; nothing is shared by that.
  'PUT /api/sites/:id/archive': { access: 'member', body: archive },
  'GET /api/timers/:id': { access: 'member', path: () => timer() },
  'GET /api/timers/:id/version': { access: 'member', path: () => timer('/version') },
  'POST /api/timers/:id/changes': {
    access: 'member',
    done: 409,
    path: () => timer('/changes'),
    body: () => ({ ...WRITE, way: 'do', change: { type: 'note', fields: { rain: null } } }),
  },
  'GET /api/timers/:id/export': { access: 'member', path: () => timer('/export') },
  'GET /api/timers/:id/watering.ics': { access: 'member', path: () => timer('/watering.ics') },
  'GET /api/timers/:id/runs.csv': { access: 'member', path: () => timer('/runs.csv?days=7') },
  'GET /api/timers/:id/page': { access: 'member', path: () => timer('/page') },
  'GET /api/timers/:id/page.pdf': { access: 'member', path: () => timer('/page.pdf') },
  'GET /api/timers/:id/card.pdf': { access: 'member', path: () => timer('/card.pdf') },
  'GET /api/timers/:id/links': { access: 'member' },
  'POST /api/timers/:id/links': {
    access: 'member',
    path: () => timer('/links'),
    body: () => ({ id: randomUUID(), token: randomUUID().padEnd(43, 'x'), days: 3 }),
  },
  'POST /api/timers/:id/links/:link/withdraw': {
    access: 'member',
    path: () => `/api/timers/${LARKHOLT}/links/${link}/withdraw`,
  },
  'GET /api/timers/:id/visits': { access: 'member', path: () => timer('/visits') },
  'POST /api/timers/:id/visits': {
    access: 'member',
    done: 409,
    path: () => timer('/visits'),
    body: () => ({ ...WRITE, closed: '2026-01-01T10:00' }),
  },
  'GET /api/visits/:id': { access: 'member', path: () => `/api/visits/${visit}` },
  'GET /api/library/:shelf': { access: 'member' },
  'POST /api/library/:shelf/:id/changes': {
    access: 'member',
    done: 409,
    body: () => ({ ...WRITE, document: null }),
  },
  'GET /api/photos/:id': { access: 'member', path: () => `/api/photos/${photo}` },
  'PUT /api/photos/:id': { access: 'member', body: () => PNG },
  'GET /api/due': { access: 'member' },
  'GET /api/due.ics': { access: 'member' },
  // The weather is nobody's; signing in keeps strangers from using it up.
  'GET /api/weather/towns': { access: 'member' },
  'GET /api/weather/towns/:id/days': {
    access: 'member',
    path: () => '/api/weather/towns/sandorra/days?from=2026-01-01&to=2026-01-03',
  },
  'GET /api/weather/towns/:id/normals': {
    access: 'member',
    path: () => '/api/weather/towns/sandorra/normals',
  },
  'GET /api/firm': { access: 'owner' },
  'POST /api/firm/changes': {
    access: 'owner',
    done: 409,
    body: () => ({ ...WRITE, keepChangesDays: null }),
  },
  'GET /api/audit': { access: 'owner' },
};
/** Things that belong to nobody: every firm gets the same. */
const NOBODYS = /weather/;

/** The routes as the framework has them; what stands for every method at once answers nothing of its own. */
function routesOf(): string[] {
  interface Layer {
    readonly route?: { readonly path: string; readonly methods: Record<string, boolean> };
  }
  // The cast holds for Express 5.
  const { router } = server.app.getHttpAdapter().getInstance() as unknown as {
    router: { stack: readonly Layer[] };
  };
  return router.stack.flatMap(({ route }) => {
    const methods = Object.keys(route?.methods ?? {});
    return methods.length === 1 ? [`${methods[0]?.toUpperCase()} ${route?.path}`] : [];
  });
}
/** Files of the documentation page itself, and of the application: open, as every asset is. */
const FILES = /docs\/|docs-yaml|\{\*|\*path/;

const usual = (path: string) =>
  path
    .replace(':shelf', 'minutes')
    .replaceAll(/:(id|link)/g, () => (path.includes('/timers/') ? FENNIMORE : randomUUID()));

async function ask(
  agent: request.Agent,
  route: string,
  { path, body }: Row,
): Promise<request.Response> {
  const [method = '', pattern = ''] = route.split(' ');
  // The cast holds: methods of HTTP are methods of the agent.
  const question = agent[method.toLowerCase() as Method](path ? path() : usual(pattern));
  const sent = await body?.();
  return Buffer.isBuffer(sent)
    ? question.set('content-type', 'application/octet-stream').send(sent)
    : question.send(sent);
}

test('every route of the server has a row, and every row a route', () => {
  const routes = routesOf().filter((route) => !FILES.test(route));
  expect([...new Set(routes)].sort()).toEqual(Object.keys(ROWS).sort());
});

test.each(Object.entries(ROWS).filter(([, { access }]) => access === 'open'))(
  '%s is open to anybody',
  async (route, row) => {
    expect((await ask(server.nobody, route, row)).status).toBe(row.done ?? 200);
  },
);

test.each(Object.entries(ROWS).filter(([, { access }]) => access === 'link'))(
  '%s is for whoever has a link, signed in or not',
  async (route, row) => {
    expect((await ask(server.nobody, route, row)).status).toBe(404);
    expect((await ask(server.tamsin, route, row)).status).toBe(404);
    const [, path = ''] = route.split(' ');
    await server.nobody.get(path).set('Authorization', `Bearer ${token}`).expect(200);
  },
);

const CLOSED = Object.entries(ROWS)
  .filter(([, { access }]) => access === 'member' || access === 'owner')
  // Signing out comes last: nobody could be asked afterwards.
  .sort(([a], [b]) => Number(a.startsWith('DELETE')) - Number(b.startsWith('DELETE')));

test.each(CLOSED)('%s is closed to strangers, to other firms, and by role', async (route, row) => {
  const { nobody, stranger, jory, tamsin } = server;
  const told = await ask(nobody, route, row);
  expect([told.status, (told.body as { code: string }).code]).toEqual([401, 'not-signed-in']);

  const other = await ask(stranger, route, row);
  if (row.path && !NOBODYS.test(route)) expect(other.status).toBe(404);
  else if (other.status < 300)
    // What another firm sees of the same kind has nothing of ours in it.
    expect(JSON.stringify(other.body)).not.toMatch(/6f0c1a52-0d0a|Larkholt|Brindlewick/);

  const apprentice = await ask(jory, route, row);
  expect(apprentice.status).toBe(row.access === 'owner' ? 403 : (row.done ?? 200));
  expect((await ask(tamsin, route, row)).status).toBe(row.done ?? 200);
});
