import { Injectable } from '@nestjs/common';
import {
  formatDate,
  timerStatusWords,
  weekOf,
  type EpochDay,
  type Speech,
  type TimerStatusWords,
  type TimerStatus,
  type WeekDay,
  say,
} from '@water-clock/core';
import Papa from 'papaparse';
import { DataSource } from 'typeorm';
import { tickOf } from '../changes/ticks.ts';
import type { Actor } from '../identity/actor.ts';
import { AuditService } from '../audit/audit.service.ts';
import { literally } from '../platform/search.ts';
import type { SiteView } from '../sites/sites.service.ts';
import { todayIn } from '../sites/today.ts';
import { FILTER_WORDS, FILTERS, orderOf, type Filter } from './filters.ts';
import { folded } from './kept.ts';
import type { LinesQuery, WhichTimers } from './lines-query.ts';
import { RechecksService } from './rechecks.service.ts';
import { zonesOf, type Zones } from './zones.ts';

/** A row of the list: a timer and its site. Dates are `YYYY-MM-DD`; null: none, or not known. */
interface TimerLine {
  readonly id: string;
  readonly name: string;
  readonly site: Pick<SiteView, 'id' | 'version' | 'name' | 'houseNumber' | 'street'>;
  readonly town: string;
  /** Whether the site has other timers. */
  readonly ofSeveral: boolean;
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly stations: number;
  readonly programs: number;
  /** Null: not calculated yet. */
  readonly verdict: TimerStatusWords['verdict'] | null;
  readonly headline: string;
  readonly breaches: number;
  readonly headroomPercent: number | null;
  /** First date with trouble. */
  readonly trouble: string | null;
  readonly battery: string | null;
  readonly lastVisit: string | null;
  readonly nextVisit: string | null;
  /** A visit is open. */
  readonly underWay: boolean;
  readonly week: readonly WeekDay[];
  /** Whether everything is current; otherwise as of the last calculation. */
  readonly checked: boolean;
}

type Counts = Readonly<Record<Filter, number>>;

export interface TimerLines {
  /** Count under the chosen filter. */
  readonly total: number;
  /** Count for each filter, within the search. */
  readonly counts: Counts;
  /** Timers of the company being recalculated. */
  readonly checking: number;
  readonly lines: readonly TimerLine[];
}

/** Most timers recalculated while someone waits for the list. */
const FEW = 16;
const PATIENCE_MS = 1_000;
const PAGE = 20;
/** Queries whose counts are cached. */
const MOST_COUNTED = 500;
/** A larger spreadsheet is of no use. */
const MOST_LINES = 20_000;

const dateOf = (day: EpochDay | null) => (day === null ? null : formatDate(day));

/** $1: company, $2 and $3: time zones and their dates. */
const LINES = `timer_status st
  left join unnest($2::text[], $3::int[]) as z (zone, today) on z.zone = st.time_zone`;

interface Asked {
  readonly from: string;
  readonly values: readonly unknown[];
}

/** Row of the database. */
interface LineRow {
  readonly id: string;
  readonly name: string;
  readonly site_id: string;
  readonly site_version: number;
  readonly site_name: string;
  readonly house_number: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly several: boolean;
  readonly person_id: string | null;
  readonly person_name: string | null;
  readonly stations: number;
  readonly programs: number;
  readonly status: TimerStatus | null;
  readonly breaches: number;
  readonly headroom: number | null;
  readonly trouble_day: EpochDay | null;
  readonly battery_day: EpochDay | null;
  readonly last_visit: EpochDay | null;
  readonly next_day: EpochDay | null;
  readonly under_way: boolean;
  readonly today: EpochDay;
  readonly checked: boolean;
}

