import type { MigrationInterface, QueryRunner } from 'typeorm';

const subjects = (words: readonly string[]) =>
  `check (subject in (${words.map((word) => `'${word}'`).join(', ')}))`;

/** Preferences move to the person, and their changes are recorded. */
export class Preferences1800000000000 implements MigrationInterface {
  name = 'Preferences1800000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table people
      add column version integer not null default 1,
      add column preferences jsonb not null default '{}'`);
    await db.query(`alter table changes drop constraint changes_subject_words,
      add constraint changes_subject_words ${subjects(['site', 'timer', 'library', 'person'])}`);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`delete from changes where subject = 'person'`);
    await db.query(`alter table changes drop constraint changes_subject_words,
      add constraint changes_subject_words ${subjects(['site', 'timer', 'library'])}`);
    await db.query('alter table people drop column version, drop column preferences');
  }
}
