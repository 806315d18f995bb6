/** Heavy work runs off the event loop, within limits for each company, and is refused by code beyond them. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import type { Plan } from '@water-clock/core';
import type PQueue from 'p-queue';
import type { Piscina } from 'piscina';
import type request from 'supertest';
import { demoCompany } from '../src/demo/demo-documents.ts';
import { Settings } from '../src/platform/settings.ts';
import { RechecksService } from '../src/timer-status/rechecks.service.ts';
import { TimerStatusRow } from '../src/timer-status/timer-status.entity.ts';
import { todayIn } from '../src/sites/today.ts';
import { WorkService } from '../src/work/work.service.ts';
import {
  FENNIMORE,
  LARKHOLT,
  linesOf,
  SORREL_ROW,
  startTestServer,
  type TestServer,
} from './testServer.ts';

let server: TestServer;
/** A timer whose programs take all day in the shortest cycles. */
let absurd: Plan;
beforeAll(async () => {
  server = await startTestServer(1000);
  const answer = await server.tamsin.get(`/api/timers/${FENNIMORE}`);
  const { plan } = answer.body as { plan: Plan };
  const [a] = plan.programs;
  if (!a) throw new Error('Fennimore has programs');
  absurd = {
    ...plan,
    timer: { ...plan.timer, onOverlap: 'queue', cycleSoak: 'station' },
    stations: plan.stations.map((one) => ({ ...one, cycleSeconds: 60, soakSeconds: 60 })),
    programs: [
      {
        ...a,
        days: { rule: 'daily' },
        starts: ['00:00', '00:01', '12:00'],
        runs: plan.stations.map(({ number }) => ({ station: number, seconds: 3540 })),
      },
    ],
  };
  await server.database.query('update timers set plan = $1 where id = $2', [absurd, SORREL_ROW]);
});
afterAll(() => server.stop());

/** Holds all jobs until the returned function is called. */
function holdWork(): () => void {
  // The cast reaches the private queue of foreground jobs.
  const { queue } = server.app.get<unknown>(WorkService) as { queue: PQueue };
  queue.pause();
  return () => void queue.start();
}

const all = (requests: readonly PromiseLike<request.Response>[]) => Promise.all(requests);

/** Sets the time limit of each job, in seconds. */
const workMayTake = (workSeconds: number) =>
  Object.assign(server.app.get<unknown>(Settings) as object, { workSeconds });

test('a calendar of more entries than anybody reads is refused by code and sentence', async () => {
  workMayTake(8);
  const refused = await server.tamsin.get(`/api/timers/${SORREL_ROW}/watering.ics`).expect(422);
  expect(['not-accepted', 'too-much-work']).toContain((refused.body as { code: string }).code);
  expect((refused.body as { message: string }).message).toMatch(
    /more than 20000 entries|too long to calculate/,
  );
});

