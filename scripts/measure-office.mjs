/**
 * What an office of 5,000 sites costs the server: `node scripts/measure-office.mjs [--replan 500]`. The figures stand in docs/benchmarks.md and
 * docs/scale.md.
 */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { once } from 'node:events';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { parseArgs } from 'node:util';
import autocannon from 'autocannon';
import pg from 'pg';
import puppeteer from 'puppeteer-core';
import { ensureDatabase, startCluster } from './cluster.mjs';
import { idOf, OFFICE, seedOffice } from './office.mjs';
import { sleep } from './processes.mjs';
import { startServer } from './server.mjs';
import { chromiumProgram, setUp } from './setup.mjs';

const { values } = parseArgs({ options: { replan: { type: 'string' } } });
const TECHNICIANS = 10;
const LISTS = [
  '',
  '?show=overlap',
  '?show=breach',
  '?show=due',
  '?sort=-next',
  '?sort=street&page=50',
].concat(
  ['alder', 'tansy+garrowby', 'D17-3', '555-1234', 'eight-station'].map((word) => `?find=${word}`),
);
const SECONDS_EACH = 8;
const PAGES = 200;

const sorted = (numbers) => [...numbers].sort((a, b) => a - b);
const p95 = (numbers) => sorted(numbers)[Math.floor(numbers.length * 0.95)] ?? 0;
const tell = (what, value) => process.stdout.write(`${what.padEnd(70)} ${value}\n`);
const ms = (value) => `${value.toFixed(0)} ms`;

const OPENINGS = 5;

/** Until the first row of the list stands, the median, in milliseconds. */
async function opening(url, { cookie }) {
  const browser = await puppeteer.launch({
    executablePath: chromiumProgram(),
    args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage'],
  });
  try {
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    await page.setCacheEnabled(false);
    const [name, value] = cookie.split('=');
    await page.setCookie({ name, value, url });
    const times = [];
    for (let n = 0; n < OPENINGS; n++) {
      await page.goto(`${url}/sites`, { waitUntil: 'domcontentloaded' });
      await page.waitForSelector('.sites .ant-table-row');
      times.push(await page.evaluate(() => performance.now()));
    }
    return sorted(times)[Math.floor(OPENINGS / 2)];
  } finally {
    await browser.close();
  }
}

