import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A site's supply, mowing days and notes. */
export class HouseFacts1796000000000 implements MigrationInterface {
  name = 'HouseFacts1796000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table sites
      add column supply text,
      add column mowing text array not null default '{}',
      add column notes text not null default ''`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`alter table sites drop column supply, drop column mowing, drop column notes`);
  }
}
