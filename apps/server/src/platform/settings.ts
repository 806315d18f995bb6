import { availableParallelism } from 'node:os';
import { plainToInstance, Transform } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsNotEmpty, IsString, Min, validateSync } from 'class-validator';

const LOG_LEVELS = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'] as const;

/** `1` is yes; anything else is no. */
const Flag = () => Transform(({ value }) => value === true || value === '1');
const WholeNumber = () =>
  Transform(({ value }: { value: unknown }) => (value === '' ? undefined : Number(value)), {
    toClassOnly: true,
  });

/** The settings of the server, each from an environment variable (`readSettings`); bin/start sets most of them. */
export class Settings {
  @IsNotEmpty({ message: 'DATABASE_URL is missing: run bin/start, or name a PostgreSQL server' })
  @IsString({ message: 'DATABASE_URL is missing: run bin/start, or name a PostgreSQL server' })
  databaseUrl: string;

  /** 0: any free port. */
  @Min(0, { message: 'PORT must be a whole number, 0 or more' })
  @IsInt({ message: 'PORT must be a whole number, 0 or more' })
  @WholeNumber()
  port: number;

  @IsString()
  host: string;

  /** Whether to run with the demo firm and its sign-in. */
  @IsBoolean()
  @Flag()
  demo: boolean;

  /** The session cookie is sent over https only. */
  @IsBoolean()
  @Flag()
  secureCookies: boolean;

  /** Sign-ins a minute for one network address, and for one account. */
  @Min(0, { message: 'WATER_CLOCK_SIGN_IN_TRIES must be a whole number, 0 or more' })
  @IsInt({ message: 'WATER_CLOCK_SIGN_IN_TRIES must be a whole number, 0 or more' })
  @WholeNumber()
  signInTriesPerMinute: number;

  /** Openings of homeowners' pages, for one address. */
  @Min(0, { message: 'WATER_CLOCK_PAGE_TRIES must be a whole number, 0 or more' })
  @IsInt({ message: 'WATER_CLOCK_PAGE_TRIES must be a whole number, 0 or more' })
  @WholeNumber()
  pageTriesPerMinute: number;

  /** Threads for heavy work. */
  @Min(1, { message: 'WATER_CLOCK_WORKERS must be a whole number, 1 or more' })
  @IsInt({ message: 'WATER_CLOCK_WORKERS must be a whole number, 1 or more' })
  @WholeNumber()
  workers: number;

  /** Seconds that one piece of heavy work may take. */
  @Min(1, { message: 'WATER_CLOCK_WORK_SECONDS must be a whole number, 1 or more' })
  @IsInt({ message: 'WATER_CLOCK_WORK_SECONDS must be a whole number, 1 or more' })
  @WholeNumber()
  workSeconds: number;

  /** Folder of the built web application; null: the API alone. */
  webRoot: string | null;

  @IsIn(LOG_LEVELS, { message: `LOG_LEVEL must be one of ${LOG_LEVELS.join(', ')}` })
  logLevel: string;
}

/** @throws Error that names every wrong variable and what is allowed. */
export function readSettings(env: Record<string, unknown>): Settings {
  const settings = plainToInstance(Settings, {
    databaseUrl: env['DATABASE_URL'],
    port: env['PORT'] ?? 0,
    host: env['HOST'] ?? '127.0.0.1',
    demo: env['WATER_CLOCK_DEMO'] ?? '0',
    secureCookies: env['WATER_CLOCK_SECURE_COOKIES'] ?? '0',
    signInTriesPerMinute: env['WATER_CLOCK_SIGN_IN_TRIES'] ?? 10,
    pageTriesPerMinute: env['WATER_CLOCK_PAGE_TRIES'] ?? 60,
    workers: env['WATER_CLOCK_WORKERS'] ?? Math.max(1, availableParallelism() - 1),
    workSeconds: env['WATER_CLOCK_WORK_SECONDS'] ?? 10,
    webRoot: env['WATER_CLOCK_WEB_ROOT'] ?? null,
    logLevel: env['LOG_LEVEL'] ?? 'info',
  });
  const wrong = validateSync(settings).flatMap(({ constraints = {} }) =>
    Object.values(constraints).slice(0, 1),
  );
  if (wrong.length > 0) throw new Error(wrong.join('; '));
  return settings;
}
