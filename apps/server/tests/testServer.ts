/** The whole server on its own database, driven over HTTP. */
import { randomUUID } from 'node:crypto';
import path from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import type { DestinationStream } from 'pino';
import { DataSource } from 'typeorm';
import { createApplication } from '../src/application.ts';
import { Zip } from '../src/formats/zip.ts';
import { readSettings, type Settings } from '../src/platform/settings.ts';
import { demoCompany } from '../src/demo/demo-documents.ts';
import { Person, type Role } from '../src/identity/person.entity.ts';
import { hashPassword } from '../src/auth/session.service.ts';
import { makeTestDatabase } from '../../../scripts/test-database.mjs';

export const LARKHOLT = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';
export const FENNIMORE = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';
export const FENNIMORE_SITE = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1b02';
export const HOLLIN_YARD = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c07';
export const SORREL_ROW = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c04';

/** As in production: the file server must not answer API requests. */
const WEB_ROOT = path.join(import.meta.dirname, 'web');

export interface TestServer {
  readonly app: NestExpressApplication;
  readonly database: DataSource;
  /** Clients signed in as the demo person, her technician, and someone from another company. */
  readonly tamsin: request.Agent;
  readonly jory: request.Agent;
  readonly stranger: request.Agent;
  readonly nobody: request.Agent;
  readonly otherCompanyId: string;
  /** Another member of the demo company, signed in. */
  readonly member: (role: Role) => Promise<request.Agent>;
  readonly stop: () => Promise<void>;
}

/** A server as in production, on its own database unless one is named. */
export const applicationOn = (
  databaseUrl: string,
  more: Partial<Settings> = {},
  logTo?: DestinationStream,
) =>
  createApplication(
    {
      ...readSettings({ DATABASE_URL: databaseUrl }),
      demo: true,
      signInTriesPerMinute: 1000,
      pageTriesPerMinute: 1000,
      webRoot: WEB_ROOT,
      workers: 1,
      jobs: false,
      // A slow machine must not look like database trouble.
      databasePatience: 20,
      workSeconds: 120,
      logLevel: logTo ? 'info' : 'silent',
      ...more,
    },
    logTo,
  );

export async function startTestServer(
  tries = 1000,
  more: Partial<Settings> = {},
): Promise<TestServer> {
  const app = await applicationOn(await makeTestDatabase(), {
    signInTriesPerMinute: tries,
    pageTriesPerMinute: tries,
    ...more,
  });
  const database = app.get(DataSource);
  const otherCompanyId = randomUUID();
  await database.query('insert into companies (id, name) values ($1, $2)', [
    otherCompanyId,
    'Others',
  ]);
  const addPerson = async (companyId: string, name: string, role: Role) => {
    const [email, password] = [`${name.toLowerCase()}@others.example`, `password of ${name}`];
    const passwordHash = await hashPassword(password);
    await database
      .getRepository(Person)
      .insert({ companyId, id: randomUUID(), name, email, role, passwordHash });
    return [email, password] as const;
  };
  const agent = async (email?: string, password?: string) => {
    const made = request.agent(app.getHttpServer());
    if (email) await made.post('/api/session').send({ email, password }).expect(204);
    return made;
  };
  const { company, people } = demoCompany();
  const [tamsin, jory] = people;
  return {
    app,
    database,
    tamsin: await agent(tamsin?.email, tamsin?.password),
    jory: await agent(jory?.email, jory?.password),
    stranger: await agent(...(await addPerson(otherCompanyId, 'Otto', 'owner'))),
    nobody: await agent(),
    otherCompanyId,
    member: async (role) => agent(...(await addPerson(company.id, `Some-${role}`, role))),
    stop: () => app.close(),
  };
}

export interface Line {
  readonly id: string;
  readonly site: { readonly id: string; readonly version: number; readonly name: string };
  readonly verdict: string | null;
  readonly headline: string;
  readonly nextVisit: string | null;
}

/** The timer list by id, once nothing is being recalculated. */
export async function linesOf(
  agent: request.Agent,
  query = '',
): Promise<ReadonlyMap<string, Line>> {
  for (;;) {
    const answer = await agent.get(`/api/timers?size=200${query}`).expect(200);
    const { checking, lines } = answer.body as { checking: number; lines: Line[] };
    if (checking === 0) return new Map(lines.map((line) => [line.id, line]));
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

/** An answer as bytes. */
export const bytesOf = (question: request.Test): request.Test =>
  question.buffer(true).parse((response, done) => {
    const chunks: Buffer[] = [];
    response.on('data', (chunk: Buffer) => chunks.push(chunk));
    response.on('end', () => done(null, Buffer.concat(chunks)));
  });

/** The files in a ZIP by name, in order. */
export async function unzipped(bytes: Buffer): Promise<Map<string, Buffer>> {
  const zip = await Zip.open(bytes);
  const files = new Map<string, Buffer>();
  for (const name of zip.names) files.set(name, (await zip.read(name)) ?? Buffer.alloc(0));
  return files;
}
