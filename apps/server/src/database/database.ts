import type { DataSourceOptions } from 'typeorm';
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

/** Migrations make the tables, in order, at every start; TypeORM synchronises nothing. Each module names its own entities. */
export const databaseOptions = (url: string) =>
  ({
    type: 'postgres',
    url,
    autoLoadEntities: true,
    migrations: MIGRATIONS,
    migrationsRun: true,
    synchronize: false,
    logging: false,
  }) satisfies DataSourceOptions & { readonly autoLoadEntities: boolean };
