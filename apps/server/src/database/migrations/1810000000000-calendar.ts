import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Planned visits, their order, and private calendar addresses. */
export class Calendar1810000000000 implements MigrationInterface {
  name = 'Calendar1810000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table stops (
      company_id uuid not null, id uuid not null, version integer not null, day integer, person_id uuid,
      note text not null default '',
      constraint stops_pk primary key (company_id, id),
      constraint stops_of_timer foreign key (company_id, id) references timers (company_id, id) on delete cascade,
      constraint stops_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query('create index stops_by_day on stops (company_id, day)');
    await db.query('create index stops_by_person on stops (company_id, person_id)');
    await db.query(`create table day_orders (
      company_id uuid not null, id uuid not null, person_id uuid, day integer not null, version integer not null,
      timer_ids uuid[] not null,
      constraint day_orders_pk primary key (company_id, id),
      constraint day_orders_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(
      'create unique index day_orders_of_day on day_orders (company_id, day, person_id) nulls not distinct',
    );
    await db.query('create index day_orders_by_person on day_orders (company_id, person_id)');
    await db.query(`create table calendar_links (
      company_id uuid not null, id uuid not null, token_hash text not null, made_at timestamptz not null default now(),
      constraint calendar_links_pk primary key (company_id, id),
      constraint calendar_links_of_person foreign key (company_id, id) references people (company_id, id))`);
    await db.query('create unique index calendar_links_token on calendar_links (token_hash)');
    await db.query(SUBJECTS_WITH('stop', 'day-order'));
  }

  async down(db: QueryRunner): Promise<void> {
    for (const table of ['calendar_links', 'day_orders', 'stops'])
      await db.query(`drop table ${table}`);
    await db.query(`delete from changes where subject in ('stop', 'day-order')`);
    await db.query(SUBJECTS_WITH());
  }
}

/** The words allowed so far, and new ones. */
const SUBJECTS_WITH = (...more: readonly string[]) =>
  `alter table changes drop constraint changes_subject_words, add constraint changes_subject_words
    check (subject in (${[
      ...['site', 'timer', 'library', 'person', 'company', 'member', 'invitation', 'timer-place'],
      ...['proposal', 'replan', ...more],
    ]
      .map((word) => `'${word}'`)
      .join(', ')}))`;
