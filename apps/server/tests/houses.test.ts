/** Sites with several timers: adding, copying, naming, moving, archiving, restoring and deleting. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { SHIPPED_KINDS } from '@water-clock/core';
import type request from 'supertest';
import {
  bytesOf,
  FENNIMORE,
  FENNIMORE_SITE,
  LARKHOLT,
  linesOf,
  startTestServer,
  unzipped,
  type TestServer,
} from './testServer.ts';

const KIND = SHIPPED_KINDS[0]?.id ?? '';
let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface Timer {
  readonly id: string;
  readonly name: string;
  readonly placeVersion: number;
  readonly siteId: string;
  readonly isArchived: boolean;
  readonly plan: object;
  readonly survey: { readonly stations: readonly object[] };
}
interface House {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly isArchived: boolean;
  readonly people: readonly object[];
  readonly notes: string;
  readonly timers: readonly Timer[];
}
const codeIn = ({ body }: request.Response) => (body as { code: string }).code;
const houseOf = async (id: string) =>
  (await server.tamsin.get(`/api/sites/${id}`).expect(200)).body as House;
const timerOf = async (siteId: string, id: string) => {
  const found = (await houseOf(siteId)).timers.find((timer) => timer.id === id);
  if (!found) throw new Error('the timer is not there');
  return found;
};
const add = (siteId: string, body: object) =>
  server.tamsin.post(`/api/sites/${siteId}/timers`).send({ name: 'Shed', ...body });
const place = (timer: Timer, to: Partial<Timer>) =>
  server.tamsin.post(`/api/timers/${timer.id}/place`).send({
    ...{ id: randomUUID(), baseVersion: timer.placeVersion },
    ...{ name: timer.name, siteId: timer.siteId, isArchived: timer.isArchived, ...to },
  });
const post = (path: string, body: object) =>
  server.tamsin.post(path).send({ id: randomUUID(), ...body });
const listed = async (state = 'kept') =>
  [...(await linesOf(server.tamsin, `&state=${state}`)).values()].flatMap(({ id, site }) => [
    site.id,
    id,
  ]);

/** A separate site with one timer. */
async function newHouse(name: string): Promise<{ siteId: string; timerId: string }> {
  const [siteId, timerId] = [randomUUID(), randomUUID()];
  const { plan } = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as { plan: object };
  const people = [{ name: 'Ada Fell', role: 'owner', phone: '555 0100' }];
  const site = {
    name,
    houseNumber: '4',
    street: 'Mill Lane',
    locality: 'Dunnock',
    notes: 'dog',
    people,
  };
  await server.tamsin
    .post('/api/sites')
    .send({ siteId, timerId, plan, site: { ...site, timeZone: 'Europe/Lisbon', supplyFlow: 40 } })
    .expect(201);
  return { siteId, timerId };
}

test('a second timer is added once, by a plan or as a copy with what was surveyed', async () => {
  const { siteId, timerId } = await newHouse('Two boxes');
  const second = randomUUID();
  const copy = { timerId: second, copyOf: FENNIMORE, withSurvey: true };
  for (let i = 0; i < 2; i++)
    expect((await add(siteId, copy).expect(201)).body).toEqual({ timerId: second });
  const copied = await timerOf(siteId, second);
  const from = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as Timer;
  expect(copied.plan).toEqual(from.plan);
  expect(copied.survey.stations.length).toBe(from.survey.stations.length);
  expect(JSON.stringify(copied.survey)).not.toMatch(/photos|visit|accepted|clockShown/);
  const bare = randomUUID();
  await add(siteId, { timerId: bare, copyOf: FENNIMORE }).expect(201);
  expect((await timerOf(siteId, bare)).survey).toEqual({ stations: [] });

  expect(codeIn(await add(siteId, { timerId: randomUUID() }).expect(422))).toBe('not-accepted');
  await add(siteId, { timerId: randomUUID(), copyOf: randomUUID() }).expect(404);
  await add(randomUUID(), { timerId: randomUUID(), copyOf: FENNIMORE }).expect(404);
  await server.stranger
    .post(`/api/sites/${siteId}/timers`)
    .send({ ...copy, timerId: randomUUID(), name: 'Shed' })
    .expect(404);
  expect((await houseOf(siteId)).timers.map(({ id }) => id).sort()).toEqual(
    [timerId, second, bare].sort(),
  );
});

