/** The published OpenAPI document is valid, and docs/api.md explains every error code. */
import fs from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Validator } from '@seriousme/openapi-schema-validator';
import { API_CODES } from '../src/http/api-codes.ts';
import { startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface Operation {
  readonly description?: string;
  readonly responses: Record<string, object>;
}

const apiPage = fs.readFileSync(new URL('../../../docs/api.md', import.meta.url), 'utf8');

/** Cells of the table under a heading, without the header rows. */
function tableUnder(heading: string): string[][] {
  const section = apiPage.split(`## ${heading}\n`)[1]?.split('\n## ')[0] ?? '';
  return section
    .split('\n')
    .filter((line) => line.startsWith('|'))
    .slice(2)
    .map((line) =>
      line
        .slice(1, -1)
        .split('|')
        .map((cell) => cell.trim()),
    );
}

test('the published document is valid, and describes whatever it names', async () => {
  const response = await server.nobody.get('/api/docs.json').expect(200);
  const { errors, valid } = await new Validator().validate(
    response.body as Record<string, unknown>,
  );
  expect([valid, errors]).toEqual([true, undefined]);
  const { paths, components } = response.body as {
    paths: Record<string, Record<string, Operation>>;
    components: { schemas: Record<string, object> };
  };
  const named = [...JSON.stringify(response.body).matchAll(/"#\/components\/schemas\/([^"]*)"/g)];
  const unknown = named
    .map(([, name = '']) => name)
    .filter((name) => !Object.hasOwn(components.schemas, name));
  expect(unknown).toEqual([]);
  const operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ at: `${method} ${path}`, operation })),
  );
  expect(operations.length).toBeGreaterThan(100);
  // Every route documents a success and a failure.
  const isTold = ({ responses }: Operation) => {
    const statuses = Object.keys(responses);
    return statuses.some((one) => one.startsWith('2')) && statuses.some((one) => /^[45]/.test(one));
  };
  const silent = operations.filter(({ operation }) => !isTold(operation)).map(({ at }) => at);
  expect(silent).toEqual([]);
});

test('every code stands in both with its status and meaning', () => {
  const rows = tableUnder('Error codes').map(([code = '', status, meaning]) => [
    code.replaceAll('`', ''),
    Number(status),
    meaning,
  ]);
  const codes = Object.entries(API_CODES).map(([code, { status, meaning }]) => [
    code,
    status,
    meaning,
  ]);
  expect(rows).toEqual(codes);
});
