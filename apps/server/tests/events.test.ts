/** Live events between pages on two servers with one database. */
import { randomUUID } from 'node:crypto';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { demoCompany } from '../src/demo/demo-documents.ts';
import { makeTestDatabase } from '../../../scripts/test-database.mjs';
import { applicationOn, FENNIMORE, LARKHOLT } from './testServer.ts';

const [TAMSIN, JORY] = demoCompany().people;
let servers: NestExpressApplication[];
let cookies: string[];
const pages: { close: () => void }[] = [];
beforeAll(async () => {
  const databaseUrl = await makeTestDatabase();
  servers = [await applicationOn(databaseUrl), await applicationOn(databaseUrl)];
  for (const server of servers) await server.listen(0, '127.0.0.1');
  cookies = await Promise.all(
    [TAMSIN, JORY].map(async (person) => {
      const answer = await request(server(0).getHttpServer())
        .post('/api/session')
        .send({ email: person?.email, password: person?.password })
        .expect(204);
      return answer.get('Set-Cookie')?.[0]?.split(';')[0] ?? '';
    }),
  );
});
afterAll(async () => {
  for (const page of pages) page.close();
  for (const server of servers) await server.close();
});

function server(at: number): NestExpressApplication {
  const found = servers[at];
  if (!found) throw new Error(`there is no server ${at}`);
  return found;
}

interface Page {
  readonly events: { readonly kind: string; readonly data: Record<string, unknown> }[];
  readonly until: (kind: string, has: object) => Promise<void>;
  readonly close: () => void;
  /** Resolves when the server ends the stream. */
  readonly ended: Promise<void>;
}

/** A page open on one of the servers. */
function open(at: number, who: number, timer = FENNIMORE): Promise<Page> {
  const { port } = server(at).getHttpServer().address() as AddressInfo;
  return new Promise((resolve, reject) => {
    const question = http.get(
      { port, path: `/api/timers/${timer}/events`, headers: { cookie: cookies[who] ?? '' } },
      (answer) => {
        if (answer.statusCode !== 200) {
          reject(new Error(String(answer.statusCode)));
          return;
        }
        const events: Page['events'] = [];
        let look = () => undefined as void;
        let text = '';
        answer.on('data', (chunk: Buffer) => {
          text += chunk.toString();
          const parts = text.split('\n\n');
          text = parts.pop() ?? '';
          for (const part of parts) {
            const [, kind, data] = /^event: (\w+)\ndata: (.*)$/.exec(part) ?? [];
            // Safe cast: our own server.
            if (kind && data)
              events.push({ kind, data: JSON.parse(data) as Record<string, unknown> });
          }
          look();
        });
        const page: Page = {
          events,
          until: (kind, has) =>
            new Promise((done) => {
              look = () => {
                const last = events.filter((event) => event.kind === kind).at(-1);
                const isSo = Object.entries(has).every(
                  ([key, value]) => JSON.stringify(last?.data[key]) === JSON.stringify(value),
                );
                if (last && isSo) done();
              };
              look();
            }),
          close: () => question.destroy(),
          ended: new Promise((done) => answer.once('end', done)),
        };
        pages.push(page);
        resolve(page);
      },
    );
    question.once('error', reject);
  });
}

const change = (at: number, who: number, baseVersion: number, start: string) =>
  request(server(at).getHttpServer())
    .post(`/api/timers/${FENNIMORE}/changes`)
    .set('Cookie', cookies[who] ?? '')
    .send({
      ...{ id: randomUUID(), baseVersion, way: 'do' },
      change: { type: 'set-starts', program: 'A', starts: [start] },
    });

test('a change is told to every page of the timer, on both servers, and to no other', async () => {
  const [here, there, other] = [await open(0, 0), await open(1, 1), await open(1, 1, LARKHOLT)];
  await here.until('version', { version: 1 });
  await there.until('version', { version: 1 });
  await change(0, 0, 1, '04:10').expect(200);
  for (const page of [here, there]) await page.until('version', { version: 2, by: TAMSIN?.name });
  await change(1, 1, 2, '04:20').expect(200);
  for (const page of [here, there]) await page.until('version', { version: 3, by: JORY?.name });
  // A refused write sends no event.
  await change(1, 1, 2, '04:30').expect(409);
  await change(1, 1, 3, '04:40').expect(200);
  await here.until('version', { version: 4 });
  const versions = here.events.filter(({ kind }) => kind === 'version').map(({ data }) => data);
  expect(versions.map(({ version }) => version)).toEqual([1, 2, 3, 4]);
  expect(other.events.filter(({ kind }) => kind === 'version')).toHaveLength(1);
});

test('who looks at the timer now is said, by name, until they close it', async () => {
  const mine = await open(0, 0, LARKHOLT);
  const theirs = await open(1, 1, LARKHOLT);
  await mine.until('looking', { people: [JORY?.name] });
  // A page opened later learns who is already there.
  await theirs.until('looking', { people: [TAMSIN?.name] });
  for (const page of pages.splice(0)) if (page !== mine) page.close();
  await mine.until('looking', { people: [] });
  mine.close();
});

test('a page of another company is not opened, and one whose connection to the database breaks goes on', async () => {
  await expect(open(0, 0, randomUUID())).rejects.toThrow('404');
  const page = await open(1, 0);
  await page.until('version', { version: 4 });
  const { manager } = server(0).get(DataSource);
  await manager.query(
    `select pg_terminate_backend(pid) from pg_stat_activity
     where application_name = 'water-clock events' and datname = current_database()`,
  );
  // Something is saved while no one listens; the event comes after reconnecting.
  await change(0, 1, 4, '04:50').expect(200);
  await page.until('version', { version: 5 });
});

test('a server that stops ends its pages at once', async () => {
  const page = await open(1, 0);
  await server(1).close();
  await page.ended;
  servers.pop();
});
