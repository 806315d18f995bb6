/** The OpenAPI document and docs/architecture.md say the same of every route: its body, its answer, and every code it can fail with. */
import fs from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { API_CODES } from '../src/platform/api-codes.ts';
import { startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface Operation {
  readonly requestBody?: { readonly content: Record<string, { readonly schema: Schema }> };
  readonly responses: Record<
    string,
    { readonly content?: Record<string, { readonly schema: Schema }> }
  >;
}
interface Schema {
  readonly $ref?: string;
  readonly items?: Schema;
  readonly format?: string;
  readonly allOf?: readonly {
    readonly properties?: { readonly code?: { readonly enum: readonly string[] } };
  }[];
}

const architecture = fs.readFileSync(
  new URL('../../../docs/architecture.md', import.meta.url),
  'utf8',
);

/** The cells of a table under a heading, head and rule left out. */
function tableUnder(heading: string): string[][] {
  const section = architecture.split(`## ${heading}\n`)[1]?.split('\n## ')[0] ?? '';
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

const nameOf = ({ $ref = '', items }: Schema): string =>
  items ? `list of ${nameOf(items)}` : $ref.replace('#/components/schemas/', '');

function shown([type, { schema }]: readonly [string, { readonly schema: Schema }]): string {
  return type === 'application/json' && schema.format !== 'binary' ? nameOf(schema) : type;
}

/** One row of the table for each operation. */
function rowOf(method: string, path: string, { requestBody, responses }: Operation): string[] {
  const first = (content: Record<string, { readonly schema: Schema }> = {}) =>
    Object.entries(content).map(([type, described]) =>
      described.schema.format === 'binary' && type === 'application/json'
        ? 'bytes'
        : shown([type, described]),
    )[0] ?? '—';
  const success = Object.keys(responses).find((status) => status.startsWith('2')) ?? '';
  const codes = Object.values(responses).flatMap(({ content }) =>
    Object.values(content ?? {}).flatMap(
      ({ schema }) => schema.allOf?.flatMap(({ properties }) => properties?.code?.enum ?? []) ?? [],
    ),
  );
  return [
    `${method.toUpperCase()} ${path.replace('/api', '')}`,
    first(requestBody?.content),
    `${success} ${first(responses[success]?.content)}`,
    [...codes].sort().join(', '),
  ];
}

test('every route stands in both with body, answer and failures', async () => {
  const response = await server.nobody.get('/api/docs.json').expect(200);
  const { paths, components } = response.body as {
    paths: Record<string, Record<string, Operation>>;
    components: { schemas: Record<string, object> };
  };
  const rows = Object.entries(paths).flatMap(([path, operations]) =>
    Object.entries(operations).map(([method, operation]) => rowOf(method, path, operation)),
  );
  expect(rows.length).toBeGreaterThan(25);
  const order = (all: readonly string[][]) => all.map((row) => row.join(' | ')).sort();
  expect(order(tableUnder('Routes of the API'))).toEqual(order(rows));
  // Whatever an operation names is described.
  const named = [...JSON.stringify(paths).matchAll(/#\/components\/schemas\/(\w+)/g)];
  for (const [, name = ''] of named) expect(Object.keys(components.schemas)).toContain(name);
});

test('every code stands in both with its status and meaning', () => {
  const rows = tableUnder('Error codes of the API').map(([code = '', status, meaning]) => [
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