test('a timer is named and moved, once, and never where it is already or where there is nothing', async () => {
  const [from, to] = [await newHouse('From'), await newHouse('To')];
  const timer = await timerOf(from.siteId, from.timerId);
  expect(codeIn(await place(timer, {}).expect(422))).toBe('not-accepted');
  await place(timer, { name: 'Garage' }).expect(200);
  expect(codeIn(await place(timer, { name: 'Shed' }).expect(409))).toBe('stale-version');
  const named = await timerOf(from.siteId, from.timerId);
  expect(named).toMatchObject({ name: 'Garage', placeVersion: 2 });
  await place(named, { siteId: randomUUID() }).expect(404);
  await place(named, { siteId: to.siteId }).expect(200);
  expect((await houseOf(from.siteId)).timers).toEqual([]);
  expect((await houseOf(to.siteId)).timers.map(({ name }) => name).sort()).toEqual(['', 'Garage']);
  // Its record moved with it, and its page knows the new site.
  const page = (await server.tamsin.get(`/api/timers/${from.timerId}`).expect(200)).body as {
    name: string;
    site: { id: string };
  };
  expect([page.name, page.site.id]).toEqual(['Garage', to.siteId]);
});

test('what is put away is in no list, and comes back', async () => {
  const { siteId, timerId } = await newHouse('Winter');
  const timer = await timerOf(siteId, timerId);
  await place(timer, { isArchived: true }).expect(200);
  expect(await listed()).not.toContain(timerId);
  await place(await timerOf(siteId, timerId), { isArchived: false }).expect(200);
  expect(await listed()).toContain(timerId);

  const state = (isArchived: boolean, baseVersion: number) =>
    post(`/api/sites/${siteId}/state`, { isArchived, baseVersion });
  await state(true, 1).expect(200);
  expect(await listed()).not.toContain(siteId);
  expect(await listed('archived')).toEqual([siteId, timerId]);
  expect(codeIn(await state(false, 1).expect(409))).toBe('stale-version');
  await state(false, 2).expect(200);
  expect(await listed()).toContain(siteId);
});

test('nothing is put away or deleted while a visit is under way', async () => {
  const { siteId, timerId } = await newHouse('Busy');
  const visit = { began: '2027-03-01T10:00' };
  const write = { baseVersion: 1, way: 'do', change: { type: 'note', fields: { visit } } };
  await post(`/api/timers/${timerId}/changes`, write).expect(200);
  const timer = await timerOf(siteId, timerId);
  expect(codeIn(await place(timer, { isArchived: true }).expect(409))).toBe('visit-open');
  const away = { isArchived: true, baseVersion: 1 };
  expect(codeIn(await post(`/api/sites/${siteId}/state`, away).expect(409))).toBe('visit-open');
  const gone = await post(`/api/sites/${siteId}/deletion`, { name: 'Busy' }).expect(409);
  expect(codeIn(gone)).toBe('visit-open');
});

test('a timer is deleted for good by its name, after it was saved as a file; nothing of it is left', async () => {
  const { siteId, timerId } = await newHouse('Old');
  await post(`/api/timers/${timerId}/links`, { token: 'd'.repeat(43), days: 3 }).expect(200);
  const remove = (name: string) => post(`/api/timers/${timerId}/deletion`, { name });
  expect(codeIn(await remove('something').expect(422))).toBe('not-accepted');
  const called = ((await timerOf(siteId, timerId)).plan as { timer: { name: string } }).timer.name;
  expect(codeIn(await remove(called).expect(409))).toBe('export-first');
  await server.jory.get(`/api/timers/${timerId}/export`).expect(200);
  // An archive saved by someone else does not count.
  await remove(called).expect(409);
  await server.tamsin.get(`/api/timers/${timerId}/export`).expect(200);
  for (let i = 0; i < 2; i++) await remove(called).expect(204);
  await server.tamsin.get(`/api/timers/${timerId}`).expect(404);
  const tables: { name: string }[] = await server.database.query(
    `select table_name as name from information_schema.columns
     where table_schema = 'public' and column_name in ('timer_id', 'subject_id')`,
  );
  for (const { name } of tables.filter(({ name }) => name !== 'audit')) {
    const column = name === 'changes' ? 'subject_id' : 'timer_id';
    const rows: unknown[] = await server.database.query(
      `select from ${name} where ${column} = '${timerId}'`,
    );
    expect([name, rows.length]).toEqual([name, 0]);
  }
  const record = (await server.tamsin.get('/api/audit')).body as { what: string; about: string }[];
  expect(record[0]).toMatchObject({ what: 'timer-deleted', about: called });
});

