import type { MigrationInterface, QueryRunner } from 'typeorm';

const SHELVES = ['rules', 'kinds', 'minutes', 'climates', 'office'];
const check = (words: readonly string[]) => `alter table library
  drop constraint library_shelf_words,
  add constraint library_shelf_words check (shelf in (${words.map((word) => `'${word}'`).join(', ')}))`;

/** A library shelf for a company's own bench tasks. */
export class OfficeTasks1814000000000 implements MigrationInterface {
  name = 'OfficeTasks1814000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(check([...SHELVES, 'tasks']));
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`delete from library where shelf = 'tasks'`);
    await db.query(check(SHELVES));
  }
}
