import { Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { EMPTY_SURVEY, type Plan, type Survey } from '@water-clock/core';
import { Site } from './site.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';

/** A timer at a site with all its settings. */
@Entity('timers')
@Index('timers_site', ['companyId', 'siteId'])
export class Timer extends CompanyRow {
  @Column('uuid', { name: 'site_id' })
  siteId: string;

  @ManyToOne(() => Site)
  @JoinColumn(inCompany('site_id', 'timers_of_site'))
  site: Relation<Site>;

  /** Name at the site, such as `Garage`; empty if it goes by its kind. */
  @Column('text', { default: '' })
  name: string;

  /** Version of name, site and archive state. */
  @Column('integer', { name: 'place_version', default: 1 })
  placeVersion: number;

  /** Archived: listed only on request. */
  @Column('timestamptz', { name: 'archived_at', nullable: true })
  archivedAt: Date | null;

  /** Version of the record; a write names the one it is based on. */
  @Column('integer')
  version: number;

  /** A valid plan document without `site`, which has its own row. */
  @Column('jsonb')
  plan: Plan;

  /** The survey. */
  @Column('jsonb', { default: EMPTY_SURVEY })
  survey: Survey;
}

/** Name of a timer: its name at the site, otherwise its kind. */
export const nameOf = ({ name, plan }: Pick<Timer, 'name' | 'plan'>): string =>
  name || plan.timer.name;
