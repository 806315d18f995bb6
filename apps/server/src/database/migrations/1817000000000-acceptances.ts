import type { MigrationInterface, QueryRunner } from 'typeorm';

/** "Accept all" for a replan becomes a server job. */
export class Acceptances1817000000000 implements MigrationInterface {
  name = 'Acceptances1817000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table replan_timers
      add column accepting_person_id uuid, add column trouble text not null default '',
      add constraint replan_timers_accepting_person foreign key (company_id, accepting_person_id)
        references people (company_id, id)`);
    await db.query(
      'create index replan_timers_accepting on replan_timers (company_id, accepting_person_id) where accepting_person_id is not null',
    );
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(
      'alter table replan_timers drop column accepting_person_id, drop column trouble',
    );
  }
}
