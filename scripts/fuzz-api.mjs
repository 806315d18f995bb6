/**
 * Sends the API what no client of ours would: every write route, signed in and not, with valid bodies broken at random. No answer may be
 * 5xx or take longer than two seconds, and exactly what was answered 2xx must be on record.
 *
 * `npm run fuzz:api -- [REQUESTS] [SEED]`; the tests run a short version.
 */
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const MOST_MS = 2000;
const TIMER = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';
const SITE = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b01';

/** Seeded pseudo-random integers below a bound (mulberry32). */
function randomOf(seed) {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) % below;
  };
}

const ODD = [
  null,
  [],
  {},
  [[]],
  [null],
  '',
  ' ',
  '45,5',
  '12',
  0,
  -1,
  1.5,
  1e21,
  2 ** 31,
  2 ** 53,
  true,
  'null',
  'a\u0000b',
  '\ud800',
  'line\r\nBEGIN:VEVENT',
  '\u202eevil',
  'x'.repeat(3000),
  TIMER,
  SITE,
  '__proto__',
  { __proto__: null, constructor: 1 },
  { type: 'note', fields: { stations: null } },
];

/** Every place in a JSON value, as its object or list and key. */
function placesIn(value) {
  if (typeof value !== 'object' || value === null) return [];
  return Object.keys(value).flatMap((key) => [[value, key], ...placesIn(value[key])]);
}

function broken(body, random) {
  const whole = { body: structuredClone(body) };
  for (let n = random(3); n >= 0; n--) {
    const places = placesIn(whole);
    const [holder, key] = places[random(places.length)] ?? [whole, 'body'];
    const what = random(10);
    if (what === 0 && holder !== whole) {
      if (Array.isArray(holder)) holder.splice(Number(key), 1);
      else delete holder[key];
    } else if (what === 1 && holder !== whole && !Array.isArray(holder))
      holder[`odd${random(9)}`] = ODD[random(ODD.length)];
    else if (what === 2 && Array.isArray(holder)) holder.push(structuredClone(holder[0] ?? null));
    else holder[key] = structuredClone(ODD[random(ODD.length)]);
  }
  return whole.body;
}

const siteOf = (name) => ({
  name,
  timeZone: 'Europe/Lisbon',
  latitude: 1.5,
  longitude: 2.5,
  houseNumber: '12',
  supply: null,
  mowing: ['sat'],
  notes: 'Gate on the left',
  people: [{ name: 'Ada', role: 'owner', phone: '555 0101' }],
  units: 'metric',
  clockStyle: '24',
  town: null,
  climateId: null,
  rulesId: null,
  minutesId: null,
});

