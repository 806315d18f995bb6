import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When the person of a session last gave the password. Sessions from before count as not confirmed. */
export class ConfirmedSessions1821000000000 implements MigrationInterface {
  name = 'ConfirmedSessions1821000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(
      `alter table sessions add column confirmed_at timestamptz not null default '-infinity'`,
    );
    await db.query('alter table sessions alter column confirmed_at set default now()');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table sessions drop column confirmed_at');
  }
}
