import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Results of bench tasks, one row for each time a task was done. */
export class Practice1813000000000 implements MigrationInterface {
  name = 'Practice1813000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table practice_results (
      company_id uuid not null, id uuid not null, person_id uuid not null, task text not null, title text not null,
      points integer not null, presses integer not null, seconds integer not null, hints integer not null,
      tries integer not null, at timestamptz not null default now(),
      constraint practice_results_pk primary key (company_id, id),
      constraint practice_results_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(
      'create index practice_results_by_person on practice_results (company_id, person_id, task)',
    );
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop table practice_results');
  }
}
