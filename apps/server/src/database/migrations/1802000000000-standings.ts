import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Cached timer status, so that lists do not recalculate it. */
export class Standings1802000000000 implements MigrationInterface {
  name = 'Standings1802000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table standings (
      company_id uuid not null, id uuid not null, basis text not null, standing jsonb not null,
      constraint standings_pk primary key (company_id, id),
      constraint standings_of_timer foreign key (company_id, id)
        references timers (company_id, id) on delete cascade)`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop table standings');
  }
}
