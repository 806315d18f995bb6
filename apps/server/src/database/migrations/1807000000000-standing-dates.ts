import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Timer status now names the range of dates it is valid for. Old rows are recalculated. */
export class StandingDates1807000000000 implements MigrationInterface {
  name = 'StandingDates1807000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('truncate standings');
    // Servers of the previous version may still write rows without it; those count as out of date.
    await db.query('alter table standings add column from_day integer not null default 0');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('truncate standings');
    await db.query('alter table standings drop column from_day');
  }
}
