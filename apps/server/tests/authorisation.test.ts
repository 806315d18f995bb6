/** Rights on every route. The list of routes comes from the server, so a new route without a row fails. */
import { randomUUID } from 'node:crypto';
import type { Readable } from 'node:stream';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type request from 'supertest';
import { demoCompany } from '../src/demo/demo-documents.ts';
import type { Role } from '../src/identity/person.entity.ts';
import { isAllowed, type Right } from '../src/identity/rights.ts';
import { newToken } from '../src/platform/token.ts';
import {
  bytesOf,
  FENNIMORE,
  FENNIMORE_SITE,
  LARKHOLT,
  startTestServer,
  type TestServer,
} from './testServer.ts';

/** `open`: anyone; `link`: anyone with a link; otherwise the right that a member needs. */
type Access = 'open' | 'link' | Right;
type Method = 'get' | 'post' | 'put' | 'delete';
interface Row {
  readonly access: Access;
  /** Path of one thing of the company, which does not exist for others. */
  readonly path?: () => string;
  readonly body?: () => object | Buffer | Promise<Buffer>;
  /** Success status if not 200. */
  readonly done?: number;
}

let server: TestServer;
let photo: string;
let visit: string;
let link: string;
let invitation: string;
let byRole: Record<Role, request.Agent>;
const token = 'k'.repeat(43);
const invited = 'i'.repeat(43);
const TAMSIN = demoCompany().people[0]?.id ?? '';
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
  await tamsin.post('/api/account/calendar').send({ token: CALENDAR }).expect(204);
  await tamsin.post('/api/replans').send({ id: REPLAN, month: 5 }).expect(201);
  invitation = randomUUID();
  for (const [id, own] of [
    [randomUUID(), invited],
    [invitation, 'w'.repeat(43)],
  ])
    await tamsin
      .post('/api/invitations')
      .send({ id, token: own, name: 'Wyn', email: 'wyn@company.example', role: 'office' })
      .expect(200);
  byRole = {
    apprentice: await server.member('apprentice'),
    technician: server.jory,
    office: await server.member('office'),
    owner: tamsin,
  };
  const visits = await tamsin
    .get('/api/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0a/visits')
    .expect(200);
  visit = (visits.body as { id: string }[])[0]?.id ?? '';
});
afterAll(() => server.stop());

