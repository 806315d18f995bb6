/**
 * Cost of an office of 5,000 sites for the server: `npm run measure -- office [GARDENS]`. The figures are in docs/benchmarks.md and
 * docs/scale.md.
 */
import autocannon from 'autocannon';
import pg from 'pg';
import { idOf, OFFICE, seedOffice } from '../office.mjs';
import { sleep } from '../processes.mjs';
import { onServer, withBrowser } from '../stage.mjs';
import { DESK, median, ms, probe, quantile, row, seconds, signIn } from './parts.mjs';

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

const p95 = (numbers) => quantile(numbers, 0.95);

const OPENINGS = 5;

/** Median milliseconds until the first row of the list is shown. */
const opening = (url, { cookie }) =>
  withBrowser(async (browser) => {
    const page = await browser.newPage();
    await page.setViewport(DESK);
    await page.setCacheEnabled(false);
    const [name, value] = cookie.split('=');
    await page.setCookie({ name, value, url });
    const times = [];
    for (let n = 0; n < OPENINGS; n++) {
      await page.goto(`${url}/sites`, { waitUntil: 'domcontentloaded' });
      await page.waitForSelector('.sites .ant-table-row');
      times.push(await page.evaluate(() => performance.now()));
    }
    return median(times);
  });

/** @param {readonly string[]} more number of gardens to replan */
export default ([most]) =>
  onServer(async ({ databaseUrl, serve }) => {
    const start = () => serve({ WATER_CLOCK_DEMO: '0', WATER_CLOCK_WORKERS: '2' });
    // The first one creates the tables.
    await (await start()).stop();
    await seedOffice(databaseUrl, (text) => process.stderr.write(`${text}\n`));
    const server = await start();
    const client = new pg.Client({ connectionString: databaseUrl });
    await client.connect();
    const signedIn = (email) => signIn(server.url, email, OFFICE.password);
    const owner = await signedIn('owner@coppermarsh.example');
    const prober = probe(`${server.url}/api/health/live`);
    const longest = async () => quantile(await prober.waits(), 1);
    try {
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
      const began = performance.now();
      await settled();
      row('all 6,000 timers worked out, two threads', seconds(performance.now() - began));
      row('  health meanwhile, longest', ms(await longest()));
      const facts = performance.now();
      while ((await ask('/api/reports?from=2000-01-01&to=2100-01-01')).body.waiting > 0)
        await sleep(2_000);
      row('what 20,000 visits changed, after that', seconds(performance.now() - facts));
      await client.query('vacuum analyze');

      const writes = [];
      const technicians = await Promise.all(
        Array.from({ length: TECHNICIANS }, (_, n) =>
          signedIn(`technician${n + 1}@coppermarsh.example`),
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
        row(`list ${query || 'of sites'} with ten who save, p95`, ms(p95(times)));
      }
      row('  their writes, p95', ms(p95(writes)));
      row('  health meanwhile, longest', ms(await longest()));

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
      row(
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
      row(
        'requests a second: last change of one timer, list of sites',
        `${bare.toFixed(0)}, ${list.toFixed(0)} (${(list / bare).toFixed(2)})`,
      );

      row(
        'first screen of Sites in a browser with nothing in its cache',
        ms(await opening(server.url, owner)),
      );

      if (most) {
        const { body } = await ask('/api/library/rules');
        const rules = body[0].id;
        await client.query(
          `update sites set rules_id = null where company_id = $1 and rules_id = $2 and id not in (
           select site_id from timer_status where company_id = $1 and rules_id = $2 and (breaches > 0 or coming_day is not null) order by id limit $3)`,
          [OFFICE.companyId, rules, Number(most)],
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
            row(
              'replanned',
              `${counts.all} timers in ${seconds(performance.now() - from)}: ${JSON.stringify(counts)}`,
            );
            break;
          }
          await sleep(1_000);
        }
        row('  list of sites meanwhile, p95', ms(p95(lists)));
      }
    } finally {
      await prober.end();
      await client.end();
    }
  });