test('several houses come at once, all or none, and once', async () => {
  const one = (name: string, more: object = {}) => ({
    ...{ siteId: randomUUID(), timerId: randomUUID(), kindId: KIND },
    ...{ site: { name, timeZone: 'Europe/Lisbon', street: 'Mill Lane' }, ...more },
  });
  const before = (await listed()).length;
  const sites = Array.from({ length: 30 }, (_, i) => one(`Row ${i + 1}`));
  const body = { id: randomUUID(), sites };
  const bring = (given: object) => server.tamsin.post('/api/sites/several').send(given);
  for (let i = 0; i < 2; i++)
    expect((await bring(body).expect(201)).body).toEqual({
      timerIds: sites.map(({ timerId }) => timerId),
    });
  expect((await listed()).length).toBe(before + 60);

  const faulty = async (last: object) => {
    const answer = await bring({ id: randomUUID(), sites: [one('First'), last] });
    expect((await listed()).length).toBe(before + 60);
    const { faults = [] } = answer.body as { faults?: { path: string }[] };
    return [answer.status, faults[0]?.path];
  };
  expect(await faulty(one('X', { kindId: randomUUID() }))).toEqual([422, 'sites[1].kindId']);
  const dangling = { name: 'X', timeZone: 'Europe/Lisbon', rulesId: randomUUID() };
  expect(await faulty(one('X', { site: dangling }))).toEqual([422, 'sites[1].site.rulesId']);
  expect(await faulty(one('X', { site: { name: ' ', timeZone: 'Nowhere' } }))).toEqual([
    400,
    'sites[1].site.name',
  ]);
  expect(await faulty(one('X', { siteId: sites[0]?.siteId }))).toEqual([409, undefined]);
  const many = Array.from({ length: 101 }, (_, i) => one(`Many ${i}`));
  await bring({ id: randomUUID(), sites: many }).expect(400);
});

test('a house is deleted with all that is in it, and personal data alone', async () => {
  const { siteId, timerId } = await newHouse('Ada’s house');
  const erased = await post(`/api/sites/${siteId}/personal-data/deletion`, { baseVersion: 1 });
  expect([erased.status, erased.body]).toMatchObject([
    200,
    { name: 'House in Dunnock', people: [], notes: '', houseNumber: null, street: null },
  ]);
  await server.tamsin.get(`/api/timers/${timerId}`).expect(200);
  const remove = () => post(`/api/sites/${siteId}/deletion`, { name: 'House in Dunnock' });
  await remove().expect(409);
  await bytesOf(server.tamsin.get(`/api/sites/${siteId}/archive`)).expect(200);
  for (let i = 0; i < 2; i++) await remove().expect(204);
  await server.tamsin.get(`/api/sites/${siteId}`).expect(404);
  await server.tamsin.get(`/api/timers/${timerId}`).expect(404);
  // The others are unchanged.
  for (const id of [FENNIMORE, LARKHOLT]) await server.tamsin.get(`/api/timers/${id}`).expect(200);
  expect((await houseOf(FENNIMORE_SITE)).timers).toHaveLength(1);
});

test('a company goes out as one file with its library and its sites, each of which comes in again with the names of its timers', async () => {
  const { siteId, timerId } = await newHouse('Out and in');
  await place(await timerOf(siteId, timerId), { name: 'Pump shed' }).expect(200);
  const bytes = (await bytesOf(server.tamsin.get('/api/company/archive')).expect(200))
    .body as Buffer;
  const files = await unzipped(bytes);
  const index = JSON.parse(files.get('firm.json')?.toString() ?? '') as {
    format: string;
    library: { shelf: string; document: object }[];
    sites: { id: string; name: string }[];
  };
  expect(index.format).toBe('water-clock-firm');
  expect(index.library.some(({ shelf }) => shelf === 'rules')).toBe(true);
  expect(index.sites.map(({ id }) => `sites/${id}.zip`).sort()).toEqual(
    [...files.keys()].filter((name) => name.startsWith('sites/')).sort(),
  );
  const archive = files.get(`sites/${siteId}.zip`) ?? Buffer.alloc(0);
  // Another company may use the same id.
  const made = await server.stranger
    .put(`/api/sites/${siteId}/archive`)
    .set('content-type', 'application/zip')
    .send(archive)
    .expect(200);
  const [brought] = (made.body as { timerIds: string[] }).timerIds;
  const there = (await server.stranger.get(`/api/timers/${brought}`).expect(200)).body as {
    name: string;
  };
  expect(there.name).toBe('Pump shed');
});
