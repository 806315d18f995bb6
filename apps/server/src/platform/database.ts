import type { DataSourceOptions } from 'typeorm';
import { Company } from '../people/company.entity.ts';
import { Person } from '../people/person.entity.ts';
import { Session } from '../people/session.entity.ts';
import { Site } from '../sites/site.entity.ts';
import { Timer } from '../timers/timer.entity.ts';
import { Change } from '../changes/change.entity.ts';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { Photo } from '../photos/photo.entity.ts';
import { FirstTables1795000000000 } from '../migrations/1795000000000-first-tables.ts';
import { HouseFacts1796000000000 } from '../migrations/1796000000000-house-facts.ts';
import { Survey1797000000000 } from '../migrations/1797000000000-survey.ts';
import { Visits1798000000000 } from '../migrations/1798000000000-visits.ts';
import { PageLink } from '../pages/page-link.entity.ts';
import { VisitRow } from '../visits/visit.entity.ts';

export const ENTITIES = [
  Company,
  Person,
  Session,
  Site,
  Timer,
  Change,
  LibraryEntry,
  Photo,
  VisitRow,
  PageLink,
];
export const MIGRATIONS = [
  FirstTables1795000000000,
  HouseFacts1796000000000,
  Survey1797000000000,
  Visits1798000000000,
];

/** Migrations make the tables, in order, at every start; nothing is ever synchronised. */
export function databaseOptions(url: string): DataSourceOptions {
  return {
    type: 'postgres',
    url,
    entities: ENTITIES,
    migrations: MIGRATIONS,
    migrationsRun: true,
    synchronize: false,
    logging: false,
  };
}
