import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Closed visits, and private links to homeowner's pages. */
export class Visits1798000000000 implements MigrationInterface {
  name = 'Visits1798000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table visits (
      company_id uuid not null, id uuid not null, timer_id uuid not null, person_id uuid not null,
      began text not null, document jsonb not null, at timestamptz not null default now(),
      constraint visits_pk primary key (company_id, id),
      constraint visits_of_timer foreign key (company_id, timer_id) references timers (company_id, id),
      constraint visits_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(`create index visits_timer on visits (company_id, timer_id, began)`);
    await db.query(`create table page_links (
      company_id uuid not null, id uuid not null, timer_id uuid not null, person_id uuid not null,
      token_hash text not null, expires_at timestamptz not null, withdrawn_at timestamptz,
      at timestamptz not null default now(),
      constraint page_links_pk primary key (company_id, id),
      constraint page_links_of_timer foreign key (company_id, timer_id) references timers (company_id, id),
      constraint page_links_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(`create unique index page_links_token on page_links (token_hash)`);
    await db.query(`create index page_links_timer on page_links (company_id, timer_id)`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`drop table page_links`);
    await db.query(`drop table visits`);
  }
}