const lineOf = (row: LineRow, style: Pick<Speech, 'clock' | 'order'>): TimerLine => {
  const { status, today } = row;
  const said = status ? timerStatusWords(status, { on: today, ...style }) : null;
  return {
    id: row.id,
    name: row.name,
    site: {
      id: row.site_id,
      version: row.site_version,
      name: row.site_name,
      houseNumber: row.house_number,
      street: row.street,
    },
    town: row.town,
    ofSeveral: row.several,
    person:
      row.person_id === null ? null : { id: row.person_id, name: row.person_name ?? 'somebody' },
    stations: row.stations,
    programs: row.programs,
    verdict: said?.verdict ?? null,
    headline: said?.headline ?? say`It is being calculated.`,
    breaches: row.breaches,
    headroomPercent: row.headroom,
    trouble: dateOf(row.trouble_day),
    battery: dateOf(row.battery_day),
    lastVisit: dateOf(row.last_visit),
    nextVisit: dateOf(row.next_day),
    underWay: row.under_way,
    week: status ? weekOf(status, today) : [],
    checked: row.checked,
  };
};

/** The list of a company's timers, searched, filtered, sorted and paged in the database. */
@Injectable()
export class LinesService {
  private readonly counted = new Map<string, { readonly tick: number; readonly counts: Counts }>();

  constructor(
    private readonly database: DataSource,
    private readonly rechecks: RechecksService,
    private readonly audit: AuditService,
  ) {}

  async list({ companyId }: Actor, query: LinesQuery): Promise<TimerLines> {
    const now = new Date();
    const zones = await zonesOf(this.database, companyId, now);
    const first = await this.page(companyId, query, zones, now);
    if (!zones.isStale) return { ...first, checking: 0 };
    // Waits a moment for out-of-date timers on this page. For others the list says how many there are.
    const isSeen = first.lines.some(({ checked }) => !checked);
    if (isSeen && (await this.stale(companyId, zones)) <= FEW) {
      await this.rechecks.within(companyId, PATIENCE_MS);
      const second = await this.page(companyId, query, zones, now);
      return { ...second, checking: await this.stale(companyId, zones) };
    }
    void this.rechecks.soon(companyId);
    return { ...first, checking: await this.stale(companyId, zones) };
  }

  private async page(
    companyId: string,
    query: LinesQuery,
    zones: Zones,
    now: Date,
  ): Promise<Omit<TimerLines, 'checking'>> {
    const { size = PAGE, page = 1, show = 'all', sort = 'site', clock = '24', order } = query;
    const { from, values } = this.asked(companyId, query, zones);
    const [counts, found] = await Promise.all([
      this.counts(companyId, { from, values }),
      this.database.query<LineRow[]>(
        `select st.id, st.name, st.site_id, s.version as site_version, s.name as site_name, s.house_number, s.street,
           st.town, p.id as person_id, p.name as person_name, st.stations, st.programs, st.status, st.breaches, st.headroom,
           st.trouble_day, st.battery_day, st.last_visit, st.next_day, st.under_way, st.today,
           not st.stale and st.engine = $${values.length + 1} and st.today between st.from_day and st.until_day as checked,
           exists (select from timer_status o where o.company_id = st.company_id and o.site_id = st.site_id
             and o.id <> st.id and o.listed) as several
         from (select st.*, coalesce(z.today, $${values.length + 2}) as today
           from ${from} and ${FILTERS[show]} order by ${orderOf(sort)}
           limit $${values.length + 3} offset $${values.length + 4}) st
         join sites s on s.company_id = st.company_id and s.id = st.site_id
         left join people p on p.company_id = st.company_id and p.id = st.person_id
         order by ${orderOf(sort)}`,
        [...values, this.rechecks.engine, todayIn('UTC', now), size, (page - 1) * size],
      ),
    ]);
    const style = { clock, ...(order ? { order } : {}) };
    const lines = found.map((row) => lineOf(row, style));
    return { total: counts[show], counts, lines };
  }

  /** Sites of all matching timers, each once, with the version for a write. */
  async sites(
    { companyId }: Actor,
    query: WhichTimers,
  ): Promise<{ readonly id: string; readonly version: number }[]> {
    const zones = await zonesOf(this.database, companyId, new Date());
    const { from, values } = this.asked(companyId, query, zones);
    return this.database.query(
      `select s.id, s.version from sites s where s.company_id = $1
         and s.id in (select st.site_id from ${from} and ${FILTERS[query.show ?? 'all']}) order by s.id`,
      [...values],
    );
  }

