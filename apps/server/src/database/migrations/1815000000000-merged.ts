import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The version a change was made on, if it was rebased on later changes. */
export class Merged1815000000000 implements MigrationInterface {
  name = 'Merged1815000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('alter table changes add column made_on integer');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table changes drop column made_on');
  }
}
