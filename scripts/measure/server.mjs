/** Cost of heavy work for the server, and whether it delays others: `npm run measure -- server`. The figures are in docs/reliability.md. */
import os from 'node:os';
import { onServer } from '../stage.mjs';
import { median, ms, probe, quantile, row, signIn } from './parts.mjs';

const TIMERS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', 'a'].map(
  (n) => `6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c0${n}`,
);
const SITES = TIMERS.map((id) => id.replace('6b1c', '6b1b'));
const ROUNDS = 11;
const UNDER_LOAD_MS = 20_000;

export default () =>
  onServer(async ({ serve }) => {
    const server = await serve({ WATER_CLOCK_WORKERS: '1' });
    const headers = await signIn(server.url, 'tamsin@brindlewick.example', 'sprinkle-by-night');
    const ask = async (route, init = {}) => {
      const answer = await fetch(`${server.url}${route}`, { headers, ...init });
      await answer.arrayBuffer();
      return answer.status;
    };
    const metric = async (name) => {
      const text = await (await fetch(`${server.url}/metrics`)).text();
      return Number(new RegExp(`^${name} (\\S+)`, 'm').exec(text)?.[1]);
    };
    /** Processor seconds of the whole process, including threads. */
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

    /** Of polling, without the work. */
    const asking = await costOf('/api/health/live');
    // The thread loads its code before anything is measured.
    await ask(`/api/timers/${TIMERS[0]}/page.pdf`);
    let dearest = { ms: 0, timer: '' };
    for (const timer of TIMERS) {
      const ms = (await costOf(`/api/timers/${timer}/watering.ics`)) - asking;
      if (ms > dearest.ms) dearest = { ms, timer };
    }
    row('dearest calendar of the demo houses, processor time', ms(dearest.ms));
    const prints = [];
    for (const timer of TIMERS.slice(1)) {
      const began = performance.now();
      await ask(`/api/timers/${timer}/page.pdf`);
      prints.push(performance.now() - began);
    }
    row('a page as PDF, printed (median)', ms(median(prints)));
    const again = performance.now();
    await ask(`/api/timers/${TIMERS[1]}/page.pdf`);
    row('the same page again', ms(performance.now() - again));
    const lists = [];
    for (let n = 0; n < ROUNDS; n++) {
      const began = performance.now();
      await ask('/api/sites');
      lists.push(performance.now() - began);
    }
    row('the list of sites, as it is kept (median)', ms(median(lists)));

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
    const prober = probe(`${server.url}/api/health`);
    // Clients are other machines in reality; here they must not take processor time from the server.
    os.setPriority(process.pid, os.constants.priority.PRIORITY_BELOW_NORMAL);
    await Promise.all([client(), client(), client(), client()]);
    const waits = await prober.waits();
    await prober.end();
    const lag = (await metric('nodejs_eventloop_lag_p99_seconds')) * 1000;
    const answers = Object.entries(statuses).map(([status, count]) => `${count} × ${status}`);
    row('all heavy routes for 20 s, four at a time', answers.join(', '));
    row(
      'event loop delayed beyond its rhythm of 10 ms, 99th percentile',
      `${(lag - 10).toFixed(1)} ms`,
    );
    row('GET /api/health meanwhile, 99th percentile', ms(quantile(waits, 0.99)));
    row('GET /api/health meanwhile, longest', ms(quantile(waits, 1)));
  });
