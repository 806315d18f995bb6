import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Renames a table with its constraints, indexes and the trigger functions that mention it. */
const renaming = (from: string, to: string) => `do $$ declare found record; begin
  alter table ${from} rename to ${to};
  for found in select conname as name from pg_constraint
      where conrelid = '${to}'::regclass and starts_with(conname, '${from}_') loop
    execute format('alter table ${to} rename constraint %I to %I', found.name, replace(found.name, '${from}', '${to}'));
  end loop;
  for found in select indexname as name from pg_indexes
      where schemaname = current_schema() and tablename = '${to}' and starts_with(indexname, '${from}_') loop
    execute format('alter index %I rename to %I', found.name, replace(found.name, '${from}', '${to}'));
  end loop;
  for found in select pg_get_functiondef(oid) as text from pg_proc
      where pronamespace = current_schema()::regnamespace and strpos(prosrc, '${from}') > 0 loop
    execute replace(found.text, '${from}', '${to}');
  end loop;
end $$`;

/** The table of timer status gets the name it has in the code. */
export class TimerStatus1818000000000 implements MigrationInterface {
  name = 'TimerStatus1818000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(renaming('standings', 'timer_status'));
    await db.query('alter table timer_status rename column standing to status');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table timer_status rename column status to standing');
    await db.query(renaming('timer_status', 'standings'));
  }
}
