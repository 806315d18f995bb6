import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a personal token may be used for. Tokens made before keep all scopes. */
export class TokenScopes1820000000000 implements MigrationInterface {
  name = 'TokenScopes1820000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table api_tokens
      add column scopes text[] not null default '{read,write,calendar}',
      add constraint api_tokens_scopes
        check (cardinality(scopes) > 0 and scopes <@ array['read', 'write', 'calendar'])`);
    await db.query('alter table api_tokens alter column scopes drop default');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table api_tokens drop column scopes');
  }
}
