import type { MigrationInterface, QueryRunner } from 'typeorm';

const subjects = (words: readonly string[]) =>
  `alter table changes drop constraint changes_subject_words, add constraint changes_subject_words
    check (subject in (${words.map((word) => `'${word}'`).join(', ')}))`;
const BEFORE = [
  ...['site', 'timer', 'library', 'person', 'company', 'member', 'invitation', 'timer-place'],
  'proposal',
];

/** Replans: new plans for timers when rules or the month change. */
export class Replans1809000000000 implements MigrationInterface {
  name = 'Replans1809000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(subjects([...BEFORE, 'replan']));
    await db.query(`create table replans (
      company_id uuid not null, id uuid not null, aim text not null, rules_id uuid, month smallint,
      person_id uuid not null, at timestamptz not null default now(),
      constraint replans_pk primary key (company_id, id),
      constraint replans_aim_words check (aim in ('rules', 'percent')),
      constraint replans_rules foreign key (company_id, rules_id) references library (company_id, id)
        on delete set null (rules_id),
      constraint replans_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query('create index replans_by_age on replans (company_id, at)');
    await db.query('create index replans_of_person on replans (company_id, person_id)');
    await db.query('create index replans_by_rules on replans (company_id, rules_id)');
    await db.query(`create table replan_timers (
      company_id uuid not null, id uuid not null, replan_id uuid not null, timer_id uuid not null,
      state text not null default 'waiting', why text not null default '', lines smallint, from_day integer,
      proposal_id uuid, claimed_until timestamptz,
      constraint replan_timers_pk primary key (company_id, id),
      constraint replan_timers_state_words check (state in ('waiting', 'fits', 'none', 'proposed')),
      constraint replan_timers_of_replan foreign key (company_id, replan_id)
        references replans (company_id, id) on delete cascade,
      constraint replan_timers_of_timer foreign key (company_id, timer_id)
        references timers (company_id, id) on delete cascade,
      constraint replan_timers_proposal foreign key (company_id, proposal_id)
        references proposals (company_id, id) on delete cascade)`);
    await db.query('create index replan_timers_by_replan on replan_timers (company_id, replan_id)');
    await db.query('create index replan_timers_by_timer on replan_timers (company_id, timer_id)');
    await db.query(
      'create index replan_timers_by_proposal on replan_timers (company_id, proposal_id)',
    );
    await db.query(
      `create index replan_timers_waiting on replan_timers (company_id, id) where state = 'waiting'`,
    );
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop table replan_timers');
    await db.query('drop table replans');
    await db.query(`delete from changes where subject = 'replan'`);
    await db.query(subjects(BEFORE));
  }
}