async function main() {
  setUp({ database: true, browser: true, web: true });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-office-'));
  const cluster = await startCluster({ name: `test-${process.pid}`, throwAway: true });
  const url = cluster.url('office');
  await ensureDatabase(cluster.url('postgres'), 'office');
  const start = () =>
    startServer({
      databaseUrl: url,
      env: { WATER_CLOCK_DEMO: '0', LOG_LEVEL: 'error', WATER_CLOCK_WORKERS: '2' },
      logFile: path.join(folder, 'server.log'),
    });
  let server = await start();
  await server.stop();
  await seedOffice(url, (text) => process.stderr.write(`${text}\n`));
  server = await start();
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  let prober;
  try {
    const signIn = async (email) => {
      const answer = await fetch(`${server.url}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email, password: OFFICE.password }),
      });
      return { cookie: answer.headers.getSetCookie()[0].split(';')[0] };
    };
    const owner = await signIn('owner@coppermarsh.example');
    const ask = async (route, headers = owner) => {
      const began = performance.now();
      const answer = await fetch(`${server.url}${route}`, { headers });
      const body = await answer.json();
      return { took: performance.now() - began, body };
    };
    const settled = async () => {
      while ((await ask('/api/timers?size=1')).body.checking > 0) await sleep(250);
    };
    let isOver = false;
    // On a thread of its own: what the clients here receive must not hold it up.
    prober = new Worker(new URL(import.meta.url), { workerData: { url: server.url } });
    const longest = async () => {
      prober.postMessage('longest');
      const [most] = await once(prober, 'message');
      return most;
    };

    const began = performance.now();
    await settled();
    tell(
      'all 6,000 timers worked out, two threads',
      `${((performance.now() - began) / 1000).toFixed(1)} s`,
    );
    tell('  health meanwhile, longest', ms(await longest()));
    const facts = performance.now();
    while ((await ask('/api/reports?from=2000-01-01&to=2100-01-01')).body.waiting > 0)
      await sleep(2_000);
    tell(
      'what 20,000 visits changed, after that',
      `${((performance.now() - facts) / 1000).toFixed(0)} s`,
    );
    await client.query('vacuum analyze');

    const writes = [];
    const technicians = await Promise.all(
      Array.from({ length: TECHNICIANS }, (_, n) =>
        signIn(`technician${n + 1}@coppermarsh.example`),
      ),
    );
    const working = technicians.map(async (headers, n) => {
      const timer = idOf('timer', n * 500 + 3);
      let { version } = (await ask(`/api/timers/${timer}/version`, headers)).body;
      for (let i = 0; !isOver; i++) {
        const at = performance.now();
        const answer = await fetch(`${server.url}/api/timers/${timer}/changes`, {
          method: 'POST',
          headers: { ...headers, 'content-type': 'application/json' },
          body: JSON.stringify({
            ...{ id: crypto.randomUUID(), baseVersion: version, way: 'do' },
            change: { type: 'note-station', station: 1, fields: { decoder: `W${i}` } },
          }),
        });
        const body = await answer.json();
        if (answer.ok) ({ version } = body);
        writes.push(performance.now() - at);
        await sleep(Math.max(0, 1000 - (performance.now() - at)));
      }
    });
    await longest();
    for (const query of LISTS) {
      const times = [];
      const end = performance.now() + SECONDS_EACH * 1000;
      while (performance.now() < end) {
        times.push((await ask(`/api/timers${query}`)).took);
        await sleep(40);
      }
      tell(`list ${query || 'of sites'} with ten who save, p95`, ms(p95(times)));
    }
    tell('  their writes, p95', ms(p95(writes)));
    tell('  health meanwhile, longest', ms(await longest()));

    const pages = [];
    const heard = [];
    const watched = idOf('timer', 4_000);
    const abort = new AbortController();
    for (let n = 0; n < PAGES; n++) {
      // A person has at most 24 pages, so they are shared out.
      const headers = technicians[n % TECHNICIANS];
      const answer = await fetch(`${server.url}/api/timers/${watched}/events`, {
        headers,
        signal: abort.signal,
      });
      pages.push(
        (async () => {
          const decoder = new TextDecoder();
          try {
            for await (const chunk of answer.body)
              if (decoder.decode(chunk).includes('event: version')) heard.push(performance.now());
          } catch {
            // They are closed at the end.
          }
        })(),
      );
    }
    await sleep(2_000);
    heard.length = 0;
    const { version } = (await ask(`/api/timers/${watched}/version`)).body;
    const saved = performance.now();
    await fetch(`${server.url}/api/timers/${watched}/changes`, {
      method: 'POST',
      headers: { ...owner, 'content-type': 'application/json' },
      body: JSON.stringify({
        ...{ id: crypto.randomUUID(), baseVersion: version, way: 'do' },
        change: { type: 'note-station', station: 1, fields: { decoder: 'X' } },
      }),
    });
    await sleep(2_000);
    tell(
      `${PAGES} open pages: told, and the last after`,
      `${heard.length}, ${ms(Math.max(...heard) - saved)}`,
    );
    abort.abort();
    await Promise.all(pages);
    isOver = true;
    await Promise.all(working);
    await settled();

    const throughput = async (route) => {
      const { requests } = await autocannon({
        url: `${server.url}${route}`,
        headers: owner,
        connections: 8,
        duration: 8,
      });
      return requests.average;
    };
    const bare = await throughput(`/api/timers/${watched}/version`);
    const list = await throughput('/api/timers');
    tell(
      'requests a second: last change of one timer, list of sites',
      `${bare.toFixed(0)}, ${list.toFixed(0)} (${(list / bare).toFixed(2)})`,
    );

    tell(
      'first screen of Sites in a browser with nothing in its cache',
      ms(await opening(server.url, owner)),
    );

    if (values.replan) {
      const most = Number(values.replan);
      const { body } = await ask('/api/library/rules');
      const rules = body[0].id;
      await client.query(
        `update sites set rules_id = null where company_id = $1 and rules_id = $2 and id not in (
           select site_id from standings where company_id = $1 and rules_id = $2 and (breaches > 0 or coming_day is not null) order by id limit $3)`,
        [OFFICE.companyId, rules, most],
      );
      await settled();
      const id = crypto.randomUUID();
      const from = performance.now();
      await fetch(`${server.url}/api/replans`, {
        method: 'POST',
        headers: { ...owner, 'content-type': 'application/json' },
        body: JSON.stringify({ id, rulesId: rules }),
      });
      const lists = [];
      for (;;) {
        const { counts } = (await ask(`/api/replans/${id}`)).body;
        lists.push((await ask('/api/timers')).took);
        if (counts.waiting === 0) {
          tell(
            'planned anew',
            `${counts.all} timers in ${((performance.now() - from) / 1000).toFixed(0)} s: ${JSON.stringify(counts)}`,
          );
          break;
        }
        await sleep(1_000);
      }
      tell('  list of sites meanwhile, p95', ms(p95(lists)));
    }
  } finally {
    await prober?.terminate();
    await client.end();
    await server.stop();
    cluster.remove();
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

/** Asks for the health again and again, and tells the longest wait when it is asked. */
async function probe({ url }) {
  let most = 0;
  parentPort.on('message', () => {
    parentPort.postMessage(most);
    most = 0;
  });
  await fetch(`${url}/api/health/live`);
  for (;;) {
    const began = performance.now();
    await (await fetch(`${url}/api/health/live`)).arrayBuffer();
    most = Math.max(most, performance.now() - began);
    await sleep(20);
  }
}

if (isMainThread) await main();
else await probe(workerData);
