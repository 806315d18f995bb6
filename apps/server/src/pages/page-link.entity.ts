import { LANGUAGES, type Language } from '@water-clock/core';
import {
  Check,
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import { Person } from '../identity/person.entity.ts';
import { Timer } from '../sites/timer.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';

/** A private link to a timer's homeowner's page, valid until it expires or is revoked. */
@Entity('page_links')
@Check('page_links_language_words', oneOfWords('language', LANGUAGES))
@Index('page_links_of_person', ['companyId', 'personId'])
@Index('page_links_timer', ['companyId', 'timerId'])
export class PageLink extends CompanyRow {
  @Column('uuid', { name: 'timer_id' })
  timerId: string;

  @ManyToOne(() => Timer)
  @JoinColumn(inCompany('timer_id', 'page_links_of_timer'))
  timer: Relation<Timer>;

  /** Author. */
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'page_links_person'))
  person: Relation<Person>;

  /** SHA-256 of the token, so that a leaked database opens no page. */
  @Index('page_links_token', { unique: true })
  @Column('text', { name: 'token_hash' })
  tokenHash: string;

  /** Language of the page; null: the site's. */
  @Column('text', { nullable: true })
  language: Language | null;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  @Column('timestamptz', { name: 'withdrawn_at', nullable: true })
  withdrawnAt: Date | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
