import { DataSource, type DataSourceOptions } from 'typeorm';
import { FirstTables1795000000000 } from './migrations/1795000000000-first-tables.ts';
import { HouseFacts1796000000000 } from './migrations/1796000000000-house-facts.ts';
import { Survey1797000000000 } from './migrations/1797000000000-survey.ts';
import { Visits1798000000000 } from './migrations/1798000000000-visits.ts';
import { ClosedLists1799000000000 } from './migrations/1799000000000-closed-lists.ts';
import { Preferences1800000000000 } from './migrations/1800000000000-preferences.ts';
import { PhotoSource1801000000000 } from './migrations/1801000000000-photo-source.ts';

export const MIGRATIONS = [
  FirstTables1795000000000,
  HouseFacts1796000000000,
  Survey1797000000000,
  Visits1798000000000,
  ClosedLists1799000000000,
  Preferences1800000000000,
  PhotoSource1801000000000,
];

/** TypeORM synchronises nothing. Each module names its own entities. */
export const databaseOptions = (url: string) =>
  ({
    type: 'postgres',
    url,
    autoLoadEntities: true,
    migrations: MIGRATIONS,
    synchronize: false,
    logging: false,
  }) satisfies DataSourceOptions & { readonly autoLoadEntities: boolean };

/** Of our own choosing; whoever holds it migrates. */
const MIGRATION_LOCK = 1_884_201;

/** Connects, and makes the tables by migrations, in order. Of servers that start at once one does it, and the others wait. */
export async function openDatabase(options: DataSourceOptions | undefined): Promise<DataSource> {
  if (!options) throw new Error('the database has no options');
  const database = await new DataSource(options).initialize();
  const lock = database.createQueryRunner();
  try {
    await lock.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await database.runMigrations({ transaction: 'each' });
  } finally {
    await lock.query('select pg_advisory_unlock($1)', [MIGRATION_LOCK]);
    await lock.release();
  }
  return database;
}
