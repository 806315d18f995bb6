import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { SHIPPED_KINDS, SHIPPED_TASKS, type ClimateDocument, type Rules } from '@water-clock/core';
import { NoPhoto, photoContent } from '../src/photos/photo-content.ts';
import { FENNIMORE, FENNIMORE_SITE, startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const RULES: Rules = {
  format: 'water-clock-rules',
  version: 1,
  name: 'Marrowby',
  editions: [{ from: '2026-01-01', clauses: [{ weekdays: ['mon'] }] }],
};
const CLIMATE: ClimateDocument = {
  format: 'water-clock-climate',
  version: 1,
  name: 'Marrowby hill',
  source: 'our own gauge',
  latitude: -34,
  months: Array.from({ length: 12 }, () => ({
    highestCelsius: 22,
    lowestCelsius: 12,
    rainMm: 50,
  })),
};
const keep = (id: string, body: object, agent = server.tamsin) =>
  agent.post(`/api/library/rules/${id}/changes`).send({ id: randomUUID(), ...body });
interface Entry {
  id: string;
  version: number;
  document: object | null;
}
const listed = async (agent = server.tamsin) =>
  (await agent.get('/api/library/rules').expect(200)).body as Entry[];

describe('the library', () => {
  test('keeps a document, repeats harmlessly, refuses what is stale with the present one, takes out', async () => {
    const id = randomUUID();
    const body = { id: randomUUID(), baseVersion: 0, document: RULES };
    expect((await keep(id, body).expect(200)).body).toEqual({ version: 1 });
    expect((await keep(id, body).expect(200)).body).toEqual({ version: 1 });
    const other = { ...RULES, name: 'Marrowby north' };
    await keep(id, { baseVersion: 1, document: other }).expect(200);
    const refused = await keep(id, { baseVersion: 1, document: RULES }).expect(409);
    expect(refused.body).toMatchObject({
      code: 'stale-version',
      current: { version: 2, document: { name: 'Marrowby north' } },
    });
    await keep(id, { ...body, document: other }).expect(409);
    await keep(id, { baseVersion: 2, document: null }).expect(200);
    expect((await listed()).find((entry) => entry.id === id)).toEqual({
      id,
      version: 3,
      document: null,
    });
  });

  test('of ten who add the same document at once one is saved', async () => {
    const id = randomUUID();
    const answers = await Promise.all(
      Array.from({ length: 10 }, () => keep(id, { baseVersion: 0, document: RULES })),
    );
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 409)).toHaveLength(9);
  });

  test('refuses by path what is no document of its shelf, and changes nothing', async () => {
    const before = await listed();
    const bad = await keep(randomUUID(), { baseVersion: 0, document: { ...RULES, editions: [] } });
    expect(bad.status).toBe(422);
    expect(bad.body).toMatchObject({ faults: [{ path: 'document.editions' }] });
    await keep(randomUUID(), { baseVersion: 0, document: 'rules' }).expect(400);
    await keep(randomUUID(), { baseVersion: 0, document: SHIPPED_KINDS[0]?.kind }).expect(422);
    await server.tamsin.get('/api/library/elsewhere').expect(404);
    expect(await listed()).toEqual(before);
  });

  test('a task of the office is kept as it is, and a broken one is refused by path', async () => {
    const id = randomUUID();
    const task = SHIPPED_TASKS[0]?.task;
    const put = (document: unknown, baseVersion = 0) =>
      server.tamsin
        .post(`/api/library/tasks/${id}/changes`)
        .send({ id: randomUUID(), baseVersion, document });
    const bad = await put({ ...task, level: 6 }).expect(422);
    expect(bad.body).toMatchObject({ faults: [{ path: 'document.level' }] });
    await put(task).expect(200);
    const kept = await server.tamsin.get('/api/library/tasks').expect(200);
    expect(kept.body).toEqual([
      { id, version: 1, document: JSON.parse(JSON.stringify(task)) as object },
    ]);
    expect((await server.stranger.get('/api/library/tasks').expect(200)).body).toEqual([]);
  });

  test('an id of one shelf is not taken for another', async () => {
    const kind = SHIPPED_KINDS[1];
    const body = { id: randomUUID(), baseVersion: 0, document: kind?.kind };
    await server.tamsin.post(`/api/library/kinds/${kind?.id}/changes`).send(body).expect(200);
    const refused = await keep(kind?.id ?? '', { baseVersion: 0, document: RULES }).expect(409);
    expect(refused.body).toMatchObject({ code: 'id-reused' });
  });

  test('is the company’s own', async () => {
    expect(await listed(server.stranger)).toEqual([]);
    const [mine] = await listed();
    await keep(mine?.id ?? '', { baseVersion: 0, document: RULES }, server.stranger).expect(200);
    expect((await listed()).find(({ id }) => id === mine?.id)).toEqual(mine);
    await server.nobody.get('/api/library/rules').expect(401);
  });
});

