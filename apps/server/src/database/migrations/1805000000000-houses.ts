import type { MigrationInterface, QueryRunner } from 'typeorm';
import { AUDITED_OF_TEAM, SUBJECTS_OF_TEAM, wordsOf } from './1804000000000-team.ts';

const NEW_AUDITED = ['timer-deleted', 'site-deleted', 'personal-data-deleted'];

export const AUDITED_OF_HOUSES = [...AUDITED_OF_TEAM, ...NEW_AUDITED];

/** Sites with an address and several timers, which can be named, moved, archived and deleted. */
export class Houses1805000000000 implements MigrationInterface {
  name = 'Houses1805000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table sites add column street text, add column locality text,
      add column supply_flow double precision, add column archived_at timestamptz`);
    await db.query(`alter table timers add column name text not null default '',
      add column place_version integer not null default 1, add column archived_at timestamptz`);
    await db.query('alter table audit add column subject_name text');
    for (const sql of wordsOf([...SUBJECTS_OF_TEAM, 'timer-place'], AUDITED_OF_HOUSES))
      await db.query(sql);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`delete from changes where subject = 'timer-place'`);
    await db.query('delete from audit where what = any($1)', [NEW_AUDITED]);
    for (const sql of wordsOf(SUBJECTS_OF_TEAM, AUDITED_OF_TEAM)) await db.query(sql);
    await db.query('alter table audit drop column subject_name');
    await db.query(
      'alter table timers drop column name, drop column place_version, drop column archived_at',
    );
    await db.query(`alter table sites drop column street, drop column locality, drop column supply_flow,
      drop column archived_at`);
  }
}
