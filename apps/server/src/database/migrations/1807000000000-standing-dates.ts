import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How a timer stands is kept for all the dates on which it is so. What was kept before is worked out again. */
export class StandingDates1807000000000 implements MigrationInterface {
  name = 'StandingDates1807000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('truncate standings');
    // A server of the version before, that still runs beside, writes rows without it; those count as out of date.
    await db.query('alter table standings add column from_day integer not null default 0');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('truncate standings');
    await db.query('alter table standings drop column from_day');
  }
}
