import type { MigrationInterface, QueryRunner } from 'typeorm';

const oneOf = (column: string, words: readonly string[]) =>
  `check (${column} in (${words.map((word) => `'${word}'`).join(', ')}))`;

const SUBJECTS = ['site', 'timer', 'library', 'person', 'company'];
const AUDITED = [
  'sign-in',
  'sign-in-failed',
  'sign-out',
  'link-made',
  'link-opened',
  'link-withdrawn',
  'export',
  'deletion',
  'setting',
];
const NEW_AUDITED = [
  'founded',
  'invited',
  'invitation-withdrawn',
  'joined',
  'role-changed',
  'taken-out',
  'password-changed',
  'password-forgotten',
  'second-factor-on',
  'second-factor-off',
  'sessions-ended',
];

/** Constraints on the words of two columns. */
export const wordsOf = (subjects: readonly string[], audited: readonly string[]) => [
  `alter table changes drop constraint changes_subject_words,
    add constraint changes_subject_words ${oneOf('subject', subjects)}`,
  `alter table audit drop constraint audit_what_words,
    add constraint audit_what_words ${oneOf('what', audited)}`,
];

export const SUBJECTS_OF_TEAM = [...SUBJECTS, 'member', 'invitation', 'proposal'];
export const AUDITED_OF_TEAM = [...AUDITED, ...NEW_AUDITED];

/** Invitations, password links, the second factor, mail, and a list of sessions. */
export class Team1804000000000 implements MigrationInterface {
  name = 'Team1804000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query(`alter table people add column member_version integer not null default 1,
      add column taken_out_at timestamptz, add column second_factor text, add column second_factor_step integer`);
    await db.query('drop index people_email');
    await db.query('create unique index people_email on people (email) where taken_out_at is null');
    await db.query(`alter table sessions add column id uuid not null default gen_random_uuid(),
      add column at timestamptz not null default now(), add column device text not null default '',
      add column address text`);
    await db.query(`create table person_links (
      company_id uuid not null, id uuid not null, purpose text not null, token_hash text not null,
      name text not null, email text not null, role text, person_id uuid, made_by uuid,
      expires_at timestamptz not null, used_at timestamptz, withdrawn_at timestamptz,
      at timestamptz not null default now(),
      constraint person_links_pk primary key (company_id, id),
      constraint person_links_company foreign key (company_id) references companies (id),
      constraint person_links_person foreign key (company_id, person_id) references people (company_id, id),
      constraint person_links_maker foreign key (company_id, made_by) references people (company_id, id),
      constraint person_links_purpose_words ${oneOf('purpose', ['invitation', 'password'])},
      constraint person_links_role_words ${oneOf('role', ['owner', 'office', 'technician', 'apprentice'])})`);
    await db.query('create unique index person_links_token on person_links (token_hash)');
    await db.query('create index person_links_of_person on person_links (company_id, person_id)');
    await db.query('create index person_links_of_maker on person_links (company_id, made_by)');
    await db.query(`create table mails (
      company_id uuid not null, id uuid not null, recipient text not null, subject text not null,
      text text not null, at timestamptz not null default now(), sent_at timestamptz,
      tries integer not null default 0, next_at timestamptz,
      constraint mails_pk primary key (company_id, id),
      constraint mails_company foreign key (company_id) references companies (id))`);
    await db.query('create index mails_waiting on mails (next_at) where next_at is not null');
    await db.query(`create table proposals (
      company_id uuid not null, id uuid not null, timer_id uuid not null, person_id uuid not null,
      state text not null, version integer not null, changes jsonb not null default '[]',
      note text not null default '', answer text not null default '', answered_by uuid,
      at timestamptz not null default now(), moved_at timestamptz not null default now(),
      constraint proposals_pk primary key (company_id, id),
      constraint proposals_of_timer foreign key (company_id, timer_id) references timers (company_id, id) on delete cascade,
      constraint proposals_person foreign key (company_id, person_id) references people (company_id, id),
      constraint proposals_answerer foreign key (company_id, answered_by) references people (company_id, id),
      constraint proposals_state_words ${oneOf('state', ['draft', 'sent', 'withdrawn', 'accepted', 'refused'])})`);
    await db.query('create index proposals_by_timer on proposals (company_id, timer_id)');
    await db.query('create index proposals_of_answerer on proposals (company_id, answered_by)');
    await db.query(`create unique index proposals_open on proposals (company_id, person_id, timer_id)
      where state in ('draft', 'sent')`);
    for (const sql of wordsOf(SUBJECTS_OF_TEAM, AUDITED_OF_TEAM)) await db.query(sql);
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query(`delete from changes where subject in ('member', 'invitation', 'proposal')`);
    await db.query('delete from audit where not (what = any($1))', [AUDITED]);
    for (const sql of wordsOf(SUBJECTS, AUDITED)) await db.query(sql);
    await db.query('drop table proposals');
    await db.query('drop table mails');
    await db.query('drop table person_links');
    await db.query(
      'alter table sessions drop column id, drop column at, drop column device, drop column address',
    );
    await db.query('drop index people_email');
    // Addresses must be unique among members, so removed people keep theirs in another form.
    await db.query(
      `update people set email = id || ' ' || email, password_hash = '' where taken_out_at is not null`,
    );
    await db.query('create unique index people_email on people (email)');
    await db.query(`alter table people drop column member_version, drop column taken_out_at,
      drop column second_factor, drop column second_factor_step`);
  }
}
