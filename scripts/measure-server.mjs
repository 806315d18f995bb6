/**
 * What heavy work costs the server, and whether it holds up anybody else: `node scripts/measure-server.mjs`. The figures stand in
 * docs/reliability.md.
 */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { once } from 'node:events';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { ensureDatabase, startCluster } from './cluster.mjs';
import { sleep } from './processes.mjs';
import { startServer } from './server.mjs';
import { setUp } from './setup.mjs';

const TIMERS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'a'].map(
  (n) => `6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0${n}`,
);
const SITES = TIMERS.map((id) => id.replace('6b1c', '6b1b'));
const ROUNDS = 11;
const UNDER_LOAD_MS = 20_000;
const PROBE_EVERY_MS = 20;

const sorted = (numbers) => [...numbers].sort((a, b) => a - b);
const median = (numbers) => sorted(numbers)[Math.floor(numbers.length / 2)];
const tell = (what, value) => process.stdout.write(`${what.padEnd(64)} ${value}\n`);

async function main() {
  setUp({ database: true });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-measure-'));
  const cluster = await startCluster({ name: `test-${process.pid}`, throwAway: true });
  await ensureDatabase(cluster.url('postgres'), 'measure');
  const server = await startServer({
    databaseUrl: cluster.url('measure'),
    env: { WATER_CLOCK_DEMO: '1', LOG_LEVEL: 'error', WATER_CLOCK_WORKERS: '1' },
    logFile: path.join(folder, 'server.log'),
  });
  try {
    const signedIn = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        email: 'tamsin@brindlewick.example',
        password: 'sprinkle-by-night',
      }),
    });
    const headers = { cookie: signedIn.headers.getSetCookie()[0].split(';')[0] };
    const ask = async (route, init = {}) => {
      const answer = await fetch(`${server.url}${route}`, { headers, ...init });
      await answer.arrayBuffer();
      return answer.status;
    };
    const metric = async (name) => {
      const text = await (await fetch(`${server.url}/metrics`)).text();
      return Number(new RegExp(`^${name} (\\S+)`, 'm').exec(text)?.[1]);
    };
    /** Processor seconds of the whole process, its threads included. */
    const spent = () => metric('process_cpu_seconds_total');
    const costOf = async (route) => {
      const costs = [];
      for (let n = 0; n < ROUNDS; n++) {
        const before = await spent();
        await ask(route);
        costs.push((await spent()) - before);
      }
      return median(costs) * 1000;
    };

    /** Of asking, without the work. */
    const asking = await costOf('/api/health/live');
    // The thread has loaded its code before anything is measured.
    await ask(`/api/timers/${TIMERS[0]}/page.pdf`);
    let dearest = { ms: 0, timer: '' };
    for (const timer of TIMERS) {
      const ms = (await costOf(`/api/timers/${timer}/watering.ics`)) - asking;
      if (ms > dearest.ms) dearest = { ms, timer };
    }
    tell('dearest calendar of the demo houses, processor time', `${dearest.ms.toFixed(0)} ms`);
    const prints = [];
    for (const timer of TIMERS.slice(1)) {
      const began = performance.now();
      await ask(`/api/timers/${timer}/page.pdf`);
      prints.push(performance.now() - began);
    }
    tell('a page as PDF, printed (median)', `${median(prints).toFixed(0)} ms`);
    const again = performance.now();
    await ask(`/api/timers/${TIMERS[1]}/page.pdf`);
    tell('the same page again', `${(performance.now() - again).toFixed(0)} ms`);
    const lists = [];
    for (let n = 0; n < ROUNDS; n++) {
      const began = performance.now();
      await ask('/api/sites');
      lists.push(performance.now() - began);
    }
    tell('the list of sites, as it is kept (median)', `${median(lists).toFixed(0)} ms`);

    const heavy = TIMERS.flatMap((timer, i) => [
      `/api/timers/${timer}/watering.ics`,
      `/api/timers/${timer}/runs.csv?days=3660`,
      `/api/timers/${timer}/page.pdf?paper=letter`,
      `/api/timers/${timer}/card.pdf`,
      `/api/sites/${SITES[i]}/archive`,
      '/api/sites',
      '/api/calendar',
    ]);
    const zip = Buffer.from(
      await (await fetch(`${server.url}/api/sites/${SITES[1]}/archive`, { headers })).arrayBuffer(),
    );
    const end = performance.now() + UNDER_LOAD_MS;
    const statuses = {};
    let next = 0;
    const client = async () => {
      while (performance.now() < end) {
        const i = next++;
        const status =
          i % 15 === 0
            ? await ask(`/api/sites/${crypto.randomUUID()}/archive`, {
                method: 'PUT',
                headers: { ...headers, 'content-type': 'application/zip' },
                body: zip,
              })
            : await ask(heavy[i % heavy.length]);
        statuses[status] = (statuses[status] ?? 0) + 1;
      }
    };
    await metric('nodejs_eventloop_lag_p99_seconds');
    // On a thread of its own: what the clients here receive must not hold it up.
    const prober = new Worker(new URL(import.meta.url), {
      workerData: { url: `${server.url}/api/health`, forMs: UNDER_LOAD_MS },
    });
    const probed = once(prober, 'message');
    // Those who call are other machines in life; here they must not take the processor from the server.
    os.setPriority(process.pid, os.constants.priority.PRIORITY_BELOW_NORMAL);
    await Promise.all([client(), client(), client(), client()]);
    const [waits] = await probed;
    const lag = (await metric('nodejs_eventloop_lag_p99_seconds')) * 1000;
    const answers = Object.entries(statuses).map(([status, count]) => `${count} × ${status}`);
    tell('all heavy routes for 20 s, four at a time', answers.join(', '));
    tell(
      'event loop delayed beyond its rhythm of 10 ms, 99th percentile',
      `${(lag - 10).toFixed(1)} ms`,
    );
    tell(
      'GET /api/health meanwhile, 99th percentile',
      `${sorted(waits)[Math.floor(waits.length * 0.99)].toFixed(0)} ms`,
    );
    tell('GET /api/health meanwhile, longest', `${sorted(waits).at(-1).toFixed(0)} ms`);
  } finally {
    await server.stop();
    cluster.remove();
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

/** Asks again and again, and tells how long each answer took. */
async function probe({ url, forMs }) {
  // The first one makes the connection.
  await fetch(url);
  const end = performance.now() + forMs;
  const waits = [];
  while (performance.now() < end) {
    const began = performance.now();
    await fetch(url);
    waits.push(performance.now() - began);
    await sleep(PROBE_EVERY_MS);
  }
  parentPort.postMessage(waits);
}

if (isMainThread) await main();
else await probe(workerData);
