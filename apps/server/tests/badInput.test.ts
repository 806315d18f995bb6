/** Input that used to give a 500 or be saved wrongly. Each is refused by code and path, or gets its first answer again. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Plan } from '@water-clock/core';
import sharp from 'sharp';
import type request from 'supertest';
import { zipped } from '../src/formats/zip.ts';
import { fuzzApi } from '../../../scripts/fuzz-api.mjs';
import {
  bytesOf,
  FENNIMORE,
  FENNIMORE_SITE,
  LARKHOLT,
  SORREL_ROW,
  startTestServer,
  unzipped,
  type TestServer,
} from './testServer.ts';

let server: TestServer;
let plan: Plan;
beforeAll(async () => {
  server = await startTestServer();
  ({ plan } = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as { plan: Plan });
});
afterAll(() => server.stop());

const SITE = { name: 'Tansy Cottage', timeZone: 'Europe/Lisbon' };
const newSite = (fields: object = {}, more: object = {}) => ({
  siteId: randomUUID(),
  timerId: randomUUID(),
  site: { ...SITE, ...fields },
  plan,
  ...more,
});
const post = (body: object) => server.tamsin.post('/api/sites').send(body);
const statusesOf = async (requests: readonly request.Test[]) =>
  (await Promise.all(requests)).map(({ status }) => status).sort();
const countOf = async (table: string) => {
  const rows: { count: string }[] = await server.database.query(`select count(*) from ${table}`);
  return Number(rows[0]?.count);
};

describe('a site', () => {
  test.each<[string, object, string]>([
    ['a list', { site: [] }, 'site'],
    ['a list of one', { site: [SITE] }, 'site'],
    ['people as lists', { site: { ...SITE, people: [[]] } }, 'site.people'],
    ['people as texts', { site: { ...SITE, people: ['Ada'] } }, 'site.people'],
    ['a latitude as text', { site: { ...SITE, latitude: '45,5' } }, 'site.latitude'],
    ['a longitude as text', { site: { ...SITE, longitude: '12' } }, 'site.longitude'],
    ['a name of spaces', { site: { ...SITE, name: ' \t ' } }, 'site.name'],
    ['a name of two lines', { site: { ...SITE, name: 'a\r\nBEGIN:VEVENT' } }, 'site.name'],
    ['a name that turns', { site: { ...SITE, name: 'a\u202egnp.exe' } }, 'site.name'],
    [
      'a person that turns',
      { site: { ...SITE, people: [{ name: '\u2067x', role: '', phone: '' }] } },
      'site.people[0].name',
    ],
  ])('as %s is refused by its place', async (_what, more, path) => {
    const before = await countOf('sites');
    const refused = await post(newSite({}, more)).expect(400);
    const { faults } = refused.body as { faults: { path: string }[] };
    expect(faults.map((fault) => fault.path)).toEqual([path]);
    expect(await countOf('sites')).toBe(before);
  });

  test('is kept under its name without the space around it', async () => {
    const body = newSite({ name: '  Tansy Cottage ', houseNumber: ' 12 ' });
    await post(body).expect(201);
    const { text } = await server.tamsin.get(`/api/timers/${body.timerId}`).expect(200);
    expect(text).toContain('"name":"Tansy Cottage"');
    expect(text).toContain('"houseNumber":"12"');
  });

  test('that is made several times at once is made once, and each is told so', async () => {
    const body = newSite();
    const before = await countOf('sites');
    const statuses = await statusesOf(Array.from({ length: 12 }, () => post(body)));
    expect(new Set(statuses)).toEqual(new Set([201]));
    expect(await countOf('sites')).toBe(before + 1);
  });

  test('claims the id of its timer: of two at once one gets it', async () => {
    const timerId = randomUUID();
    const two = [0, 1].map(() => post(newSite({}, { timerId })));
    expect(await statusesOf(two)).toEqual([201, 409]);
  });

  test('cannot take the id of one that is there without a record', async () => {
    const refused = await post({ ...newSite(), siteId: FENNIMORE_SITE }).expect(409);
    expect(refused.body).toMatchObject({ code: 'id-reused' });
    await post(newSite({}, { timerId: FENNIMORE })).expect(409);
  });
});

test('one id for changes of several timers at once is taken by one of them', async () => {
  const id = randomUUID();
  const change = { type: 'note', fields: { rain: 'shutoff' } };
  const timers = [FENNIMORE, LARKHOLT, SORREL_ROW];
  const versions = await Promise.all(
    timers.map(async (timer) => {
      const answer = await server.tamsin.get(`/api/timers/${timer}/version`);
      return (answer.body as { version: number }).version;
    }),
  );
  const answers = await Promise.all(
    timers.map((timer, i) =>
      server.tamsin
        .post(`/api/timers/${timer}/changes`)
        .send({ id, baseVersion: versions[i], way: 'do', change }),
    ),
  );
  const statuses = answers.map(({ status }) => status).sort();
  // Core may refuse the change, but only one timer can have been changed under the id.
  expect(statuses.filter((status) => status === 200).length).toBeLessThanOrEqual(1);
  expect(statuses.every((status) => [200, 409, 422].includes(status))).toBe(true);
});

describe('a body', () => {
  const raw = (bytes: Buffer, type = 'application/json') =>
    server.tamsin
      .post('/api/sites')
      .set('content-type', type)
      .serialize((one: unknown) => one as string)
      .send(bytes as unknown as string);
  const named = (name: Buffer) => {
    const [before = '', after = ''] = JSON.stringify(newSite({ name: 'HERE' })).split('HERE');
    return Buffer.concat([Buffer.from(before), name, Buffer.from(after)]);
  };

  test.each([
    ['that is no UTF-8', Buffer.from([0xff, 0xfe, 0x41]), undefined],
    ['with half a character', Buffer.from([0xc3]), undefined],
    ['in another charset', Buffer.from('Caf\xe9', 'latin1'), 'application/json; charset=latin1'],
    ['in UTF-16', Buffer.from('abc'), 'application/json; charset=utf-16'],
  ] as const)('%s is refused', async (_what, name, type) => {
    const refused = await raw(named(name), type).expect(400);
    expect(refused.body).toMatchObject({ code: 'malformed-request' });
  });

  test('with many faults is answered with a hundred of them and the number of the rest', async () => {
    const stations = Array.from({ length: 5000 }, () => ({ odd: 1 }));
    const refused = await post(newSite({}, { plan: { ...plan, stations } })).expect(422);
    const { faults, moreFaults, message } = refused.body as {
      faults: object[];
      moreFaults: number;
      message: string;
    };
    expect(faults).toHaveLength(100);
    expect(moreFaults).toBeGreaterThan(4000);
    expect(message).toContain(`and ${moreFaults + 99} more`);
    expect(refused.text.length).toBeLessThan(40_000);
  });

  test('of a stranger is not read: large or broken, the answer is the same', async () => {
    const large = Buffer.alloc(20_000_000);
    const paths = [`/api/photos/${randomUUID()}`, `/api/sites/${randomUUID()}/archive`];
    for (const path of paths) {
      const answer = await server.nobody.put(path).send(large).expect(401);
      expect(answer.body).toMatchObject({ code: 'not-signed-in' });
    }
    await server.nobody
      .post('/api/sites')
      .set('content-type', 'application/json')
      .send('{')
      .expect(401);
    await server.nobody
      .post('/api/session')
      .send({ email: 'a@b.example', password: 'x'.repeat(6000) })
      .expect(413);
  });
});

describe('an archive', () => {
  const put = (bytes: Buffer, id = randomUUID()) =>
    server.tamsin
      .put(`/api/sites/${id}/archive`)
      .set('content-type', 'application/zip')
      .send(bytes);
  const filesOf = async () => {
    const answer = await bytesOf(server.tamsin.get(`/api/sites/${FENNIMORE_SITE}/archive`));
    return unzipped(answer.body as Buffer);
  };
  const indexOf = (files: Map<string, Buffer>) =>
    JSON.parse(files.get('site.json')?.toString() ?? '') as Record<string, unknown>;

  test.each<[string, string, (index: Record<string, unknown>) => unknown]>([
    ['null', 'site.json', () => null],
    ['a list', 'site.json', () => []],
    ['a site that is null', 'site.json', (index) => ({ ...index, site: null })],
    ['a site that is a list', 'site.json', (index) => ({ ...index, site: [] })],
    ['a timer that is null', 'site.json', (index) => ({ ...index, timers: [null] })],
    [
      'people that are null',
      'site.json',
      (index) => ({ ...index, site: { ...SITE, people: [null] } }),
    ],
    ['a plan that is null', 'timers/1/timer.plan.json', () => null],
    ['a survey that is null', 'timers/1/survey.json', () => null],
    ['a visit that is null', 'timers/1/visits/1.json', () => null],
  ])('with %s is refused by its part', async (_what, name, change) => {
    const files = await filesOf();
    const before = await countOf('sites');
    files.set(name, Buffer.from(JSON.stringify(change(indexOf(files)))));
    const refused = await put(await zipped(files)).expect(422);
    const { faults } = refused.body as { faults: { path: string }[] };
    expect(faults.length).toBeGreaterThan(0);
    expect(faults.every(({ path }) => path.startsWith(name))).toBe(true);
    expect(await countOf('sites')).toBe(before);
  });

  test('names each photo once, and not one that is another here', async () => {
    const id = randomUUID();
    const colour = (background: string) =>
      sharp({ create: { width: 8, height: 8, channels: 3, background } })
        .png()
        .toBuffer();
    await server.tamsin
      .put(`/api/photos/${id}`)
      .send(await colour('red'))
      .expect(200);
    const files = await filesOf();
    const withPhotos = async (photos: string[], bytes: Buffer) => {
      const all = new Map(files).set(`photos/${id}`, bytes);
      return zipped(
        all.set('site.json', Buffer.from(JSON.stringify({ ...indexOf(files), photos }))),
      );
    };
    const own = await colour('red');
    const before = await countOf('sites');
    const twice = await put(await withPhotos([id, id], own)).expect(422);
    expect((twice.body as { message: string }).message).toMatch(/listed only once/);
    const other = await put(await withPhotos([id], await colour('blue'))).expect(409);
    expect(other.body).toMatchObject({ code: 'id-reused' });
    expect(await countOf('sites')).toBe(before);
    await put(await withPhotos([id], own)).expect(200);
  });

  test('that is sent several times at once makes one site', async () => {
    const [bytes, id] = [await zipped(await filesOf()), randomUUID()];
    const before = await countOf('sites');
    const statuses = await statusesOf(Array.from({ length: 4 }, () => put(bytes, id)));
    expect(new Set(statuses)).toEqual(new Set([200]));
    expect(await countOf('sites')).toBe(before + 1);
  });
});

test('a name with a line break writes no line of its own into a calendar', async () => {
  const evil = 'Lawn\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nSUMMARY:Not ours';
  const stations = plan.stations.map((station) => ({ ...station, name: evil }));
  const body = newSite({}, { plan: { ...plan, stations } });
  await post(body).expect(201);
  // As in a database from before names were checked.
  await server.database.query('update sites set name = $1 where id = $2', [evil, body.siteId]);
  const { text } = await server.tamsin.get(`/api/timers/${body.timerId}/watering.ics`).expect(200);
  expect(text).toContain('Lawn END:VEVENT');
  expect(text).not.toMatch(/^(SUMMARY|X-WR-CALNAME):Not ours/m);
  const begun = text.match(/^BEGIN:VEVENT/gm)?.length;
  expect(begun).toBe(text.match(/^DTSTART/gm)?.length);
});

const ofSpain = (question: request.Test) => question.set('accept-language', 'es');

test.each<[string, () => request.Test, string, RegExp]>([
  [
    'a sign-in',
    () => server.nobody.post('/api/session').send({ email: 'a@b.example', password: 'nothing' }),
    'the address or password is wrong; check both and try again',
    /^la dirección o la contraseña es incorrecta/,
  ],
  [
    'a field of a form',
    () => post(newSite({ name: '' })),
    'enter a name for the site',
    /^anote el nombre de la casa$/,
  ],
  [
    'the name of a field',
    () => post(newSite({ street: 'x'.repeat(121) })),
    'the street has at most 120 characters',
    /^la calle: como máximo 120 caracteres$/,
  ],
  [
    'what is not there',
    () => server.tamsin.get(`/api/timers/${randomUUID()}`),
    'there is no such timer',
    /^no existe: programador$/,
  ],
  [
    'a plan',
    () => post(newSite({}, { plan: { ...plan, stations: 7 } })),
    'plan.stations: found a whole number; expected a list',
    /^plan.stations: se encontró un número entero; se esperaba una lista$/,
  ],
])(
  'the refusal of %s is said in the language of who asks',
  async (_what, ask, english, spanish) => {
    const messageOf = async (question: request.Test) =>
      ((await question).body as { message: string }).message;
    expect(await messageOf(ask())).toBe(english);
    expect(await messageOf(ofSpain(ask()))).toMatch(spanish);
    // Any language: English, not the long one of the tests.
    expect(await messageOf(ask().set('accept-language', '*'))).toBe(english);
  },
);

test('the API holds against requests that no client of ours would send', async () => {
  await server.app.listen(0, '127.0.0.1');
  const { demo } = (await server.nobody.get('/api/session')).body as {
    demo: { email: string; password: string };
  };
  const signedIn = await server.nobody
    .post('/api/session')
    .send({ email: demo.email, password: demo.password });
  const [cookie = ''] = String(signedIn.headers['set-cookie']).split(';');
  const told = await fuzzApi({
    url: await server.app.getUrl(),
    cookie,
    demo,
    requests: 600,
    seed: 18,
    changes: () => countOf('changes'),
  });
  expect(told.faults).toEqual([]);
  expect(told.byStatus['200']).toBeGreaterThan(20);
});
