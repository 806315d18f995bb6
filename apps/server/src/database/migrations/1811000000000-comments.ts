import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Colleagues' comments on closed visits. */
export class Comments1811000000000 implements MigrationInterface {
  name = 'Comments1811000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`create table visit_comments (
      company_id uuid not null, id uuid not null, visit_id uuid not null, person_id uuid not null, text text not null,
      at timestamptz not null default now(),
      constraint visit_comments_pk primary key (company_id, id),
      constraint visit_comments_of_visit foreign key (company_id, visit_id)
        references visits (company_id, id) on delete cascade,
      constraint visit_comments_person foreign key (company_id, person_id) references people (company_id, id))`);
    await db.query(
      'create index visit_comments_by_visit on visit_comments (company_id, visit_id, at)',
    );
    await db.query(
      'create index visit_comments_by_person on visit_comments (company_id, person_id)',
    );
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop table visit_comments');
  }
}
