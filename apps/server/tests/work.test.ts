/** Heavy work is done off the event loop, within limits for each company, and refused by code beyond them. */
import { performance } from 'node:perf_hooks';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Plan } from '@water-clock/core';
import type request from 'supertest';
import { FENNIMORE, LARKHOLT, SORREL_ROW, startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
/** A timer whose programs take a day's water in the smallest pieces. */
let absurd: Plan;
beforeAll(async () => {
  server = await startTestServer(1000, { workSeconds: 2 });
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

const all = (requests: readonly request.Test[]) => Promise.all(requests);

test('a calendar of more entries than anybody reads is refused by code and sentence', async () => {
  const refused = await server.tamsin.get(`/api/timers/${SORREL_ROW}/watering.ics`).expect(422);
  expect(['not-accepted', 'too-much-work']).toContain((refused.body as { code: string }).code);
  expect((refused.body as { message: string }).message).toMatch(
    /more than 20000 entries|too long to work out/,
  );
});

test('while much is worked out, others are answered at once', async () => {
  const heavy = all(
    Array.from({ length: 6 }, (_, i) =>
      server.tamsin.get(`/api/timers/${SORREL_ROW}/runs.csv?days=${3600 + i}`),
    ),
  );
  const waits: number[] = [];
  let isOver = false;
  void heavy.then(() => (isOver = true));
  do {
    const begun = performance.now();
    await server.stranger.get('/api/health').expect(200);
    waits.push(performance.now() - begun);
  } while (!isOver);
  // Far less than one piece of the work takes: none of it is in between.
  expect(Math.max(...waits)).toBeLessThan(1000);
  for (const { status } of await heavy) expect([200, 422, 503]).toContain(status);
});

test('a company that asks for too much at once is told to wait, and another one is not', async () => {
  const many = all(
    Array.from({ length: 14 }, (_, i) =>
      server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=${365 + i}`),
    ),
  );
  const answers = await many;
  const told = answers.filter(({ status }) => status === 503);
  expect(told.length).toBeGreaterThan(0);
  expect(told[0]?.body).toMatchObject({ code: 'busy' });
  expect(told[0]?.headers['retry-after']).toBe('2');
  expect(answers.filter(({ status }) => status === 200).length).toBeGreaterThanOrEqual(8);
  // What was refused is not held against the next.
  await server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=7`).expect(200);
});

test('a page is printed once for one content', async () => {
  const print = async () => {
    const begun = performance.now();
    const { headers } = await server.tamsin
      .get(`/api/timers/${LARKHOLT}/page.pdf?paper=a4`)
      .expect(200);
    return { took: performance.now() - begun, length: headers['content-length'] as string };
  };
  const first = await print();
  const second = await print();
  expect(second.length).toBe(first.length);
  expect(second.took).toBeLessThan(first.took);
});
