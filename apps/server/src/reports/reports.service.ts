import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { Actor } from '../identity/actor.ts';
import { FactsService } from './facts.service.ts';

/** Totals of visits. Watering hours and litres are yearly, as found minus as left; negative means an increase. */
interface ReportRow {
  readonly visits: number;
  readonly minutes: number;
  /** Visits that found overlaps, and those that left none. */
  readonly overlapsFound: number;
  readonly overlapsCured: number;
  readonly hoursSaved: number;
  /** Only if the flow of all stations is known. */
  readonly litresSaved: number;
  /** Someone had to come back within 30 days. */
  readonly repeatCalls: number;
}

export interface Report {
  readonly months: readonly (ReportRow & { readonly month: string })[];
  readonly people: readonly (ReportRow & { readonly person: string })[];
  /** Sites that save the most. */
  readonly houses: readonly (ReportRow & { readonly siteId: string; readonly site: string })[];
  /** Visits not evaluated yet. */
  readonly waiting: number;
}

const MOST_HOUSES = 50;
const REPEAT_DAYS = 30;

/** $1: company, $2 and $3: dates, inclusive. */
const VISITS = `select v.*, t.site_id, f.id as facts, f.found_hours, f.left_hours, f.found_litres, f.left_litres,
    f.found_overlaps, f.left_overlaps, (v.document ->> 'closed')::timestamp as closed,
    v.began - lag(v.began) over (partition by v.timer_id order by v.began) < interval '${REPEAT_DAYS} days' as repeats
  from visits v join timers t on t.company_id = v.company_id and t.id = v.timer_id
  left join visit_facts f on f.company_id = v.company_id and f.id = v.id
  where v.company_id = $1 and v.began < ($3::date + 1) and v.began >= ($2::date - ${REPEAT_DAYS})`;

const SUMS = `count(*)::int as visits,
  coalesce(sum(greatest(0, extract(epoch from closed - began) / 60)), 0)::float as minutes,
  count(*) filter (where found_overlaps > 0)::int as "overlapsFound",
  count(*) filter (where found_overlaps > 0 and left_overlaps = 0)::int as "overlapsCured",
  coalesce(sum(found_hours - left_hours), 0)::float as "hoursSaved",
  coalesce(sum(found_litres - left_litres), 0)::float as "litresSaved",
  count(*) filter (where repeats)::int as "repeatCalls"`;

/** Reports on the visits of a period. */
@Injectable()
export class ReportsService {
  constructor(
    private readonly database: DataSource,
    private readonly facts: FactsService,
  ) {}

  async of({ companyId }: Actor, from: string, to: string): Promise<Report> {
    const ask = <Row>(columns: string, rest: string) =>
      this.database.query<Row[]>(`with made as (${VISITS}) select ${columns} from made ${rest}`, [
        companyId,
        from,
        to,
      ]);
    const within = 'made.began >= $2::date';
    const [months, people, houses, waiting] = await Promise.all([
      ask<ReportRow & { month: string }>(
        `to_char(began, 'YYYY-MM') as month, ${SUMS}`,
        `where ${within} group by 1 order by 1`,
      ),
      ask<ReportRow & { person: string }>(
        `p.name as person, ${SUMS}`,
        `join people p on p.company_id = made.company_id and p.id = made.person_id
         where ${within} group by p.id, p.name order by visits desc, person`,
      ),
      ask<ReportRow & { siteId: string; site: string }>(
        `s.id as "siteId", s.name as site, ${SUMS}`,
        `join sites s on s.company_id = made.company_id and s.id = made.site_id
         where ${within} group by s.id, s.name order by "hoursSaved" desc, site limit ${MOST_HOUSES}`,
      ),
      ask<{ count: number }>('count(*)::int as count', `where ${within} and facts is null`),
    ]);
    const left = waiting[0]?.count ?? 0;
    if (left > 0) void this.facts.soon(companyId);
    return { months, people, houses, waiting: left };
  }
}
