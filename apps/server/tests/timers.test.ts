import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readPlan, type Plan } from '@water-clock/core';
import type request from 'supertest';
import {
  FENNIMORE,
  FENNIMORE_SITE,
  LARKHOLT,
  SORREL_ROW,
  startTestServer,
  type TestServer,
} from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface View {
  version: number;
  plan: Plan;
  history: { way: string }[];
}

const view = async (timer: string, agent = server.tamsin) =>
  (await agent.get(`/api/timers/${timer}`).expect(200)).body as View;

const starts = (...times: string[]) => ({ type: 'set-starts', program: 'B', starts: times });
const write = (timer: string, body: object, agent: request.Agent = server.tamsin): request.Test =>
  agent.post(`/api/timers/${timer}/changes`).send(body);
const change = (baseVersion: number, made: unknown, more: object = {}) => ({
  id: randomUUID(),
  baseVersion,
  way: 'do',
  change: made,
  ...more,
});

describe('a change', () => {
  test('is saved, and repeating it is harmless', async () => {
    const { version } = await view(FENNIMORE);
    const body = change(version, starts('05:45'));
    const first = await write(FENNIMORE, body).expect(200);
    const again = await write(FENNIMORE, body).expect(200);
    expect(first.body).toEqual({ version: version + 1 });
    expect(again.body).toEqual(first.body);
    const after = await view(FENNIMORE);
    expect(after.version).toBe(version + 1);
    expect(after.plan.programs[1]?.starts).toEqual(['05:45']);
    // Also after later changes, and with the id in upper case.
    await write(FENNIMORE, change(version + 1, starts('06:00'))).expect(200);
    const late = await write(FENNIMORE, { ...body, id: body.id.toUpperCase() }).expect(200);
    expect(late.body).toEqual(first.body);
    expect((await view(FENNIMORE)).plan.programs[1]?.starts).toEqual(['06:00']);
  });

  test('based on an older version is refused with both sides shown', async () => {
    const before = await view(FENNIMORE);
    await write(FENNIMORE, change(before.version, starts('04:00')), server.jory).expect(200);
    const refused = await write(FENNIMORE, change(before.version, starts('07:00'))).expect(409);
    expect(refused.body).toMatchObject({
      code: 'stale-version',
      current: { version: before.version + 1, by: 'Jory Pellaway' },
    });
    const body = refused.body as { current: { plan: Plan } };
    expect(body.current.plan.programs[1]?.starts).toEqual(['04:00']);
    expect((await view(FENNIMORE)).plan.programs[1]?.starts).toEqual(['04:00']);
  });

  test('of several in one request each is saved by itself, up to the first that is refused', async () => {
    const { version } = await view(FENNIMORE);
    const several = (writes: readonly object[]) =>
      server.tamsin.post(`/api/timers/${FENNIMORE}/changes/several`).send({ writes });
    const writes = ['04:05', '04:10'].map((at, i) => change(version + i, starts(at)));
    const saved = { versions: [version + 1, version + 2], refusal: null };
    expect((await several(writes).expect(200)).body).toEqual(saved);
    expect((await several(writes).expect(200)).body).toEqual(saved);
    expect((await view(FENNIMORE)).version).toBe(version + 2);

    // The second does not fit, so the third, based on it, is not tried.
    const wrong = change(version + 3, starts('04:65'));
    const after = change(version + 4, starts('04:20'));
    const answer = await several([change(version + 2, starts('04:15')), wrong, after]);
    expect(answer.body).toMatchObject({
      versions: [version + 3],
      refusal: { status: 422, body: { code: 'not-accepted' } },
    });
    expect((await view(FENNIMORE)).plan.programs[1]?.starts).toEqual(['04:15']);
    await several([]).expect(400);
    await several(Array.from({ length: 51 }, () => wrong)).expect(400);
    await several([{ ...wrong, id: 'none' }]).expect(400);
  });

  test('put on top of a colleague’s says so, until somebody sets it anew', async () => {
    const merging = async () => ((await view(FENNIMORE)) as View & { merging: unknown }).merging;
    const { version } = await view(FENNIMORE);
    await write(FENNIMORE, change(version, starts('03:00')), server.jory).expect(200);
    expect(await merging()).toBeNull();

    const mine = { type: 'set-starts', program: 'A', starts: ['03:10'] };
    const stale = await write(FENNIMORE, change(version, mine)).expect(409);
    expect(stale.body).toMatchObject({
      since: [{ by: 'Jory Pellaway', change: starts('03:00') }],
    });
    await write(FENNIMORE, change(version + 1, mine, { madeOn: version })).expect(200);
    expect(await merging()).toMatchObject({ by: 'Tamsin Orrowby', over: ['Jory Pellaway'] });
    const note = { type: 'note', fields: { rain: null } };
    await write(FENNIMORE, change(version + 2, note), server.jory).expect(200);
    expect(await merging()).not.toBeNull();
    await write(FENNIMORE, change(version + 3, starts('03:30')), server.jory).expect(200);
    expect(await merging()).toBeNull();
  });

  test('under an id that was used for another one is refused', async () => {
    const { version } = await view(FENNIMORE);
    const body = change(version, starts('04:15'));
    await write(FENNIMORE, body).expect(200);
    const other = { ...body, baseVersion: version + 1, change: starts('04:30') };
    const refused = await write(FENNIMORE, other).expect(409);
    expect(refused.body).toMatchObject({ code: 'id-reused' });
  });

  test('races with others: of twenty on one version exactly one is saved', async () => {
    const { version } = await view(SORREL_ROW);
    const name = (i: number) => ({
      type: 'set-station',
      station: 1,
      fields: { name: `Name ${i}` },
    });
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) => write(SORREL_ROW, change(version, name(i)))),
    );
    const saved = answers.filter(({ status }) => status === 200);
    expect(saved).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 409)).toHaveLength(19);
    expect((await view(SORREL_ROW)).version).toBe(version + 1);
  });

  test('can be undone by its maker until somebody else has changed the timer', async () => {
    const { version } = await view(LARKHOLT);
    await write(LARKHOLT, change(version, starts('21:15'))).expect(200);
    await write(LARKHOLT, change(version + 1, starts('21:00'), { way: 'undo' })).expect(200);
    expect((await view(LARKHOLT)).history.map(({ way }) => way)).toEqual(['do', 'undo']);
    expect((await view(LARKHOLT, server.jory)).history).toEqual([]);
    await write(LARKHOLT, change(version + 2, starts('21:30')), server.jory).expect(200);
    expect((await view(LARKHOLT)).history).toEqual([]);
  });
});

