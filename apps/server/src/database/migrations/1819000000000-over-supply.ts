import type { MigrationInterface, QueryRunner } from 'typeorm';
import { oneOfWords } from '../../platform/one-of.ts';

const BEFORE = ['overlap', 'breach', 'incomplete', 'empty', 'clear'];

const constraint = (words: readonly string[]) => `alter table timer_status
  drop constraint timer_status_verdict_words,
  add constraint timer_status_verdict_words check (${oneOfWords('verdict', words)})`;
const counts = (...columns: readonly string[]) =>
  `create index timer_status_counts on timer_status (${columns.join(', ')})`;

/** Lists tell of timers whose stations take more than the supply gives, and count breaches whatever else is wrong. */
export class OverSupply1819000000000 implements MigrationInterface {
  name = 'OverSupply1819000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(
      'alter table timer_status add column over_supply boolean not null default false',
    );
    await db.query(constraint([...BEFORE, 'supply']));
    await db.query('drop index timer_status_counts');
    await db.query(
      counts(
        ...['company_id', 'listed', 'verdict', 'breaches', 'over_supply', 'coming_day'],
        ...['next_day', 'under_way', 'time_zone'],
      ),
    );
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`update timer_status set verdict = null, stale = true where verdict = 'supply'`);
    await db.query('drop index timer_status_counts');
    await db.query(
      counts(
        ...['company_id', 'listed', 'verdict', 'coming_day', 'next_day', 'under_way', 'time_zone'],
      ),
    );
    await db.query(constraint(BEFORE));
    await db.query('alter table timer_status drop column over_supply');
  }
}
