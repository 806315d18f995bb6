import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What each visit changed, in numbers, calculated once after closing. */
export class Reports1812000000000 implements MigrationInterface {
  name = 'Reports1812000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table visit_facts (
      company_id uuid not null, id uuid not null, found_hours double precision, left_hours double precision,
      found_litres double precision, left_litres double precision, found_overlaps integer, left_overlaps integer,
      constraint visit_facts_pk primary key (company_id, id),
      constraint visit_facts_of_visit foreign key (company_id, id)
        references visits (company_id, id) on delete cascade)`);
    await db.query('create index visits_by_time on visits (company_id, began)');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop index visits_by_time');
    await db.query('drop table visit_facts');
  }
}
