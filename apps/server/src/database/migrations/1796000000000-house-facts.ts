import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What supplies a house, when it is mown, and notes. */
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
