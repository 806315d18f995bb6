import type { MigrationInterface, QueryRunner } from 'typeorm';

const WORDS: readonly (readonly [table: string, column: string, words: readonly string[]])[] = [
  ['changes', 'subject', ['site', 'timer', 'library']],
  ['changes', 'way', ['do', 'undo', 'redo']],
  ['library', 'shelf', ['rules', 'kinds', 'minutes', 'climates', 'office']],
  ['photos', 'media_type', ['image/jpeg', 'image/png', 'image/webp']],
  ['sites', 'supply', ['mains', 'bore', 'pump', 'tank']],
  ['sites', 'units', ['metric', 'us']],
  ['sites', 'clock_style', ['12', '24']],
];
const INDEXES: readonly (readonly [name: string, table: string, column: string])[] = [
  ['sessions_of_person', 'sessions', 'person_id'],
  ['changes_of_person', 'changes', 'person_id'],
  ['photos_of_person', 'photos', 'person_id'],
  ['visits_of_person', 'visits', 'person_id'],
  ['page_links_of_person', 'page_links', 'person_id'],
  ['sites_by_rules', 'sites', 'rules_id'],
  ['sites_by_minutes', 'sites', 'minutes_id'],
  ['sites_by_climate', 'sites', 'climate_id'],
];
const REFERENCES: readonly (readonly [name: string, column: string])[] = [
  ['sites_climate', 'climate_id'],
  ['sites_rules', 'rules_id'],
  ['sites_minutes', 'minutes_id'],
];
const UUID = '^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$';

/**
 * Constraints that match the code: closed lists of words, foreign keys to the library, an index for each foreign key. A site's town and
 * climate get separate columns; a visit's start becomes a timestamp.
 */
export class ClosedLists1799000000000 implements MigrationInterface {
  name = 'ClosedLists1799000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('alter table sites add column town text, add column climate_id uuid');
    await db.query(`update sites set climate_id = place::uuid where place ~ '${UUID}'`);
    await db.query(`update sites set town = place where place !~ '${UUID}'`);
    await db.query('alter table sites drop column place');
    for (const [name, column] of REFERENCES) {
      // An id that refers to nothing is dropped; pages showed nothing for it.
      await db.query(`update sites set ${column} = null where not exists (
        select from library where library.company_id = sites.company_id and library.id = ${column})`);
      await db.query(`alter table sites add constraint ${name}
        foreign key (company_id, ${column}) references library (company_id, id)`);
    }
    for (const [table, column, words] of WORDS)
      await db.query(`alter table ${table} add constraint ${table}_${column}_words
        check (${column} in (${words.map((word) => `'${word}'`).join(', ')}))`);
    await db.query(`alter table sites add constraint sites_mowing
      check (mowing <@ array['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])`);
    await db.query(`alter table sites add constraint sites_one_weather
      check (town is null or climate_id is null)`);
    for (const [name, table, column] of INDEXES)
      await db.query(`create index ${name} on ${table} (company_id, ${column})`);
    await db.query('alter table visits alter column began type timestamp using began::timestamp');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`alter table visits alter column began type text
      using to_char(began, 'YYYY-MM-DD"T"HH24:MI')`);
    for (const [name] of INDEXES) await db.query(`drop index ${name}`);
    await db.query('alter table sites drop constraint sites_one_weather');
    await db.query('alter table sites drop constraint sites_mowing');
    for (const [table, column] of WORDS)
      await db.query(`alter table ${table} drop constraint ${table}_${column}_words`);
    for (const [name] of REFERENCES) await db.query(`alter table sites drop constraint ${name}`);
    await db.query('alter table sites add column place text');
    await db.query('update sites set place = coalesce(town, climate_id::text)');
    await db.query('alter table sites drop column town, drop column climate_id');
  }
}
