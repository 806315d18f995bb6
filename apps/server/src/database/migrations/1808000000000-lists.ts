import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A list row for each timer with what is cheap to know. `mark` counts changes, so that the rest is recalculated. */
const OF_TIMER = `
  insert into standings (company_id, id, site_id, site_key, street_key, time_zone, person_id, rules_id, listed,
    name, stations, programs, under_way)
  select t.company_id, t.id, s.id, lower(s.name),
    concat_ws(' ', lower(s.locality), lower(s.street), lpad(s.house_number, 12)), s.time_zone, s.person_id, s.rules_id,
    s.archived_at is null and t.archived_at is null,
    coalesce(nullif(t.name, ''), t.plan -> 'timer' ->> 'name', ''), jsonb_array_length(t.plan -> 'stations'),
    jsonb_array_length(t.plan -> 'programs'), t.survey ? 'visit'
  from timers t join sites s on s.company_id = t.company_id and s.id = t.site_id`;

/** Lists of thousands of timers are searched, filtered, sorted and paged in the database. Sites get a person who looks after them. */
export class Lists1808000000000 implements MigrationInterface {
  name = 'Lists1808000000000';

  async up(db: QueryRunner): Promise<void> {
    await db.query('create extension if not exists pg_trgm');
    await db.query('alter table sites add column person_id uuid');
    await db.query(`alter table sites add constraint sites_person
      foreign key (company_id, person_id) references people (company_id, id)`);
    await db.query('create index sites_by_person on sites (company_id, person_id)');
    await db.query('drop table standings');
    await db.query(`create table standings (
      company_id uuid not null, id uuid not null,
      site_id uuid not null, site_key text not null, street_key text not null, time_zone text not null,
      person_id uuid, rules_id uuid, listed boolean not null, name text not null,
      stations smallint not null, programs smallint not null, under_way boolean not null,
      mark integer not null default 1, stale boolean not null default true, claimed_until timestamptz,
      engine text not null default '', from_day integer not null default 0, until_day integer not null default -1,
      standing jsonb, search text not null default '', town text not null default '',
      verdict text, breaches smallint not null default 0, headroom integer, trouble_day integer,
      coming_day integer, next_day integer, battery_day integer, last_visit integer,
      constraint standings_pk primary key (company_id, id),
      constraint standings_verdict_words
        check (verdict in ('overlap', 'breach', 'incomplete', 'empty', 'clear')),
      constraint standings_of_timer foreign key (company_id, id)
        references timers (company_id, id) on delete cascade)
      with (autovacuum_vacuum_scale_factor = 0.05, autovacuum_analyze_scale_factor = 0.05)`);
    for (const index of [
      'standings_search on standings using gin (search gin_trgm_ops)',
      'standings_stale on standings (company_id, id) where stale and listed',
      'standings_until on standings (company_id, time_zone, until_day) where listed',
      'standings_by_name on standings (company_id, site_key, id) where listed',
      'standings_of_site on standings (company_id, site_id)',
      'standings_of_rules on standings (company_id, rules_id)',
      'standings_counts on standings (company_id, listed, verdict, coming_day, next_day, under_way, time_zone)',
    ])
      await db.query(`create index ${index}`);
    await db.query(`create function keep_line_of_timer() returns trigger language plpgsql as $$ begin
      ${OF_TIMER} where t.company_id = new.company_id and t.id = new.id
      on conflict (company_id, id) do update set site_id = excluded.site_id, site_key = excluded.site_key,
        street_key = excluded.street_key, time_zone = excluded.time_zone, person_id = excluded.person_id,
        rules_id = excluded.rules_id, listed = excluded.listed, name = excluded.name, stations = excluded.stations,
        programs = excluded.programs, under_way = excluded.under_way, mark = standings.mark + 1, stale = true, claimed_until = null;
      return null; end $$`);
    await db.query(`create trigger timers_line after insert or update on timers
      for each row execute function keep_line_of_timer()`);
    await db.query(`create function keep_lines_of_site() returns trigger language plpgsql as $$
      declare little constant text[] := array['version', 'person_id', 'archived_at'];
      begin
      update standings st set site_key = lower(new.name), person_id = new.person_id, rules_id = new.rules_id,
        street_key = concat_ws(' ', lower(new.locality), lower(new.street), lpad(new.house_number, 12)),
        time_zone = new.time_zone, listed = new.archived_at is null and t.archived_at is null, claimed_until = null,
        mark = mark + 1, stale = st.stale or to_jsonb(new) - little <> to_jsonb(old) - little
      from timers t where st.company_id = new.company_id and st.site_id = new.id
        and t.company_id = st.company_id and t.id = st.id;
      return null; end $$`);
    await db.query(`create trigger sites_lines after update on sites
      for each row execute function keep_lines_of_site()`);
    // In the same order as other code locks them.
    await db.query(`create function mark_lines_of_rules() returns trigger language plpgsql as $$ begin
      if new.shelf = 'rules' then
        perform from standings where company_id = new.company_id and rules_id = new.id order by id for update;
        update standings set mark = mark + 1, stale = true, claimed_until = null
        where company_id = new.company_id and rules_id = new.id;
      end if;
      return null; end $$`);
    await db.query(`create trigger library_lines after update on library
      for each row execute function mark_lines_of_rules()`);
    await db.query(OF_TIMER);
    await db.query(`create table due_visits (
      company_id uuid not null, id uuid not null, timer_id uuid not null,
      day integer not null, reason jsonb not null,
      constraint due_visits_pk primary key (company_id, id),
      constraint due_visits_of_timer foreign key (company_id, timer_id)
        references timers (company_id, id) on delete cascade)`);
    await db.query('create index due_visits_timer on due_visits (company_id, timer_id)');
    await db.query('create index due_visits_day on due_visits (company_id, day)');
  }

  async down(db: QueryRunner): Promise<void> {
    await db.query('drop trigger timers_line on timers');
    await db.query('drop trigger sites_lines on sites');
    await db.query('drop trigger library_lines on library');
    for (const name of ['keep_line_of_timer', 'keep_lines_of_site', 'mark_lines_of_rules'])
      await db.query(`drop function ${name}`);
    await db.query('alter table sites drop column person_id');
    await db.query('drop table due_visits');
    await db.query('drop table standings');
    await db.query(`create table standings (
      company_id uuid not null, id uuid not null, basis text not null, standing jsonb not null,
      from_day integer not null default 0,
      constraint standings_pk primary key (company_id, id),
      constraint standings_of_timer foreign key (company_id, id)
        references timers (company_id, id) on delete cascade)`);
    await db.query('drop extension pg_trgm');
  }
}