const timer = (rest = '') => `/api/timers/${FENNIMORE}${rest}`;
/** Refused for its content, but only after the rights were checked. */
const REPLAN = randomUUID();
const CALENDAR = newToken();
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
  'GET /api/session/confirm': { access: 'own', done: 204 },
  'POST /api/session/confirm': {
    access: 'own',
    done: 422,
    body: () => ({ password: 'not it' }),
  },
  'DELETE /api/session': { access: 'own', done: 204 },
  'GET /api/docs': { access: 'open' },
  'GET /api/docs.json': { access: 'open' },
  'GET /api/page': { access: 'link' },
  'GET /api/page/pdf': { access: 'link' },
  'POST /api/preferences/changes': {
    access: 'own',
    done: 409,
    body: () => ({ ...WRITE, preferences: {} }),
  },
  'GET /api/sites': { access: 'see' },
  'GET /api/timers': { access: 'see' },
  'GET /api/timers.csv': { access: 'see' },
  'GET /api/timers-sites': { access: 'see' },
  'POST /api/sites': { access: 'work', done: 400, body: () => ({}) },
  'POST /api/sites/:id/changes': {
    access: 'work',
    done: 409,
    path: () => `/api/sites/${FENNIMORE_SITE}/changes`,
    body: () => ({ ...WRITE, site: { name: 'X', timeZone: 'Europe/Lisbon' } }),
  },
  'GET /api/sites/:id': { access: 'see', path: () => `/api/sites/${FENNIMORE_SITE}` },
  'POST /api/sites/several': { access: 'work', done: 400, body: () => ({}) },
  'POST /api/sites/many': { access: 'work', done: 400, body: () => ({}) },
  'POST /api/sites/:id/timers': {
    access: 'work',
    done: 422,
    path: () => `/api/sites/${FENNIMORE_SITE}/timers`,
    body: () => ({ timerId: randomUUID(), name: 'Shed', copyOf: FENNIMORE, plan: {} }),
  },
  'POST /api/sites/:id/state': {
    access: 'work',
    done: 409,
    path: () => `/api/sites/${FENNIMORE_SITE}/state`,
    body: () => ({ ...WRITE, isArchived: true }),
  },
  'POST /api/sites/:id/personal-data/deletion': {
    access: 'company',
    done: 409,
    path: () => `/api/sites/${FENNIMORE_SITE}/personal-data/deletion`,
    body: () => WRITE,
  },
  'POST /api/sites/:id/deletion': {
    access: 'company',
    done: 422,
    path: () => `/api/sites/${FENNIMORE_SITE}/deletion`,
    body: () => ({ id: randomUUID(), name: 'not it' }),
  },
  'POST /api/timers/:id/place': {
    access: 'work',
    done: 409,
    path: () => timer('/place'),
    body: () => ({ ...WRITE, name: 'Shed', siteId: FENNIMORE_SITE, isArchived: false }),
  },
  'POST /api/timers/:id/deletion': {
    access: 'company',
    done: 422,
    path: () => timer('/deletion'),
    body: () => ({ id: randomUUID(), name: 'not it' }),
  },
  'GET /api/sites/:id/archive': {
    access: 'see',
    path: () => `/api/sites/${FENNIMORE_SITE}/archive`,
  },
  // The client makes the id, so another company may have the same one without sharing anything.
  'PUT /api/sites/:id/archive': { access: 'work', body: archive },
  'GET /api/timers/:id': { access: 'see', path: () => timer() },
  'GET /api/timers/:id/version': { access: 'see', path: () => timer('/version') },
  'POST /api/timers/:id/changes': {
    access: 'work',
    done: 409,
    path: () => timer('/changes'),
    body: () => ({ ...WRITE, way: 'do', change: { type: 'note', fields: { rain: null } } }),
  },
  'POST /api/timers/:id/changes/several': {
    access: 'work',
    path: () => timer('/changes/several'),
    body: () => ({
      writes: [{ ...WRITE, way: 'do', change: { type: 'note', fields: { rain: null } } }],
    }),
  },
  'GET /api/timers/:id/events': { access: 'see', path: () => timer('/events') },
  'GET /api/timers/:id/proposals': { access: 'see', path: () => timer('/proposals') },
  'POST /api/timers/:id/proposals/changes': {
    access: 'propose',
    done: 409,
    path: () => timer('/proposals/changes'),
    body: () => ({ ...WRITE, way: 'do', change: { type: 'note', fields: { rain: null } } }),
  },
  'POST /api/proposals/:id/moves': {
    access: 'propose',
    done: 404,
    body: () => ({ ...WRITE, state: 'sent', note: '' }),
  },
  'POST /api/proposals/:id/answers': {
    access: 'work',
    done: 404,
    body: () => ({ ...WRITE, isAccepted: true, answer: '' }),
  },
  'GET /api/timers/:id/export': { access: 'see', path: () => timer('/export') },
  'GET /api/timers/:id/watering.ics': { access: 'see', path: () => timer('/watering.ics') },
  'GET /api/timers/:id/runs.csv': { access: 'see', path: () => timer('/runs.csv?days=7') },
  'GET /api/timers/:id/page': { access: 'see', path: () => timer('/page') },
  'GET /api/timers/:id/page.pdf': { access: 'see', path: () => timer('/page.pdf') },
  'GET /api/timers/:id/card.pdf': { access: 'see', path: () => timer('/card.pdf') },
  'GET /api/timers/:id/links': { access: 'see' },
  'POST /api/timers/:id/links': {
    access: 'work',
    path: () => timer('/links'),
    body: () => ({ id: randomUUID(), token: randomUUID().padEnd(43, 'x'), days: 3 }),
  },
  'POST /api/timers/:id/links/:link/withdraw': {
    access: 'work',
    path: () => `/api/timers/${LARKHOLT}/links/${link}/withdraw`,
  },
  'GET /api/timers/:id/visits': { access: 'see', path: () => timer('/visits') },
  'POST /api/timers/:id/visits': {
    access: 'work',
    done: 409,
    path: () => timer('/visits'),
    body: () => ({ ...WRITE, closed: '2026-01-01T10:00' }),
  },
  'GET /api/visits/:id': { access: 'see', path: () => `/api/visits/${visit}` },
  'GET /api/visits/:id/comments': {
    access: 'see',
    path: () => `/api/visits/${visit}/comments`,
  },
  'POST /api/visits/:id/comments': {
    access: 'propose',
    path: () => `/api/visits/${visit}/comments`,
    body: () => ({ id: randomUUID(), text: 'hello' }),
  },
  'GET /api/practice': { access: 'see' },
  'POST /api/practice': {
    access: 'own',
    body: () => ({
      ...{ id: randomUUID(), task: 'set-01-clock', title: 'Set the clock' },
      ...{ points: 90, presses: 30, seconds: 60, hints: 0, tries: 0 },
    }),
  },
  'GET /api/library/:shelf': { access: 'see' },
  'POST /api/library/:shelf/:id/changes': {
    access: 'work',
    done: 409,
    body: () => ({ ...WRITE, document: null }),
  },
  'GET /api/photos/:id': { access: 'see', path: () => `/api/photos/${photo}` },
  'PUT /api/photos/:id': { access: 'propose', body: () => PNG },
  'GET /api/company/archive': { access: 'company' },
  'GET /api/reports': { access: 'company' },
  'GET /api/replans': { access: 'see' },
  'GET /api/replans/:id': { access: 'see', path: () => `/api/replans/${REPLAN}` },
  'POST /api/replans': { access: 'work', done: 422, body: () => ({ id: randomUUID() }) },
  'POST /api/replans/:id/acceptance': {
    ...{ access: 'work', done: 202, path: () => `/api/replans/${REPLAN}/acceptance` },
    body: () => ({ id: randomUUID() }),
  },
  'POST /api/replans/:id/acceptance/stop': {
    ...{ access: 'work', done: 200, path: () => `/api/replans/${REPLAN}/acceptance/stop` },
    body: () => ({ id: randomUUID() }),
  },
  'GET /api/calendar': { access: 'see' },
  'GET /api/calendar/open': { access: 'see' },
  'GET /api/calendar.ics': { access: 'see' },
  'POST /api/calendar/some-day': { access: 'work', done: 400, body: () => ({}) },
  'POST /api/calendar/orders': {
    access: 'work',
    done: 409,
    body: () => ({ ...WRITE, day: '2027-01-01', timerIds: [] }),
  },
  'POST /api/timers/:id/stop': { access: 'work', done: 409, body: () => ({ ...WRITE, note: '' }) },
  'POST /api/timers/:id/stop/taking-back': { access: 'work', done: 404, body: () => WRITE },
  'GET /api/account/calendar': { access: 'own' },
  'POST /api/account/calendar': {
    access: 'own',
    done: 204,
    body: () => ({ token: newToken() }),
  },
  'GET /api/calendars/:token': { access: 'open', path: () => `/api/calendars/${CALENDAR}.ics` },
  // Weather belongs to no one; sign-in only keeps strangers from using it up.
  'GET /api/weather/towns': { access: 'see' },
  'GET /api/weather/towns/:id/days': {
    access: 'see',
    path: () => '/api/weather/towns/sandorra/days?from=2026-01-01&to=2026-01-03',
  },
  'GET /api/weather/towns/:id/normals': {
    access: 'see',
    path: () => '/api/weather/towns/sandorra/normals',
  },
  'GET /api/companies': { access: 'open' },
  'POST /api/companies': {
    access: 'open',
    done: 403,
    body: () => ({
      ...{ id: randomUUID(), personId: randomUUID(), company: 'X', name: 'X' },
      ...{ email: 'x@company.example', password: 'long enough' },
    }),
  },
  'GET /api/join': { access: 'link' },
  'POST /api/join': {
    access: 'link',
    body: () => ({ personId: randomUUID(), password: 'long enough' }),
  },
  // For removed people, identified by their old cookie: proposals.test.ts.
  'POST /api/left-behind': {
    access: 'open',
    done: 401,
    body: () => ({ id: randomUUID(), timerId: randomUUID(), changes: [{}] }),
  },
  'POST /api/session/forgotten': {
    access: 'open',
    done: 204,
    body: () => ({ email: 'a@b.example' }),
  },
  'GET /api/account/sessions': { access: 'own' },
  'DELETE /api/account/sessions': { access: 'own', done: 204 },
  'DELETE /api/account/sessions/:id': { access: 'own', done: 204 },
  'POST /api/account/password': {
    access: 'own',
    done: 422,
    body: () => ({ password: 'not it', newPassword: 'long enough' }),
  },
  'GET /api/account/second-factor/new': { access: 'own' },
  'POST /api/account/second-factor': {
    access: 'own',
    done: 422,
    body: () => ({ password: 'not it', secret: 'A'.repeat(32), code: '000000' }),
  },
  'POST /api/account/second-factor/off': {
    access: 'own',
    done: 204,
    body: () => ({ password: 'not it' }),
  },
  'GET /api/account/tokens': { access: 'own' },
  'POST /api/account/tokens': {
    access: 'own',
    // Creating one takes the password.
    done: 422,
    body: () => ({
      ...{ id: randomUUID(), token: randomUUID().padEnd(43, 'x'), name: 'X', days: 3 },
      ...{ scopes: ['read'], password: 'not it' },
    }),
  },
  'DELETE /api/account/tokens/:id': { access: 'own', done: 204 },
  'GET /api/people': { access: 'see' },
  'POST /api/people/:id/role': {
    access: 'company',
    done: 409,
    path: () => `/api/people/${TAMSIN}/role`,
    body: () => ({ ...WRITE, role: 'owner' }),
  },
  'POST /api/people/:id/removal': {
    access: 'company',
    done: 409,
    path: () => `/api/people/${TAMSIN}/removal`,
    body: () => WRITE,
  },
  'POST /api/people/:id/second-factor/off': {
    access: 'company',
    done: 409,
    path: () => `/api/people/${TAMSIN}/second-factor/off`,
    body: () => WRITE,
  },
  'POST /api/people/:id/password-link': {
    access: 'company',
    done: 204,
    path: () => `/api/people/${TAMSIN}/password-link`,
    body: () => ({ id: randomUUID(), token: randomUUID().padEnd(43, 'x') }),
  },
  'GET /api/invitations': { access: 'company' },
  'POST /api/invitations': {
    access: 'company',
    body: () => ({
      ...{ id: randomUUID(), token: randomUUID().padEnd(43, 'x') },
      ...{ name: 'New', email: 'new@company.example', role: 'technician' },
    }),
  },
  'POST /api/invitations/:id/withdraw': {
    access: 'company',
    done: 204,
    path: () => `/api/invitations/${invitation}/withdraw`,
  },
  'GET /api/mails': { access: 'company' },
  'GET /api/company': { access: 'company' },
  'POST /api/company/changes': {
    access: 'company',
    done: 409,
    body: () => ({ ...WRITE, keepChangesDays: null }),
  },
  'GET /api/audit': { access: 'company' },
};
/** Data that belongs to no company: everyone gets the same. */
const NOBODYS = /weather/;