/** The write routes, each with a valid request; `idOf`: the id under which a body is on record. */
const ROUTES = [
  ({ plan }) => ({
    method: 'POST',
    path: '/api/sites',
    body: { siteId: randomUUID(), timerId: randomUUID(), site: siteOf('New'), plan },
    idOf: ({ siteId }) => siteId,
  }),
  ({ site }) => ({
    method: 'POST',
    path: `/api/sites/${SITE}/changes`,
    body: { id: randomUUID(), baseVersion: site, site: siteOf('Larkholt') },
    idOf: ({ id }) => id,
  }),
  ({ timer }) => ({
    method: 'POST',
    path: `/api/timers/${TIMER}/changes`,
    body: {
      id: randomUUID(),
      baseVersion: timer,
      way: 'do',
      change: { type: 'note', fields: { rain: 'sensor' } },
    },
    idOf: ({ id }) => id,
  }),
  ({ timer }) => ({
    method: 'POST',
    path: `/api/timers/${TIMER}/visits`,
    body: { id: randomUUID(), baseVersion: timer, closed: '2026-11-27T10:40', undone: [] },
    idOf: ({ id }) => id,
    // No visit is open.
    refused: true,
  }),
  () => ({
    method: 'POST',
    path: `/api/library/office/${randomUUID()}/changes`,
    body: {
      id: randomUUID(),
      baseVersion: 0,
      document: { format: 'water-clock-office', version: 1, phone: '555 0100' },
    },
    idOf: ({ id }) => id,
  }),
  ({ rules }) => ({
    method: 'POST',
    path: `/api/library/rules/${randomUUID()}/changes`,
    body: { id: randomUUID(), baseVersion: 0, document: rules },
    idOf: ({ id }) => id,
  }),
  () => ({
    method: 'POST',
    path: '/api/preferences/changes',
    body: { id: randomUUID(), baseVersion: 1, preferences: { clock: '24', textSize: 125 } },
    idOf: ({ id }) => id,
  }),
  () => ({
    method: 'POST',
    path: `/api/timers/${TIMER}/links`,
    body: { id: randomUUID(), token: 'a'.repeat(43), days: 30 },
  }),
  () => ({
    method: 'POST',
    path: `/api/timers/${TIMER}/links/${randomUUID()}/withdraw`,
    body: {},
  }),
  ({ company }) => ({
    method: 'POST',
    path: '/api/company/changes',
    body: { id: randomUUID(), baseVersion: company, keepChangesDays: 365 },
    idOf: ({ id }) => id,
  }),
  // The two ways to sign in: a password, and a link.
  ({ demo }) => ({
    method: 'POST',
    path: '/api/session',
    body: { email: demo.email, password: demo.password },
  }),
  ({ demo }) => ({ method: 'POST', path: '/api/session', body: { ...demo, password: 'guess' } }),
  () => ({ method: 'GET', path: '/api/page', body: 'a'.repeat(43), isBearer: true }),
  () => ({ method: 'GET', path: '/api/page/pdf?paper=a4', body: 'b'.repeat(43), isBearer: true }),
  () => ({ method: 'PUT', path: `/api/photos/${randomUUID()}`, body: { raw: 'photo' } }),
  () => ({ method: 'PUT', path: `/api/sites/${randomUUID()}/archive`, body: { raw: 'PK' } }),
];

const TYPES = [
  'application/json',
  'application/json; charset=latin1',
  'application/json; charset=utf-16',
  'text/plain',
  'application/x-www-form-urlencoded',
  '',
];

/** Bytes of a body; now and then not JSON, or not UTF-8. */
function bytesOf(body, random) {
  const text = JSON.stringify(body) ?? '';
  const what = random(40);
  if (what === 0) return Buffer.from(text.slice(0, random(text.length + 1)));
  if (what === 1) return Buffer.concat([Buffer.from(text), Buffer.from([0xff, 0xfe])]);
  if (what === 2) return Buffer.from(text.replace(/[A-Z]/, '\xff'), 'latin1');
  if (what === 3) return Buffer.from('['.repeat(5000));
  if (what === 4) return Buffer.alloc(random(400), random(256));
  return Buffer.from(text);
}

/**
 * @param {{ url: string, cookie: string, demo: { email: string, password: string }, requests: number, seed: number, changes: () => Promise<number> }} options `changes`: how many
 *   are on record in the database
 * @returns {Promise<{ sent: number, byStatus: Record<string, number>, slowest: number, faults: string[] }>}
 */
