import type { MigrationInterface, QueryRunner } from 'typeorm';
import { SUBJECTS_OF_TEAM, wordsOf } from './1804000000000-team.ts';
import { AUDITED_OF_HOUSES } from './1805000000000-houses.ts';

const NEW_AUDITED = ['token-made', 'token-withdrawn'];
const SUBJECTS = [...SUBJECTS_OF_TEAM, 'timer-place'];

/** Personal API tokens. */
export class Tokens1806000000000 implements MigrationInterface {
  name = 'Tokens1806000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table api_tokens (
      company_id uuid not null, id uuid not null, person_id uuid not null, name text not null,
      token_hash text not null, expires_at timestamptz not null, used_at timestamptz,
      at timestamptz not null default now(),
      constraint api_tokens_pk primary key (company_id, id),
      constraint api_tokens_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query('create unique index api_tokens_token on api_tokens (token_hash)');
    await db.query('create index api_tokens_of_person on api_tokens (company_id, person_id)');
    for (const sql of wordsOf(SUBJECTS, [...AUDITED_OF_HOUSES, ...NEW_AUDITED]))
      await db.query(sql);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('delete from audit where what = any($1)', [NEW_AUDITED]);
    for (const sql of wordsOf(SUBJECTS, AUDITED_OF_HOUSES)) await db.query(sql);
    await db.query('drop table api_tokens');
  }
}