  /** The whole list as a table with the columns of the customer import. */
  async table({ companyId, personId }: Actor, query: LinesQuery): Promise<string> {
    await this.audit.note({ companyId, personId, what: 'export', subjectId: companyId });
    const zones = await zonesOf(this.database, companyId, new Date());
    const { from, values } = this.asked(companyId, query, zones);
    const day = (column: string) => `to_char(date '1970-01-01' + st.${column}, 'YYYY-MM-DD')`;
    const rows: Record<string, unknown>[] = await this.database.query(
      `select s.name, s.house_number as "number", s.street, st.town,
         s.people -> 0 ->> 'name' as person, s.people -> 0 ->> 'phone' as telephone,
         t.plan -> 'timer' ->> 'name' as "kind of timer", t.name as timer, st.verdict, st.stations,
         st.headroom as "highest percent", ${day('trouble_day')} as "first trouble",
         ${day('last_visit')} as "last visit", ${day('next_day')} as "next visit"
       from (select st.* from ${from} and ${FILTERS[query.show ?? 'all']}) st
       join timers t on t.company_id = st.company_id and t.id = st.id
       join sites s on s.company_id = st.company_id and s.id = st.site_id
       order by ${orderOf(query.sort ?? 'site')} limit ${MOST_LINES}`,
      [...values],
    );
    // Keeps spreadsheets from reading a cell as a formula.
    return Papa.unparse(rows, { escapeFormulae: true });
  }

  /**
   * Starts recalculating what is out of date, and waits if there is little.
   *
   * @returns the number still out of date
   */
  async settled(companyId: string, now: Date, known?: Zones): Promise<number> {
    const zones = known ?? (await zonesOf(this.database, companyId, now));
    if (!zones.isStale) return 0;
    const checking = await this.stale(companyId, zones);
    if (checking === 0 || checking > FEW) {
      void this.rechecks.soon(companyId);
      return checking;
    }
    await this.rechecks.within(companyId, PATIENCE_MS);
    return this.stale(companyId, zones);
  }

  /** Number of listed timers out of date. */
  private async stale(companyId: string, { zones, todays }: Zones): Promise<number> {
    // Two counts, each with its own index.
    const [row]: { count: number }[] = await this.database.query(
      `select (select count(*) from timer_status where company_id = $1 and stale and listed)::int
         + (select count(*) from unnest($2::text[], $3::int[]) as z (zone, today) join timer_status st
              on st.company_id = $1 and st.listed and st.time_zone = z.zone and st.until_day < z.today
            where not st.stale)::int as count`,
      [companyId, zones, todays],
    );
    return row?.count ?? 0;
  }

  /** Counted once for equal queries until something is written. */
  private async counts(companyId: string, { from, values }: Asked): Promise<Counts> {
    const key = JSON.stringify([from, values]);
    const tick = tickOf(companyId);
    const kept = this.counted.get(key);
    if (kept?.tick === tick) return kept.counts;
    const [counts]: Counts[] = await this.database.query(
      `select ${FILTER_WORDS.map((word) => `count(*) filter (where ${FILTERS[word]})::int as "${word}"`).join(', ')}
       from ${from}`,
      [...values],
    );
    if (!counts) throw new Error('a count has no row');
    if (this.counted.size >= MOST_COUNTED) this.counted.clear();
    this.counted.set(key, { tick, counts });
    return counts;
  }

  private asked(companyId: string, query: WhichTimers, { zones, todays }: Zones): Asked {
    const values: unknown[] = [companyId, zones, todays];
    const value = (one: unknown) => `$${values.push(one)}`;
    const { find = '', state, site, rules, person } = query;
    const conditions = [
      'st.company_id = $1',
      ...(site
        ? [`st.site_id = ${value(site)}::uuid`]
        : [state === 'archived' ? 'not st.listed' : 'st.listed']),
      ...(rules ? [`st.rules_id = ${value(rules)}::uuid`] : []),
      ...(person ? [`st.person_id = ${value(person)}::uuid`] : []),
      ...folded(find)
        .split(/\s+/u)
        .filter(Boolean)
        .map((word) => `st.search like ${value(`%${literally(word)}%`)}`),
    ];
    return { from: `${LINES} where ${conditions.join(' and ')}`, values };
  }
}
