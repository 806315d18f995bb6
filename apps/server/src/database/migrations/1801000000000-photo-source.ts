import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Identifies a photo that is sent again, now that photos are re-encoded. */
export class PhotoSource1801000000000 implements MigrationInterface {
  name = 'PhotoSource1801000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('alter table photos add column source text');
    await db.query("update photos set source = encode(sha256(bytes), 'hex')");
    await db.query('alter table photos alter column source set not null');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table photos drop column source');
  }
}