/** A one-pixel PNG, and one that claims to be larger. */
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const sized = (width: number, height: number) => {
  const bytes = Buffer.from(PIXEL);
  bytes.writeUInt32BE(width, 16);
  bytes.writeUInt32BE(height, 20);
  return bytes;
};

describe('a photo', () => {
  const put = (id: string, bytes: Buffer, type = 'image/jpeg') =>
    server.tamsin.put(`/api/photos/${id}`).set('content-type', type).send(bytes);

  const red = { create: { width: 40, height: 20, channels: 3, background: 'red' } } as const;

  test('is kept by what it is, as its picture alone, and repeating it is harmless', async () => {
    const id = randomUUID();
    // Rotated, with a location, and with extra bytes at the end.
    const taken = await sharp(red)
      .withExif({ IFD3: { GPSLatitude: '51/1 30/1 0/1' }, IFD0: { Artist: 'Someone' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const sent = Buffer.concat([taken, Buffer.from('<script>hidden</script>')]);
    for (let i = 0; i < 2; i++)
      expect((await put(id, sent, 'text/html').expect(200)).body).toEqual({
        id,
        width: 20,
        height: 40,
      });
    const back = await server.tamsin.get(`/api/photos/${id}`).expect(200);
    expect(back.headers['content-type']).toBe('image/jpeg');
    expect(back.headers['x-content-type-options']).toBe('nosniff');
    const kept = back.body as Buffer;
    expect(kept.includes('hidden') || kept.includes('Someone')).toBe(false);
    const { exif, orientation } = await sharp(kept).metadata();
    expect([exif, orientation]).toEqual([undefined, undefined]);
    // The stored file may be uploaded too, as an archive import does.
    await put(id, kept).expect(200);
    await put(id, PIXEL).expect(409);
    // The photo may arrive later, so the answer must not be cached.
    const missing = await server.stranger.get(`/api/photos/${id}`).expect(404);
    expect(missing.headers['cache-control']).toBe('no-store');
  });

  test.each<[string, Buffer, RegExp]>([
    ['an executable', Buffer.concat([Buffer.from('MZ'), Buffer.alloc(400)]), /not a photo/],
    [
      'a script',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script/></svg>'),
      /svg/,
    ],
    ['forty megapixels', sized(7300, 5500), /7300 × 5500.*4096/],
    ['a photo that is cut off', PIXEL.subarray(0, 40), /incomplete|not a photo/],
    ['nothing', Buffer.alloc(0), /no photo was received/],
  ])('%s named .jpg is refused', async (_name, bytes, words) => {
    const id = randomUUID();
    const refused = await put(id, bytes).expect(422);
    expect((refused.body as { message: string }).message).toMatch(words);
    await server.tamsin.get(`/api/photos/${id}`).expect(404);
  });

  test('of too many bytes is refused in the API’s own form', async () => {
    const refused = await put(randomUUID(), Buffer.alloc(3_000_001)).expect(413);
    expect(refused.body).toMatchObject({ code: 'too-large' });
  });

  test('is refused in one way, whatever the bytes', async () => {
    for (let seed = 1; seed <= 300; seed++) {
      const bytes = Buffer.from(PIXEL);
      bytes[(seed * 7919) % bytes.length] = (seed * 31) & 255;
      const cut = bytes.subarray(0, (seed * 13) % bytes.length);
      const outcome = await photoContent(cut).catch((error: unknown) => error);
      if (outcome instanceof Error) expect(outcome).toBeInstanceOf(NoPhoto);
      else expect(outcome).toMatchObject({ width: 1, height: 1 });
    }
  });
});

describe('the weather feed', () => {
  test('has towns, their normals and ten years of days', async () => {
    const towns = await server.tamsin.get('/api/weather/towns').expect(200);
    expect((towns.body as { id: string }[]).map(({ id }) => id)).toContain('ostrelle');
    const normals = await server.tamsin.get('/api/weather/towns/ostrelle/normals').expect(200);
    expect((normals.body as ClimateDocument).months).toHaveLength(12);
    const path = '/api/weather/towns/ostrelle/days';
    const some = await server.tamsin.get(`${path}?from=2025-12-30&to=2031-01-01`).expect(200);
    expect((some.body as { date: string }[]).map(({ date }) => date)).toEqual([
      '2025-12-30',
      '2025-12-31',
    ]);
    expect((await server.tamsin.get(path).expect(200)).body).toHaveLength(3653);
    await server.tamsin.get(`${path}?from=yesterday`).expect(400);
    await server.tamsin.get('/api/weather/towns/atlantis/days').expect(404);
  });
});

describe('a survey', () => {
  interface View {
    version: number;
    survey: { stations: { number: number; head?: string }[] };
    site: Record<string, unknown>;
  }
  const view = async () => (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as View;

  test('is changed as the plan is, in one step with it, and refused by path', async () => {
    const { version } = await view();
    const change = {
      type: 'together',
      changes: [
        { type: 'note-station', station: 2, fields: { head: 'impact-rotor' } },
        { type: 'set-station', station: 2, fields: { cycleSeconds: 300 } },
      ],
    };
    const send = (made: object, baseVersion: number) =>
      server.tamsin
        .post(`/api/timers/${FENNIMORE}/changes`)
        .send({ id: randomUUID(), baseVersion, way: 'do', change: made });
    await send(change, version).expect(200);
    const after = await view();
    expect(after.survey.stations[1]?.head).toBe('impact-rotor');
    const stale = await send(change, version).expect(409);
    expect(stale.body).toMatchObject({ current: { survey: after.survey } });
    const bad = { type: 'note-station', station: 2, fields: { areaSquareMetres: -1 } };
    const refused = await send(bad, after.version).expect(422);
    expect(refused.body).toMatchObject({ faults: [{ path: 'change.fields.areaSquareMetres' }] });
    expect(await view()).toEqual(after);
  });

  test('a house keeps its people, place, rules and units, and says what is wrong with them', async () => {
    const { site } = await view();
    const { id: _id, version, ...fields } = site;
    const send = (more: object) =>
      server.tamsin
        .post(`/api/sites/${FENNIMORE_SITE}/changes`)
        .send({ id: randomUUID(), baseVersion: version, site: { ...fields, ...more } });
    await send({ units: 'furlongs' }).expect(400);
    await send({ rulesId: 'the old ones' }).expect(400);
    await send({ people: [{ name: '', role: '', phone: '' }] }).expect(400);
    const people = [{ name: 'Ida', role: 'owner', phone: '555 0101' }];
    const saved = await send({ people, units: 'us', town: 'sandorra' }).expect(200);
    expect(saved.body).toMatchObject({ people, units: 'us', town: 'sandorra' });
  });

  test('a house refers only to documents of its own company’s library, and has one weather', async () => {
    const { site } = await view();
    const { id: _id, version, ...fields } = site;
    const send = (more: object) =>
      server.tamsin
        .post(`/api/sites/${FENNIMORE_SITE}/changes`)
        .send({ id: randomUUID(), baseVersion: version, site: { ...fields, ...more } });
    const foreign = randomUUID();
    await keep(foreign, { baseVersion: 0, document: RULES }, server.stranger).expect(200);
    const refused = async (more: object) =>
      ((await send(more).expect(422)).body as { faults: { path: string }[] }).faults.map(
        ({ path }) => path,
      );
    expect(await refused({ rulesId: foreign })).toEqual(['site.rulesId']);
    // Rules are not a climate, although both are in the library.
    const [rules] = await listed();
    expect(await refused({ climateId: rules?.id, town: null })).toEqual(['site.climateId']);
    const climate = randomUUID();
    await server.tamsin
      .post(`/api/library/climates/${climate}/changes`)
      .send({ id: randomUUID(), baseVersion: 0, document: CLIMATE })
      .expect(200);
    expect(await refused({ climateId: climate, town: 'sandorra' })).toEqual(['site.climateId']);
    await send({ climateId: climate, town: null }).expect(200);
    expect((await view()).site).toMatchObject({ climateId: climate, town: null });
  });
});

/** Reverts migrations, newest first, down to the given one. */
async function backBefore(name: string): Promise<void> {
  const lastOf = async () => {
    const [row]: { name: string }[] = await server.database.query(
      'select name from migrations order by timestamp desc limit 1',
    );
    return row?.name ?? name;
  };
  for (let last = ''; !last.startsWith(name);) {
    last = await lastOf();
    await server.database.undoLastMigration();
  }
}

test('weather in one field becomes a town or a climate, and back', async () => {
  const weather = async () =>
    (
      (await server.tamsin.get('/api/sites').expect(200)).body as {
        town: string;
        climateId: string;
      }[]
    ).map(({ town, climateId }) => [town, climateId]);
  const before = await weather();
  expect(before.filter(([, climateId]) => climateId !== null)).toHaveLength(1);
  await backBefore('ClosedLists');
  await server.database.runMigrations();
  expect(await weather()).toEqual(before);
});

test('a database from before the survey is brought up, and back, without harm to what is in it', async () => {
  const before = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as { plan: object };
  await backBefore('Survey');
  await server.database.runMigrations();
  const after = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as {
    plan: object;
    survey: object;
    site: object;
  };
  expect(after.plan).toEqual(before.plan);
  expect(after.survey).toEqual({ stations: [] });
  expect(after.site).toMatchObject({ people: [], units: null, town: null, rulesId: null });
});
