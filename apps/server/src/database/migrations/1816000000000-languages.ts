import type { MigrationInterface, QueryRunner } from 'typeorm';

const LANGUAGES = `('en', 'es')`;

/** The language of a site's page, and of a link if different. */
export class Languages1816000000000 implements MigrationInterface {
  name = 'Languages1816000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(
      `alter table sites add column language text constraint sites_language_words check (language in ${LANGUAGES})`,
    );
    await db.query(
      `alter table page_links add column language text constraint page_links_language_words check (language in ${LANGUAGES})`,
    );
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('alter table page_links drop column language');
    await db.query('alter table sites drop column language');
  }
}
