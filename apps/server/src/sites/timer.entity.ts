import { Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { EMPTY_SURVEY, type Plan, type Survey } from '@water-clock/core';
import { Site } from './site.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';

/** One timer at a site, with all that is set on it. */
@Entity('timers')
@Index('timers_site', ['companyId', 'siteId'])
export class Timer extends CompanyRow {
  @Column('uuid', { name: 'site_id' })
  siteId: string;

  @ManyToOne(() => Site)
  @JoinColumn(inCompany('site_id', 'timers_of_site'))
  site: Relation<Site>;

  /** What it is called at its house, such as `Garage`; empty: by its kind. */
  @Column('text', { default: '' })
  name: string;

  /** Counts the changes of name, place and whether it is put away. */
  @Column('integer', { name: 'place_version', default: 1 })
  placeVersion: number;

  /** Put away: no list shows it unless it is asked for. */
  @Column('timestamptz', { name: 'archived_at', nullable: true })
  archivedAt: Date | null;

  /** Counts the changes; a write names the one that it was based on. */
  @Column('integer')
  version: number;

  /** A sound plan document without its `site`, which has a row of its own. */
  @Column('jsonb')
  plan: Plan;

  /** What was found out about it, beside what is set on it. */
  @Column('jsonb', { default: EMPTY_SURVEY })
  survey: Survey;
}

/** What a timer is called: as at its house, else by its kind. */
export const nameOf = ({ name, plan }: Pick<Timer, 'name' | 'plan'>): string =>
  name || plan.timer.name;
