import type { MigrationInterface, QueryRunner } from 'typeorm';

/** By what a photo that is sent again is known, now that it is written anew. */
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