export async function fuzzApi({ url, cookie, demo, requests, seed, changes }) {
  const random = randomOf(seed);
  const before = await changes();
  const kept = new Set();
  const faults = [];
  const byStatus = {};
  let slowest = 0;
  const read = async (of) => (await fetch(url + of, { headers: { cookie } })).json();
  const [{ plan }, [{ document: rules }]] = [
    await read(`/api/timers/${TIMER}`),
    await read('/api/library/rules'),
  ];
  const now = { timer: 1, site: 1, company: 1, plan, rules, demo };
  for (let n = 0; n < requests; n++) {
    // Each route's valid request comes first: if it is refused, breaking it tests little.
    const isSound = n < ROUTES.length;
    const route = (isSound ? ROUTES[n] : ROUTES[random(ROUTES.length)])(now);
    const body = isSound || random(4) === 0 ? route.body : broken(route.body, random);
    const headers = {
      ...(!isSound && random(8) === 0
        ? {}
        : { cookie: !isSound && random(12) === 0 ? `${cookie}x` : cookie }),
      'content-type': !isSound && random(10) === 0 ? TYPES[random(TYPES.length)] : TYPES[0],
    };
    const bytes = isSound ? Buffer.from(JSON.stringify(body)) : bytesOf(body, random);
    // What a header can hold.
    if (route.isBearer)
      headers.authorization = `Bearer ${bytes.toString('latin1').replace(/[^\x20-\xff]/g, '')}`;
    const begun = performance.now();
    const what = `seed ${seed}, request ${n}: ${route.method} ${route.path} ${bytes.toString().slice(0, 400)}`;
    let response;
    try {
      response = await fetch(url + route.path, {
        method: route.method,
        headers,
        ...(route.isBearer ? {} : { body: bytes }),
      });
    } catch (error) {
      faults.push(`${what}: no answer, ${String(error)}`);
      continue;
    }
    const answer = await response.json().catch(() => null);
    const took = performance.now() - begun;
    slowest = Math.max(slowest, took);
    byStatus[response.status] = (byStatus[response.status] ?? 0) + 1;
    if (isSound && route.idOf && !route.refused && !response.ok)
      faults.push(`${what}: a sound request got ${response.status} ${answer?.message}`);
    if (response.status >= 500) faults.push(`${what}: ${response.status}`);
    if (took > MOST_MS) faults.push(`${what}: ${took.toFixed(0)} ms`);
    if (response.status >= 400 && typeof answer?.code !== 'string')
      faults.push(`${what}: ${response.status} without a code`);
    if (response.ok && route.idOf && headers.cookie === cookie)
      kept.add(String(route.idOf(JSON.parse(bytes.toString()))).toLowerCase());
    if (response.ok && typeof answer?.version === 'number') {
      if (route.path.startsWith('/api/timers')) now.timer = answer.version;
      if (route.path.startsWith('/api/sites')) now.site = answer.version;
      if (route.path.startsWith('/api/company')) now.company = answer.version;
    }
  }
  const saved = (await changes()) - before;
  if (saved !== kept.size)
    faults.push(`${kept.size} writes were answered as saved, ${saved} are on record`);
  return { sent: requests, byStatus, slowest, faults };
}

/** A server of its own, fuzzed. */
async function main() {
  const [requests = '10000', seed = '1'] = process.argv.slice(2);
  const { default: pg } = await import('pg');
  const { ensureDatabase, startCluster } = await import('./cluster.mjs');
  const { startServer } = await import('./server.mjs');
  const { setUp } = await import('./setup.mjs');
  setUp({ database: true, browser: false, web: false });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-fuzz-'));
  const cluster = await startCluster({ name: `test-${process.pid}`, throwAway: true });
  try {
    await ensureDatabase(cluster.url('postgres'), 'fuzz');
    const database = new pg.Client(cluster.url('fuzz'));
    const server = await startServer({
      databaseUrl: cluster.url('fuzz'),
      env: {
        WATER_CLOCK_DEMO: '1',
        LOG_LEVEL: 'error',
        WATER_CLOCK_SIGN_IN_TRIES: '1000000',
        WATER_CLOCK_PAGE_TRIES: '1000000',
      },
      logFile: path.join(folder, 'server.log'),
    });
    await database.connect();
    try {
      const { demo } = await (await fetch(`${server.url}/api/session`)).json();
      const signedIn = await fetch(`${server.url}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email: demo.email, password: demo.password }),
      });
      const [cookie = ''] = (signedIn.headers.get('set-cookie') ?? '').split(';');
      const { faults, ...told } = await fuzzApi({
        url: server.url,
        cookie,
        demo,
        requests: Number(requests),
        seed: Number(seed),
        changes: async () =>
          Number((await database.query('select count(*) from changes')).rows[0].count),
      });
      process.stdout.write(`${JSON.stringify(told, null, 2)}\n${faults.slice(0, 50).join('\n')}\n`);
      process.exitCode = faults.length > 0 ? 1 : 0;
    } finally {
      await database.end();
      await server.stop();
    }
  } finally {
    cluster.remove();
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

// Not `await`: the tests load this module with others that cannot wait for it.
if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) void main();
