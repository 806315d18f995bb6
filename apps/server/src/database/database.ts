import pg, { type ClientConfig } from 'pg';
import { DataSource, type DataSourceOptions } from 'typeorm';
import type { Settings } from '../platform/settings.ts';
import { FirstTables1795000000000 } from './migrations/1795000000000-first-tables.ts';
import { HouseFacts1796000000000 } from './migrations/1796000000000-house-facts.ts';
import { Survey1797000000000 } from './migrations/1797000000000-survey.ts';
import { Visits1798000000000 } from './migrations/1798000000000-visits.ts';
import { ClosedLists1799000000000 } from './migrations/1799000000000-closed-lists.ts';
import { Preferences1800000000000 } from './migrations/1800000000000-preferences.ts';
import { PhotoSource1801000000000 } from './migrations/1801000000000-photo-source.ts';
import { Standings1802000000000 } from './migrations/1802000000000-standings.ts';
import { Firm1803000000000 } from './migrations/1803000000000-firm.ts';
import { Team1804000000000 } from './migrations/1804000000000-team.ts';
import { Houses1805000000000 } from './migrations/1805000000000-houses.ts';
import { Tokens1806000000000 } from './migrations/1806000000000-tokens.ts';
import { StandingDates1807000000000 } from './migrations/1807000000000-standing-dates.ts';
import { Lists1808000000000 } from './migrations/1808000000000-lists.ts';
import { Replans1809000000000 } from './migrations/1809000000000-replans.ts';
import { Calendar1810000000000 } from './migrations/1810000000000-calendar.ts';
import { Comments1811000000000 } from './migrations/1811000000000-comments.ts';
import { Reports1812000000000 } from './migrations/1812000000000-reports.ts';
import { Practice1813000000000 } from './migrations/1813000000000-practice.ts';
import { Languages1816000000000 } from './migrations/1816000000000-languages.ts';
import { Merged1815000000000 } from './migrations/1815000000000-merged.ts';
import { Acceptances1817000000000 } from './migrations/1817000000000-acceptances.ts';
import { TimerStatus1818000000000 } from './migrations/1818000000000-timer-status.ts';
import { OverSupply1819000000000 } from './migrations/1819000000000-over-supply.ts';
import { TokenScopes1820000000000 } from './migrations/1820000000000-token-scopes.ts';
import { ConfirmedSessions1821000000000 } from './migrations/1821000000000-confirmed-sessions.ts';
import { OfficeTasks1814000000000 } from './migrations/1814000000000-office-tasks.ts';

const MIGRATIONS = [
  FirstTables1795000000000,
  HouseFacts1796000000000,
  Survey1797000000000,
  Visits1798000000000,
  ClosedLists1799000000000,
  Preferences1800000000000,
  PhotoSource1801000000000,
  Standings1802000000000,
  Firm1803000000000,
  Team1804000000000,
  Houses1805000000000,
  Tokens1806000000000,
  StandingDates1807000000000,
  Lists1808000000000,
  Replans1809000000000,
  Calendar1810000000000,
  Comments1811000000000,
  Reports1812000000000,
  Practice1813000000000,
  OfficeTasks1814000000000,
  Merged1815000000000,
  Languages1816000000000,
  Acceptances1817000000000,
  TimerStatus1818000000000,
  OverSupply1819000000000,
  TokenScopes1820000000000,
  ConfirmedSessions1821000000000,
];

/**
 * Milliseconds before a wait ends in an error, so that it does not hold up others.
 *
 * @param patience factor
 */
const limits = (patience: number) => ({
  connectionTimeoutMillis: 3_000 * patience,
  statement_timeout: 10_000 * patience,
  lock_timeout: 5_000 * patience,
  idle_in_transaction_session_timeout: 15_000 * patience,
  // Timeout of the client, for a database that does not answer at all.
  query_timeout: 12_000 * patience,
});

/**
 * A dying database can send its error between queries, when no one listens. That must not end the server; the next user of the connection
 * gets the error.
 */
export class SteadyClient extends pg.Client {
  constructor(options?: string | ClientConfig) {
    super(options);
    this.on('error', () => undefined);
  }
}

/** TypeORM never synchronises the schema. Each module names its own entities. */
export const databaseOptions = ({ databaseUrl, databaseConnections, databasePatience }: Settings) =>
  ({
    type: 'postgres',
    url: databaseUrl,
    autoLoadEntities: true,
    migrations: MIGRATIONS,
    synchronize: false,
    logging: false,
    applicationName: 'water-clock',
    // The database makes ids itself, without an extension.
    uuidExtension: 'pgcrypto',
    installExtensions: false,
    extra: {
      ...{ max: databaseConnections, keepAlive: true, Client: SteadyClient },
      ...limits(databasePatience),
    },
  }) satisfies DataSourceOptions & { readonly autoLoadEntities: boolean };

/** Advisory lock number for migrations. */
const MIGRATION_LOCK = 1_884_201;

/** For slow work: a connection of its own, without the time limits of requests. */
async function withoutLimits(
  options: DataSourceOptions,
  work: (database: DataSource) => Promise<void>,
  limits: object = {},
): Promise<void> {
  const plain = { ...options, entities: [], extra: { Client: SteadyClient, ...limits } };
  const database = await new DataSource(plain).initialize();
  try {
    await work(database);
  } finally {
    await database.destroy();
  }
}

/** Of servers that start together, one migrates and the others wait. */
const oneByOne = (
  options: DataSourceOptions,
  lock: number,
  work: (database: DataSource) => Promise<unknown>,
) =>
  withoutLimits(options, async (database) => {
    const runner = database.createQueryRunner();
    try {
      await runner.query('select pg_advisory_lock($1)', [lock]);
      await work(database);
    } finally {
      // The lock ends with its connection, even if the database dies.
      await runner.release();
    }
  });

/** Runs the migrations in order. */
const migrate = (options: DataSourceOptions) =>
  oneByOne(options, MIGRATION_LOCK, (database) => database.runMigrations({ transaction: 'each' }));

/** Advisory lock number for creating the tables of the job queue. */
const QUEUE_LOCK = 1_884_203;

/** Serialises everything that creates tables outside the migrations, since two servers doing it at once would deadlock. */
export const makingQueues = (settings: Settings, work: () => Promise<unknown>) =>
  oneByOne(databaseOptions(settings), QUEUE_LOCK, work);

/** Nightly work is not urgent, but each statement must end. */
const NIGHTLY_LIMITS = { max: 1, statement_timeout: 600_000 };

/** Runs statements of the nightly work. */
export const atNight = (settings: Settings, work: (database: DataSource) => Promise<void>) =>
  withoutLimits(databaseOptions(settings), work, NIGHTLY_LIMITS);

export async function openDatabase(options: DataSourceOptions | undefined): Promise<DataSource> {
  if (!options) throw new Error('the database has no options');
  await migrate(options);
  return new DataSource(options).initialize();
}
