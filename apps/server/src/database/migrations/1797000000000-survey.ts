import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The survey of a timer, the settings of a site, the library, and photos. */
export class Survey1797000000000 implements MigrationInterface {
  name = 'Survey1797000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table timers add column survey jsonb not null default '{"stations":[]}'`);
    await db.query(`alter table sites
      add column people jsonb not null default '[]', add column units text,
      add column clock_style text, add column place text, add column rules_id uuid,
      add column minutes_id uuid`);
    await db.query(`create table library (
      company_id uuid not null, shelf text not null, id uuid not null, version integer not null,
      document jsonb, constraint library_pk primary key (company_id, id),
      constraint library_company foreign key (company_id) references companies (id))`);
    await db.query(`create index library_shelf on library (company_id, shelf)`);
    await db.query(`create table photos (
      company_id uuid not null, id uuid not null, media_type text not null, bytes bytea not null,
      width integer not null, height integer not null, person_id uuid not null,
      at timestamptz not null default now(), constraint photos_pk primary key (company_id, id),
      constraint photos_person foreign key (company_id, person_id) references people (company_id, id))`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`drop table photos`);
    await db.query(`drop table library`);
    await db.query(`alter table sites
      drop column people, drop column units, drop column clock_style, drop column place,
      drop column rules_id, drop column minutes_id`);
    await db.query(`alter table timers drop column survey`);
  }
}
