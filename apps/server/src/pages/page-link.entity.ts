import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  type Relation,
} from 'typeorm';
import { Person } from '../people/person.entity.ts';
import { Timer } from '../timers/timer.entity.ts';
import { inCompany } from '../platform/in-company.ts';

/** A private link to the homeowner's page of one timer: good until it expires or is withdrawn. */
@Entity('page_links')
@Index('page_links_timer', ['companyId', 'timerId'])
export class PageLink {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  /** Made by the client. */
  @PrimaryColumn('uuid')
  id: string;

  @Column('uuid', { name: 'timer_id' })
  timerId: string;

  @ManyToOne(() => Timer)
  @JoinColumn(inCompany('timer_id', 'page_links_of_timer'))
  timer: Relation<Timer>;

  /** Who made it. */
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'page_links_person'))
  person: Relation<Person>;

  /** SHA-256 of the token: what is in the database opens no page. */
  @Index('page_links_token', { unique: true })
  @Column('text', { name: 'token_hash' })
  tokenHash: string;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  @Column('timestamptz', { name: 'withdrawn_at', nullable: true })
  withdrawnAt: Date | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
