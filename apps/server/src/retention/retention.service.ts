import { Injectable } from '@nestjs/common';
import type { DataSource } from 'typeorm';
import { atNight } from '../database/database.ts';
import { LEAVER_DAYS } from '../auth/session.service.ts';
import { Settings } from '../platform/settings.ts';

/** Days an unused row is kept: as long as a device may be offline and still refer to it. */
const KEPT_DAYS = 30;
const AUDIT_DAYS = 730;

/** Number of rows deleted, by kind. */
export type Cleared = Readonly<Record<keyof typeof STEPS, number>>;

/** Ids of photos mentioned anywhere in a JSON column, for company `c`. */
const photosOf = (table: string, column: string) =>
  `select jsonb_path_query(${column}, 'lax $.**.photos[*] ? (@.type() == "string")') #>> '{}' as id from ${table} where company_id = c.id and ${column} is not null`;

/** What each step deletes. $1: hours after which an unused session has ended. */
const STEPS = {
  sessions: `delete from sessions s
    where (expires_at < now() or seen_at < now() - make_interval(hours => $1))
      and not exists (select from people p where p.company_id = s.company_id and p.id = s.person_id
        and p.taken_out_at > now() - interval '${LEAVER_DAYS} days')`,
  tries: `delete from tries where expire < extract(epoch from now()) * 1000`,
  links: `delete from page_links
    where least(withdrawn_at, expires_at) < now() - interval '${KEPT_DAYS} days'`,
  personLinks: `delete from person_links
    where least(used_at, withdrawn_at, expires_at) < now() - interval '${KEPT_DAYS} days'`,
  tokens: `delete from api_tokens where expires_at < now() - interval '${KEPT_DAYS} days'`,
  mails: `delete from mails where at < now() - interval '${KEPT_DAYS} days'`,
  audit: `delete from audit where at < now() - interval '${AUDIT_DAYS} days'`,
  /** Undo may bring back a photo, so photos in stored changes are kept. */
  photos: `delete from photos p using (
      select c.id as company_id, array(
        ${[
          photosOf('timers', 'survey'),
          photosOf('visits', 'document'),
          photosOf('changes', 'change'),
          photosOf('changes', 'inverse'),
          photosOf('proposals', 'changes'),
        ].join(' union ')}
      ) as named from companies c) used
    where p.company_id = used.company_id and p.at < now() - interval '${KEPT_DAYS} days'
      and not p.id::text = any(used.named)`,
  /** Deleted with its changes, since its version restarts if the id is used again. */
  library: `with gone as (
      delete from library l
      where document is null
        and not exists (select from sites s where s.company_id = l.company_id
          and l.id in (s.rules_id, s.minutes_id, s.climate_id))
        and not exists (select from changes c where c.company_id = l.company_id
          and c.subject = 'library' and c.subject_id = l.id and c.at > now() - interval '${KEPT_DAYS} days')
      returning company_id, id),
    record as (
      delete from changes c using gone
      where c.company_id = gone.company_id and c.subject = 'library' and c.subject_id = gone.id)
    select company_id from gone`,
  /** Only if an owner chose so. The last change of everything stays, because it says who made it. */
  changes: `delete from changes c using companies f
    where f.id = c.company_id and c.at < now() - make_interval(days => f.keep_changes_days)
      and exists (select from changes later where later.company_id = c.company_id
        and later.subject = c.subject and later.subject_id = c.subject_id and later.version > c.version)`,
} as const;

/** Number of affected rows: for a deletion the driver returns rows and count, for a select only rows. */
async function taken(database: DataSource, sql: string, values: unknown[]): Promise<number> {
  const answer: unknown[] = await database.query(sql, values);
  const [, count] = answer;
  return typeof count === 'number' ? count : answer.length;
}

/** Deletes what no one can use any more. */
@Injectable()
export class RetentionService {
  constructor(private readonly settings: Settings) {}

  async clear(): Promise<Cleared> {
    const counts: [string, number][] = [];
    await atNight(this.settings, async (database) => {
      for (const [name, sql] of Object.entries(STEPS)) {
        const values = sql.includes('$1') ? [this.settings.idleHours] : [];
        counts.push([name, await taken(database, sql, values)]);
      }
    });
    // Safe cast: the entries are those of the steps.
    return Object.fromEntries(counts) as Cleared;
  }
}
