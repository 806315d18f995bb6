import type { MigrationInterface, QueryRunner } from 'typeorm';

const subjects = (words: readonly string[]) =>
  `check (subject in (${words.map((word) => `'${word}'`).join(', ')}))`;

/** Roles, the activity log, how long changes are kept, and sign-in limits. */
export class Firm1803000000000 implements MigrationInterface {
  name = 'Firm1803000000000';

  async up(db: QueryRunner): Promise<void> {
    // Until now everyone had all rights.
    await db.query(`alter table people add column role text not null default 'owner',
      add constraint people_role_words check (role in ('owner', 'office', 'technician', 'apprentice'))`);
    await db.query('alter table people alter column role drop default');
    await db.query(`alter table companies add column version integer not null default 1,
      add column keep_changes_days integer,
      add constraint companies_keep_changes check (keep_changes_days between 90 and 3650)`);
    await db.query('alter table sessions add column seen_at timestamptz not null default now()');
    await db.query(`alter table changes drop constraint changes_subject_words,
      add constraint changes_subject_words ${subjects(['site', 'timer', 'library', 'person', 'company'])}`);
    await db.query(`create index changes_by_age on changes (company_id, at)`);
    await db.query(`create table audit (
      company_id uuid not null, id uuid not null, at timestamptz not null default now(),
      person_id uuid, what text not null, subject_id uuid, address text,
      constraint audit_pk primary key (company_id, id),
      constraint audit_company foreign key (company_id) references companies (id),
      constraint audit_person foreign key (company_id, person_id) references people (company_id, id),
      constraint audit_what_words check (what in (
        'sign-in', 'sign-in-failed', 'sign-out', 'link-made', 'link-opened', 'link-withdrawn',
        'export', 'deletion', 'setting')))`);
    await db.query('create index audit_by_time on audit (company_id, at desc, id desc)');
    await db.query('create index audit_of_person on audit (company_id, person_id)');
    await db.query(`create table tries (
      key varchar(255) not null, points integer not null default 0, expire bigint,
      constraint tries_pk primary key (key))`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop table tries');
    await db.query('drop table audit');
    await db.query('drop index changes_by_age');
    await db.query(`delete from changes where subject = 'company'`);
    await db.query(`alter table changes drop constraint changes_subject_words,
      add constraint changes_subject_words ${subjects(['site', 'timer', 'library', 'person'])}`);
    await db.query('alter table sessions drop column seen_at');
    await db.query(`alter table companies drop constraint companies_keep_changes,
      drop column keep_changes_days, drop column version`);
    await db.query('alter table people drop constraint people_role_words, drop column role');
  }
}