describe('what is wrong is refused with code, path and sentence, and changes nothing', () => {
  const deep = () => JSON.parse('['.repeat(500) + ']'.repeat(500)) as unknown;
  const bad: [string, number, string, string, (base: number) => object][] = [
    ['no id', 400, 'malformed-request', 'id', (base) => ({ ...change(base, starts()), id: 7 })],
    [
      'a version as text',
      400,
      'malformed-request',
      'baseVersion',
      () => change('1' as unknown as number, starts()),
    ],
    [
      'an unknown field',
      400,
      'malformed-request',
      'extra',
      (base) => change(base, starts(), { extra: 1 }),
    ],
    [
      'an unknown way',
      400,
      'malformed-request',
      'way',
      (base) => change(base, starts(), { way: 'x' }),
    ],
    ['no change', 400, 'malformed-request', 'change', (base) => change(base, undefined)],
    [
      'a change of no kind',
      422,
      'not-accepted',
      'change.type',
      (base) => change(base, { type: 'explode' }),
    ],
    [
      'an unknown field inside',
      422,
      'not-accepted',
      'change.when',
      (base) => change(base, { ...starts(), when: 'now' }),
    ],
    [
      'an impossible time',
      422,
      'not-accepted',
      'change.starts[1]',
      (base) => change(base, starts('05:00', '25:00')),
    ],
    [
      'a program that is not there',
      422,
      'not-accepted',
      'change.program',
      (base) => change(base, { ...starts(), program: 'Z' }),
    ],
    [
      'a station that is not there',
      422,
      'not-accepted',
      'change.runs[0].station',
      (base) =>
        change(base, { type: 'set-runs', program: 'A', runs: [{ station: 99, seconds: 60 }] }),
    ],
    [
      'a run of two days',
      422,
      'not-accepted',
      'change.runs[0].seconds',
      (base) =>
        change(base, { type: 'set-runs', program: 'A', runs: [{ station: 1, seconds: 172_800 }] }),
    ],
    [
      'a percent out of reach',
      422,
      'not-accepted',
      'change.settings.seasonalPercent',
      (base) => change(base, { type: 'set-settings', settings: { seasonalPercent: 900 } }),
    ],
    [
      'a document inside that is none',
      422,
      'not-accepted',
      'change.plan.programs',
      (base) =>
        change(base, { type: 'replace-plan', plan: { format: 'water-clock-plan', version: 1 } }),
    ],
    [
      'U+0000',
      400,
      'malformed-request',
      'change.fields.name',
      (base) => change(base, { type: 'set-station', station: 1, fields: { name: 'a\0b' } }),
    ],
    [
      'half a character',
      400,
      'malformed-request',
      'change.fields.name',
      (base) => change(base, { type: 'set-station', station: 1, fields: { name: '\ud800' } }),
    ],
    ['very deep nesting', 400, 'malformed-request', 'change[0]', (base) => change(base, deep())],
  ];

  test.each(bad)('%s', async (_name, status, code, path, make) => {
    const before = await view(FENNIMORE);
    const answer = await write(FENNIMORE, make(before.version));
    const body = answer.body as { code: string; faults: { path: string; message: string }[] };
    expect([answer.status, body.code]).toEqual([status, code]);
    const paths = body.faults.map((fault) => fault.path);
    expect(paths.some((one) => one.startsWith(path))).toBe(true);
    expect(body.faults.every((fault) => fault.message.length > 10)).toBe(true);
    expect(await view(FENNIMORE)).toEqual(before);
  });

  const raw: [string, number, string, string, string][] = [
    ['text that is not JSON', 400, 'malformed-request', 'application/json', '{"id": '],
    ['a list instead of an object', 400, 'malformed-request', 'application/json', '[]'],
    ['null', 400, 'malformed-request', 'application/json', 'null'],
    ['a form', 415, 'wrong-media-type', 'application/x-www-form-urlencoded', 'id=1'],
    ['5 MB', 413, 'too-large', 'application/json', JSON.stringify({ id: 'x'.repeat(5_000_000) })],
    [
      'a key of prototypes',
      400,
      'malformed-request',
      'application/json',
      '{"__proto__": {"way": 1}}',
    ],
  ];
  test.each(raw)('%s', async (_name, status, code, type, body) => {
    const before = await view(FENNIMORE);
    const answer = await server.tamsin
      .post(`/api/timers/${FENNIMORE}/changes`)
      .set('Content-Type', type)
      .send(body);
    expect([answer.status, (answer.body as { code: string }).code]).toEqual([status, code]);
    expect(await view(FENNIMORE)).toEqual(before);
  });
});

