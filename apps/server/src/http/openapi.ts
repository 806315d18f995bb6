import { applyDecorators, type INestApplication } from '@nestjs/common';
import {
  ApiBody,
  ApiResponse,
  DocumentBuilder,
  SwaggerModule,
  type OpenAPIObject,
} from '@nestjs/swagger';
import { SCHEMAS, type Schema } from './api-schemas.ts';
import { API_CODES, type ApiCode } from './api-codes.ts';

/** Error codes of any route that needs a session. */
const SIGNED_IN: readonly ApiCode[] = ['not-signed-in', 'another-person', 'unavailable', 'failed'];

/** Error codes of any route with a JSON body. */
export const JSON_BODY = [
  'malformed-request',
  'wrong-media-type',
  'too-large',
  'foreign-origin',
] as const satisfies readonly ApiCode[];

/** Error codes of any write to company data. */
export const WRITE = ['foreign-origin', 'not-allowed'] as const satisfies readonly ApiCode[];

/** Error codes of any JSON write. */
export const JSON_WRITE = [...JSON_BODY, ...WRITE] as const satisfies readonly ApiCode[];

/** Error codes of any route with heavy work. */
export const WORK = ['not-accepted', 'too-much-work', 'busy'] as const satisfies readonly ApiCode[];

/** One response for each status, with the codes it can carry. */
function failures(codes: readonly ApiCode[]) {
  const byStatus = new Map<number, ApiCode[]>();
  for (const code of new Set(codes)) {
    const { status } = API_CODES[code];
    byStatus.set(status, [...(byStatus.get(status) ?? []), code]);
  }
  return [...byStatus].map(([status, own]) =>
    ApiResponse({
      status,
      description: own.map((code) => `\`${code}\`: ${API_CODES[code].meaning}`).join('; '),
      schema: {
        allOf: [
          { $ref: '#/components/schemas/Error' },
          { properties: { code: { type: 'string', enum: own } } },
        ],
      },
    }),
  );
}

/** Schema of an answer: named, a list of a named one, or inline. */
const schemaOf = (schema: string | readonly [string] | Schema): Schema =>
  typeof schema === 'string'
    ? { $ref: `#/components/schemas/${schema}` }
    : Array.isArray(schema)
      ? { type: 'array', items: { $ref: `#/components/schemas/${String(schema[0])}` } }
      : (schema as Schema);

interface Answer {
  readonly status?: number;
  /** Absent: no body. */
  readonly schema?: string | readonly [string] | Schema;
  /** Media type of a file; absent for JSON. */
  readonly mediaType?: string;
  readonly fails?: readonly ApiCode[];
  /** Needs no session. */
  readonly open?: boolean;
}

/** Documents a route's answers in OpenAPI. */
export function Answers({ status = 200, schema, mediaType, fails = [], open = false }: Answer) {
  const file: Schema = { type: 'string', format: 'binary' };
  return applyDecorators(
    ApiResponse({
      status,
      description: (schema ?? mediaType) ? 'the answer' : 'done',
      ...(mediaType
        ? { content: { [mediaType]: { schema: file } } }
        : schema
          ? { schema: schemaOf(schema) }
          : {}),
    }),
    ...failures([...(open ? (['unavailable', 'failed'] as const) : SIGNED_IN), ...fails]),
  );
}

/** A binary body. */
export const BytesBody = (...mediaTypes: readonly string[]) =>
  ApiBody({
    required: true,
    schema: { type: 'string', format: 'binary', description: mediaTypes.join(', ') },
  });

/** The OpenAPI document of the whole API. */
function openApiOf(app: INestApplication): OpenAPIObject {
  const document = SwaggerModule.createDocument(
    app,
    new DocumentBuilder()
      .setTitle('Water Clock')
      .setDescription(
        'Every write carries an id made by the client and the version it was based on. Every row belongs to the company of who is signed in.',
      )
      .setVersion('1')
      .addCookieAuth('water_clock_session')
      .addBearerAuth({ type: 'http', description: 'a personal token, `wct_…`' })
      .build(),
  );
  document.components = {
    ...document.components,
    schemas: { ...SCHEMAS, ...document.components?.schemas },
  };
  return document;
}

/** Serves the document at `/api/docs`, and as JSON at `/api/docs.json`. */
export function serveOpenApi(app: INestApplication): void {
  SwaggerModule.setup('api/docs', app, () => openApiOf(app), { jsonDocumentUrl: 'api/docs.json' });
}
