import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The version on which a change was made, where it was put on top of what others saved meanwhile. */
export class Merged1815000000000 implements MigrationInterface {
  name = 'Merged1815000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('alter table changes add column made_on integer');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table changes drop column made_on');
  }
}