describe('the plan document', () => {
  const exported = async (timer: string) => {
    const answer = await server.tamsin.get(`/api/timers/${timer}/export`).expect(200);
    expect(answer.headers['content-type']).toContain('application/vnd.water-clock.plan+json');
    return answer.body as Plan;
  };

  test('goes out and in again without loss, as a new site and over another timer', async () => {
    const document = await exported(LARKHOLT);
    expect(readPlan(document)).toEqual({ ok: true, value: document });
    expect(document.site).toEqual({
      name: 'Larkholt',
      timeZone: 'Australia/Adelaide',
      latitude: -34.21,
      longitude: 139.86,
      houseNumber: '41',
    });
    const siteId = randomUUID();
    const timerId = randomUUID();
    const { name, ...place } = document.site ?? { name: '' };
    const body = { siteId, timerId, site: { name, ...place }, plan: document };
    await server.tamsin.post('/api/sites').send(body).expect(201);
    await server.tamsin.post('/api/sites').send(body).expect(201);
    expect(await exported(timerId)).toEqual(document);

    const { version } = await view(SORREL_ROW);
    await write(SORREL_ROW, change(version, { type: 'replace-plan', plan: document })).expect(200);
    const { site, ...settings } = await exported(SORREL_ROW);
    const { site: _theirs, ...expected } = document;
    expect(settings).toEqual(expected);
    expect(site?.name).toBe('Sorrel Row, new timer');
  });

  test('that breaks a rule adds no site', async () => {
    const document = await exported(LARKHOLT);
    const count = async () =>
      ((await server.tamsin.get('/api/sites').expect(200)).body as unknown[]).length;
    const before = await count();
    const plan = { ...document, programs: [{ ...document.programs[0], letter: 'Q' }] };
    const site = { name: 'Broken', timeZone: 'Europe/Lisbon' };
    const ids = { siteId: randomUUID(), timerId: randomUUID() };
    const answer = await server.tamsin
      .post('/api/sites')
      .send({ ...ids, site, plan })
      .expect(422);
    expect(answer.body).toMatchObject({
      code: 'not-accepted',
      faults: [{ code: 'beyond-timer', path: 'plan.programs[0].letter' }],
    });
    const nowhere = { ...site, timeZone: 'Nowhere/Land', latitude: 91 };
    const refused = await server.tamsin
      .post('/api/sites')
      .send({ ...ids, site: nowhere, plan: document })
      .expect(400);
    const { faults } = refused.body as { faults: { path: string }[] };
    expect(faults.map(({ path }) => path)).toEqual(['site.timeZone', 'site.latitude']);
    expect(await count()).toBe(before);
  });
});