test('a thread that ends between two jobs, as by its memory, ends neither the server nor the next job', async () => {
  // The casts reach the private pool and the library's own handling of a thread's error.
  const { pool } = server.app.get<unknown>(WorkService) as { pool: Piscina };
  const [thread] = pool.threads;
  const ended = new Promise((resolve) => thread?.once('exit', resolve));
  thread?.emit('error', new Error('Worker terminated due to reaching memory limit'));
  await ended;
  await server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=3`).expect(200);
});

test('while much is worked out, others are answered at once', async () => {
  let done = 0;
  const heavy = all(
    Array.from({ length: 6 }, (_, i) =>
      server.tamsin
        .get(`/api/timers/${SORREL_ROW}/runs.csv?days=${3600 + i}`)
        .then((answer) => (done++, answer)),
    ),
  );
  // Each of these is answered before the first of those; on one event loop they would queue.
  for (let n = 0; n < 20; n++) {
    await server.stranger.get('/api/health').expect(200);
    expect(done).toBe(0);
  }
  for (const { status } of await heavy) expect([200, 422, 503]).toContain(status);
  // From here on a slow machine does not matter.
  workMayTake(120);
});

test('a company that asks for too much at once is told to wait, and another one is not', async () => {
  const release = holdWork();
  const ask = (n: number) => server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=${n}`);
  let refused = 0;
  const many = Array.from({ length: 14 }, (_, i) =>
    ask(7 + i).then((answer) => {
      // All six are refused while nothing runs.
      if (answer.status === 503 && ++refused === 6) release();
      return answer;
    }),
  );
  const answers = await all(many);
  const told = answers.filter(({ status }) => status === 503);
  expect(told).toHaveLength(6);
  expect(told[0]?.body).toMatchObject({ code: 'busy' });
  expect(told[0]?.headers['retry-after']).toBe('2');
  expect(answers.filter(({ status }) => status === 200)).toHaveLength(8);
  // A refusal does not count against the next request.
  await server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=7`).expect(200);
});

test('a page is printed once for one content', async () => {
  const run = jest.spyOn(server.app.get(WorkService), 'run');
  const print = (paper: string) =>
    server.tamsin.get(`/api/timers/${LARKHOLT}/page.pdf?paper=${paper}`).expect(200);
  const first = await print('a4');
  const again = await print('a4');
  expect(again.headers['content-length']).toBe(first.headers['content-length']);
  expect(run).toHaveBeenCalledTimes(1);
  await print('letter');
  expect(run).toHaveBeenCalledTimes(2);
  run.mockRestore();
});

const workedOut = (run: { readonly mock: { readonly calls: readonly unknown[][] } }) =>
  run.mock.calls
    .filter(([, task]) => task === 'statuses')
    .reduce((sum, [, , input]) => sum + (input as readonly unknown[]).length, 0);

test('how timers stand is worked out once, and again where something changes', async () => {
  const lines = await linesOf(server.tamsin);
  const run = jest.spyOn(server.app.get(WorkService), 'run');
  const list = async (query = '') => {
    const made = await linesOf(server.tamsin, query);
    const count = workedOut(run);
    run.mockClear();
    return { made, count };
  };
  await server.database.query('update timer_status set stale = true');
  expect((await list()).count).toBe(lines.size);
  // The message is in the reader's language, although it was calculated before.
  expect((await list('&clock=12&order=month-day')).count).toBe(0);
  await server.tamsin.get('/api/calendar').expect(200);
  expect(workedOut(run)).toBe(0);
  // Two requests at once share one calculation.
  await server.database.query('update timer_status set stale = true');
  await Promise.all([linesOf(server.tamsin), linesOf(server.jory)]);
  expect((await list()).count).toBe(lines.size);

  const { version } = (await server.tamsin.get(`/api/timers/${FENNIMORE}/version`)).body as {
    version: number;
  };
  const change = { type: 'set-starts', program: 'A', starts: [] };
  await server.tamsin
    .post(`/api/timers/${FENNIMORE}/changes`)
    .send({ id: randomUUID(), baseVersion: version, way: 'do', change })
    .expect(200);
  const { made: changed, count: once } = await list();
  expect(once).toBe(1);
  expect(changed.get(FENNIMORE)?.headline).not.toBe(lines.get(FENNIMORE)?.headline);

  const rules = (await server.tamsin.get('/api/library/rules').expect(200)).body as {
    id: string;
    version: number;
    document: object;
  }[];
  const [one] = rules;
  if (!one) throw new Error('the demo company has rules');
  await server.tamsin
    .post(`/api/library/rules/${one.id}/changes`)
    .send({ id: randomUUID(), baseVersion: one.version, document: one.document })
    .expect(200);
  const [{ count } = { count: 0 }]: { count: number }[] = await server.database.query(
    `select count(*)::int as count from timers t join sites s on s.id = t.site_id where s.rules_id = $1`,
    [one.id],
  );
  expect(count).toBeGreaterThan(0);
  expect((await list()).count).toBe(count);
  run.mockRestore();
});

test('a date that passes has only those timers worked out again of which it changes something', async () => {
  const { database, app } = server;
  const companyId = demoCompany().company.id;
  const lines = await linesOf(server.tamsin);
  const known = await database
    .getRepository(TimerStatusRow)
    .find({ where: { companyId }, relations: { timer: { site: true } } });
  const rechecks = app.get(RechecksService);
  const now = new Date();
  const run = jest.spyOn(app.get(WorkService), 'run');
  const days = async (later: number) => {
    run.mockClear();
    await rechecks.everywhere(new Date(now.getTime() + later * 86_400_000));
    return workedOut(run);
  };
  const over = known.filter(
    ({ until, timer }) =>
      until < todayIn(timer.site.timeZone, new Date(now.getTime() + 86_400_000)),
  );
  expect(over.length).toBeLessThan(lines.size);
  expect(await days(1)).toBe(over.length);
  expect(await days(1)).toBe(0);
  // Nothing is valid for more than four weeks, and nothing calculated before a clock was set back counts.
  expect(await days(60)).toBe(lines.size);
  expect(await days(0)).toBe(lines.size);
  run.mockRestore();
});
