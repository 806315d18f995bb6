import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Companies, people, sessions, sites, timers and changes. Every table except `companies` has `company_id`, and every foreign key includes
 * it, so that the database refuses references between companies.
 */
export class FirstTables1795000000000 implements MigrationInterface {
  name = 'FirstTables1795000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table companies (
      id uuid not null, name text not null, constraint companies_pk primary key (id))`);
    await db.query(`create table people (
      company_id uuid not null, id uuid not null, name text not null, email text not null,
      password_hash text not null, constraint people_pk primary key (company_id, id),
      constraint people_company foreign key (company_id) references companies (id))`);
    await db.query(`create unique index people_email on people (email)`);
    await db.query(`create table sessions (
      token_hash text not null, company_id uuid not null, person_id uuid not null,
      expires_at timestamptz not null, constraint sessions_pk primary key (token_hash),
      constraint sessions_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(`create table sites (
      company_id uuid not null, id uuid not null, version integer not null, name text not null,
      house_number text, time_zone text not null, latitude double precision,
      longitude double precision, constraint sites_pk primary key (company_id, id),
      constraint sites_company foreign key (company_id) references companies (id))`);
    await db.query(`create table timers (
      company_id uuid not null, id uuid not null, site_id uuid not null, version integer not null,
      plan jsonb not null, constraint timers_pk primary key (company_id, id),
      constraint timers_of_site foreign key (company_id, site_id) references sites (company_id, id))`);
    await db.query(`create index timers_site on timers (company_id, site_id)`);
    await db.query(`create table changes (
      company_id uuid not null, id uuid not null, subject text not null, subject_id uuid not null,
      version integer not null, person_id uuid not null, way text not null,
      fingerprint text not null, change jsonb, inverse jsonb,
      at timestamptz not null default now(), constraint changes_pk primary key (company_id, id),
      constraint changes_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(
      `create unique index changes_of_subject on changes (company_id, subject, subject_id, version)`,
    );
  }

  async down(db: QueryRunner): Promise<void> {
    for (const table of ['changes', 'timers', 'sites', 'sessions', 'people', 'companies'])
      await db.query(`drop table ${table}`);
  }
}
