/** The simulated network (`network/run.ts`), in a short form; `RUNS=2000 FIRST=1` runs the long one. Each failure names its seed. */
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { DataSource } from 'typeorm';
import { emptyPlan, siteFields, TIMER_KINDS } from '@water-clock/core';
import { fewCases } from '../packages/core/tests/cases.ts';
import { applicationOn } from '../apps/server/tests/testServer.ts';
import { demoCompany } from '../apps/server/src/demo/demo-documents.ts';
import { makeTestDatabase } from '../scripts/test-database.mjs';
import { askOf } from './network/device.ts';
import { simulate, type Office } from './network/run.ts';

const RUNS = Number(process.env['RUNS'] ?? fewCases(40));
const FIRST = Number(process.env['FIRST'] ?? 1);
jest.setTimeout(600_000 + RUNS * 60_000);

let databaseUrl = '';
const servers: NestExpressApplication[] = [];
const urls: string[] = [];
let office: Office;

/** Replaces a server with a new one. */
async function start(place: number): Promise<void> {
  const app = await applicationOn(databaseUrl);
  await app.listen(0, '127.0.0.1');
  servers[place] = app;
  // Safe cast for a server that listens on a port.
  urls[place] = `http://127.0.0.1:${(app.getHttpServer().address() as AddressInfo).port}`;
}

beforeAll(async () => {
  databaseUrl = await makeTestDatabase();
  await start(0);
  await start(1);
  const { people } = demoCompany();
  const asks = await Promise.all(
    people.slice(0, 2).map(async ({ name, email, password }) => {
      const response = await fetch(`${urls[0]}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email, password }),
      });
      const [cookie = ''] = (response.headers.get('set-cookie') ?? '').split(';');
      return {
        name,
        servers: [0, 1].map((i) =>
          askOf(
            () => urls[i] ?? '',
            () => cookie,
          ),
        ),
      };
    }),
  );
  const kind = TIMER_KINDS.find(({ programCount }) => programCount >= 3);
  const [ask] = asks[0]?.servers ?? [];
  const database = servers[0]?.get(DataSource);
  if (!kind || !ask || !database) throw new Error('there is no office');
  office = {
    people: asks,
    database,
    newTimer: async () => {
      const timerId = randomUUID();
      const stations = [1, 2, 3].map((number) => ({ number, name: `Bed ${number}` }));
      await ask('POST', '/api/sites', {
        ...{ siteId: randomUUID(), timerId },
        site: siteFields({ name: 'Larkholt', timeZone: 'Etc/UTC' }),
        plan: {
          ...{ ...emptyPlan(kind), stations },
          programs: [{ letter: 'A', starts: [], runs: [], days: null }],
        },
      });
      return timerId;
    },
  };
});
afterAll(() => Promise.all(servers.map((server) => server.close())));

test(`${RUNS} runs: everybody sees what is saved, and nothing that was entered is lost`, async () => {
  const told = { edits: 0, questions: 0, merged: 0 };
  for (let seed = FIRST; seed < FIRST + RUNS; seed++) {
    // Now and then the second server is down for a while.
    const restart = async () => {
      await servers[1]?.close();
      await start(1);
    };
    const { edits, questions, merged, wrong } = await simulate(
      ...([seed, office, seed % 10 === 5 ? restart : undefined] as const),
    );
    expect([`seed ${seed}`, wrong]).toEqual([`seed ${seed}`, []]);
    told.edits += edits;
    told.questions += questions;
    told.merged += merged;
  }
  if (process.env['RUNS']) process.stdout.write(`${RUNS} runs: ${JSON.stringify(told)}\n`);
  expect(told.edits).toBeGreaterThan(RUNS * 10);
  expect(told.merged).toBeGreaterThan(RUNS);
  expect(told.questions).toBeGreaterThan(RUNS / 4);
});
