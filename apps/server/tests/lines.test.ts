/** The timer list, searched, filtered, sorted and paged in the database; and changes to many sites at once. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { SHIPPED_KINDS, type Plan } from '@water-clock/core';
import Papa from 'papaparse';
import { FENNIMORE, linesOf, startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface Lines {
  readonly total: number;
  readonly counts: { readonly all: number; readonly [filter: string]: number };
  readonly checking: number;
  readonly lines: {
    readonly id: string;
    readonly name: string;
    readonly site: { readonly id: string; readonly name: string; readonly version: number };
    readonly stations: number;
    readonly verdict: string;
    readonly breaches: number;
    readonly nextVisit: string | null;
    readonly person: { readonly name: string } | null;
  }[];
}
const list = async (query: string, agent = server.tamsin) =>
  (await agent.get(`/api/timers?${query}`).expect(200)).body as Lines;
const namesOf = ({ lines }: Lines) => lines.map(({ site }) => site.name);

async function noteAt(timer: string, change: object): Promise<void> {
  const { version } = (await server.tamsin.get(`/api/timers/${timer}`)).body as { version: number };
  await server.tamsin
    .post(`/api/timers/${timer}/changes`)
    .send({ id: randomUUID(), baseVersion: version, way: 'do', change })
    .expect(200);
}

const kindId = SHIPPED_KINDS[0]?.id ?? '';
const bring = async (sites: readonly object[]) => {
  const rows = sites.map((site) => ({
    ...{ siteId: randomUUID(), timerId: randomUUID(), kindId },
    site: { timeZone: 'Europe/Lisbon', ...site },
  }));
  await server.tamsin
    .post('/api/sites/several')
    .send({ id: randomUUID(), sites: rows })
    .expect(201);
  await linesOf(server.tamsin);
  return rows.map(({ siteId }) => ({ id: siteId, baseVersion: 1 }));
};

test('a house is found by any part of what is known of it, without marks and whatever the order', async () => {
  await bring([
    {
      name: 'Ärdal Zufalle',
      houseNumber: '17b',
      street: 'Quillery Façade',
      locality: 'Dunnock',
      notes: 'key under 100%_stone',
      people: [{ name: 'Ósk Vane', role: 'owner', phone: '+351 555-01 77' }],
    },
  ]);
  const { plan } = (await server.tamsin.get(`/api/timers/${FENNIMORE}`)).body as {
    plan: { timer: { name: string } };
  };
  await noteAt(FENNIMORE, { type: 'note-station', station: 1, fields: { decoder: 'DX-90417' } });
  await linesOf(server.tamsin);
  const finds = async (words: string) => namesOf(await list(`find=${encodeURIComponent(words)}`));
  for (const words of [
    ...['ardal', 'ZUFALLE', 'zufalle 17B', 'facade quill', 'dunnock vane', 'osk', '5550177'],
    ...['555-01', '100%_stone'],
  ])
    expect([words, await finds(words)]).toEqual([words, ['Ärdal Zufalle']]);
  expect(await finds('90417')).toEqual(['Fennimore house']);
  expect(await finds(plan.timer.name)).toContain('Fennimore house');
  for (const words of ['zufalle nothing', '100%stone', '1__%_stone'])
    expect([words, await finds(words)]).toEqual([words, []]);
  expect(await list('find=zufalle', server.stranger)).toMatchObject({ total: 0, lines: [] });
});

test('each filter counts and shows the same timers, and pages in an order hold each of them once', async () => {
  const all = await list('size=200');
  expect(all.counts.all).toBe(all.lines.length);
  for (const [filter, verdicts] of [
    ['overlap', ['overlap']],
    ['unset', ['incomplete', 'empty']],
  ] as const) {
    const shown = await list(`size=200&show=${filter}`);
    const wanted = all.lines.filter(({ verdict }) =>
      (verdicts as readonly string[]).includes(verdict),
    );
    expect(new Set(shown.lines.map(({ id }) => id))).toEqual(new Set(wanted.map(({ id }) => id)));
    expect([shown.total, all.counts[filter]]).toEqual([wanted.length, wanted.length]);
  }
  expect(all.counts['overlap']).toBeGreaterThan(0);
  for (const sort of ['site', '-site', 'verdict', '-stations', 'next', '-trouble', 'street']) {
    const pages: Lines[] = [];
    for (let page = 1; page <= Math.ceil(all.total / 5); page++)
      pages.push(await list(`sort=${sort}&size=5&page=${page}`));
    const rows = pages.flatMap(({ lines }) => lines);
    expect(new Set(rows.map(({ id }) => id)).size).toBe(all.total);
    const next = rows.map(({ nextVisit }) => nextVisit ?? '9');
    if (sort === 'next') expect(next).toEqual([...next].sort());
    const stations = rows.map((row) => row.stations);
    if (sort === '-stations') expect(stations).toEqual([...stations].sort((a, b) => b - a));
  }
  for (const query of [
    'show=pretty',
    'sort=colour',
    'size=0',
    'size=1000',
    'page=x',
    'site=1',
    'a=b',
  ]) {
    const refused = await server.tamsin.get(`/api/timers?${query}`).expect(400);
    expect([query, (refused.body as { code: string }).code]).toEqual([query, 'malformed-request']);
  }
});

test('a garden that overlaps and breaks the rules counts under both, and too much flow is told', async () => {
  const count = async () => (await list('size=200')).counts;
  const before = await count();
  const all = await list('size=200');
  const breaking = all.lines.filter(({ breaches }) => breaches > 0);
  expect(before['breach']).toBe(breaking.length);
  // Larkholt breaks the rules of its place and does not overlap; one start on top of another makes it do both.
  const [line] = breaking.filter(({ verdict }) => verdict === 'breach');
  if (!line) throw new Error('no garden breaks the rules only');
  const { plan } = (await server.tamsin.get(`/api/timers/${line.id}`)).body as { plan: Plan };
  const { letter, starts } = plan.programs.find(({ starts: [first] }) => first) ?? {};
  if (!letter || !starts?.[0]) throw new Error('no starts');
  const more = [...starts, starts[0]];
  await noteAt(line.id, { type: 'set-starts', program: letter, starts: more });
  await linesOf(server.tamsin);
  const after = await count();
  expect([after['overlap'], after['breach']]).toEqual([
    (before['overlap'] ?? 0) + 1,
    before['breach'],
  ]);
});

test('the list can be saved as a table, in which no cell is a formula', async () => {
  await bring([{ name: '=1+1', locality: 'Dunnock' }]);
  const table = await server.tamsin.get('/api/timers.csv?find=dunnock').expect(200);
  const { data } = Papa.parse<Record<string, string>>(table.text, { header: true });
  expect(data.map(({ name }) => name)).toContain("'=1+1");
  expect(data.every(({ town }) => town === 'Dunnock')).toBe(true);
});

test('many houses are changed together, or none is', async () => {
  const sites = await bring([1, 2, 3].map((n) => ({ name: `Many ${n}`, street: 'Bulk Row' })));
  const found = async () => (await list('find=bulk&size=200')).lines;
  const change = (to: object, of = sites, id = randomUUID()) =>
    server.tamsin.post('/api/sites/many').send({ id, sites: of, to });
  const [jory] = (
    (await server.tamsin.get('/api/people')).body as { id: string; name: string }[]
  ).filter(({ name }) => name.startsWith('Jory'));
  if (!jory) throw new Error('Jory is of the demo company');
  const id = randomUUID();
  for (let i = 0; i < 2; i++)
    expect((await change({ personId: jory.id }, sites, id).expect(200)).body).toEqual({
      changed: 3,
    });
  expect((await found()).map(({ person }) => person?.name)).toEqual(Array(3).fill(jory.name));
  expect((await list(`person=${jory.id}`)).total).toBe(3);

  // Two rows as written by the previous version.
  const second = sites.map((one, i) => ({ ...one, baseVersion: i === 0 ? 2 : 1 }));
  const stale = await change({ isArchived: true }, second).expect(409);
  expect(stale.body).toMatchObject({ code: 'stale-version', message: /^2 of these/ });
  const now = sites.map((one) => ({ ...one, baseVersion: 2 }));
  expect(await found()).toHaveLength(3);
  await change({ personId: null, isArchived: true }, now).expect(422);
  await change({ rulesId: randomUUID() }, now).expect(422);
  await change({ personId: randomUUID() }, now).expect(422);
  await change({ isArchived: true }, [...now, { id: randomUUID(), baseVersion: 1 }]).expect(404);
  await change({ isArchived: true }, [...now, ...now]).expect(400);
  await server.stranger
    .post('/api/sites/many')
    .send({ id: randomUUID(), sites: now, to: { isArchived: true } })
    .expect(404);
  expect((await found()).map(({ site }) => site.version)).toEqual([2, 2, 2]);

  await change({ isArchived: true }, now).expect(200);
  expect(await found()).toEqual([]);
  expect((await list('find=bulk&state=archived')).total).toBe(3);
  const which = await server.tamsin.get('/api/timers-sites?find=bulk&state=archived').expect(200);
  expect(new Set((which.body as { id: string }[]).map((one) => one.id))).toEqual(
    new Set(now.map((one) => one.id)),
  );
  await change(
    { isArchived: false },
    sites.map((one) => ({ ...one, baseVersion: 3 })),
  ).expect(200);
  expect(await found()).toHaveLength(3);
});

test('no house is put away while a visit is under way at one of them', async () => {
  await noteAt(FENNIMORE, { type: 'note', fields: { visit: { began: '2027-06-01T10:00' } } });
  const [busy] = (await list('show=under-way')).lines;
  if (!busy) throw new Error('a visit is under way now');
  const [quiet] = await bring([{ name: 'Quiet one' }]);
  const sites = [quiet, { id: busy.site.id, baseVersion: busy.site.version }];
  const body = { id: randomUUID(), sites, to: { isArchived: true } };
  const refused = await server.tamsin.post('/api/sites/many').send(body).expect(409);
  expect((refused.body as { code: string }).code).toBe('visit-open');
  expect((await list('find=quiet')).total).toBe(1);
});