/** Routes as registered in the framework. Handlers for all methods answer nothing themselves. */
function routesOf(): string[] {
  interface Layer {
    readonly route?: { readonly path: string; readonly methods: Record<string, boolean> };
  }
  // Safe cast for Express 5.
  const { router } = server.app.getHttpAdapter().getInstance() as unknown as {
    router: { stack: readonly Layer[] };
  };
  return router.stack.flatMap(({ route }) => {
    const methods = Object.keys(route?.methods ?? {});
    return methods.length === 1 ? [`${methods[0]?.toUpperCase()} ${route?.path}`] : [];
  });
}
/** Assets of the documentation page and the application: public. */
const FILES = /docs\/|docs-yaml|\{\*|\*path/;

const usual = (path: string) =>
  path
    .replace(':shelf', 'minutes')
    .replaceAll(/:(id|link)/g, () => (path.includes('/timers/') ? FENNIMORE : randomUUID()));

/** For an answer that never ends. */
function beginning(response: request.Response, done: (error: null, body: unknown) => void): void {
  // Safe cast: an answer is a stream before it is parsed.
  const stream = response as unknown as Readable;
  stream.once('data', (chunk: Buffer) => {
    stream.destroy();
    const text = chunk.toString();
    done(null, text.startsWith('{') ? JSON.parse(text) : text);
  });
}

async function ask(
  agent: request.Agent,
  route: string,
  { path, body }: Row,
  authorization?: string,
): Promise<request.Response> {
  const [method = '', pattern = ''] = route.split(' ');
  // Safe cast: HTTP methods are methods of the agent.
  const question = agent[method.toLowerCase() as Method](path ? path() : usual(pattern));
  if (route.endsWith('/events')) void question.buffer(true).parse(beginning);
  if (authorization) void question.set('Authorization', authorization);
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
    const good = route.includes('join') ? invited : token;
    expect((await ask(server.nobody, route, row, `Bearer ${good}`)).status).toBe(200);
  },
);