test('a site is changed like a timer: repeated harmlessly, stale refused with what is saved', async () => {
  const path = `/api/sites/${FENNIMORE_SITE}/changes`;
  const site = { name: 'Fennimore', houseNumber: '8b', timeZone: 'Europe/Lisbon' };
  const body = { id: randomUUID(), baseVersion: 1, site };
  const first = await server.tamsin.post(path).send(body).expect(200);
  expect(first.body).toMatchObject({ ...site, version: 2, latitude: null });
  expect((await server.tamsin.post(path).send(body).expect(200)).body).toEqual(first.body);
  const stale = { ...body, id: randomUUID(), site: { ...site, name: 'Mine' } };
  const refused = await server.tamsin.post(path).send(stale).expect(409);
  expect(refused.body).toMatchObject({ code: 'stale-version', current: { name: 'Fennimore' } });
});

test('what supplies a house, when it is mown and notes are kept in order, and refused by their paths', async () => {
  const path = `/api/sites/${FENNIMORE_SITE}/changes`;
  const sites = (await server.tamsin.get('/api/sites').expect(200)).body as {
    id: string;
    version: number;
  }[];
  const own = sites.find(({ id }) => id === FENNIMORE_SITE);
  const version = own?.version ?? 0;
  const site = { name: 'Fennimore', timeZone: 'Europe/Lisbon' };
  const write = (more: object) => ({
    id: randomUUID(),
    baseVersion: version,
    site: { ...site, ...more },
  });
  const wrong = write({
    supply: 'river',
    mowing: ['sat', 'sat', 'someday'],
    notes: 'x'.repeat(2001),
  });
  const refused = await server.tamsin.post(path).send(wrong).expect(400);
  const { faults } = refused.body as { faults: { path: string }[] };
  expect([...new Set(faults.map((fault) => fault.path.split('[')[0]))].sort()).toEqual([
    'site.mowing',
    'site.notes',
    'site.supply',
  ]);
  const sound = write({ supply: 'bore', mowing: ['sat', 'mon'], notes: ' by the shed ' });
  const saved = await server.tamsin.post(path).send(sound).expect(200);
  expect(saved.body).toMatchObject({
    version: version + 1,
    supply: 'bore',
    mowing: ['mon', 'sat'],
    notes: 'by the shed',
  });
});