/** The right a row requires; null if it is not limited to members. */
const rightOf = ({ access }: Row): Right | null =>
  access === 'open' || access === 'link' ? null : access;

const SIGN_OUT = 'DELETE /api/session';
const CLOSED = Object.entries(ROWS)
  .filter(([, row]) => rightOf(row) !== null)
  // Sign out last, since nothing can be requested afterwards.
  .sort(([a], [b]) => Number(a === SIGN_OUT) - Number(b === SIGN_OUT));

test.each(CLOSED)(
  '%s is closed to strangers, to other companies, and by role',
  async (route, row) => {
    const { nobody, stranger } = server;
    const told = await ask(nobody, route, row);
    expect([told.status, (told.body as { code: string }).code]).toEqual([401, 'not-signed-in']);

    const other = await ask(stranger, route, row);
    if (row.path && !NOBODYS.test(route)) expect(other.status).toBe(404);
    else if (other.status < 300)
      // What another company sees of the same kind must contain nothing of ours.
      expect(JSON.stringify(other.body)).not.toMatch(/6f0c1a52-0d0a|Larkholt|Brindlewick/);

    const right = rightOf(row) ?? 'see';
    for (const [role, agent] of Object.entries(byRole)) {
      // Safe cast: the keys are roles.
      const allowed = isAllowed(role as Role, right);
      const answer = await ask(agent, route, row);
      expect([role, answer.status]).toEqual([role, allowed ? (row.done ?? 200) : 403]);
    }
  },
);
