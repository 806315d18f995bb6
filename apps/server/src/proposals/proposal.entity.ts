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
import type { RecordChange } from '@water-clock/core';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Timer } from '../sites/timer.entity.ts';

const PROPOSAL_STATES = ['draft', 'sent', 'withdrawn', 'accepted', 'refused'] as const;
export type ProposalState = (typeof PROPOSAL_STATES)[number];

/** An apprentice's suggested changes to a timer. */
@Entity('proposals')
@Check('proposals_state_words', oneOfWords('state', PROPOSAL_STATES))
@Index('proposals_by_timer', ['companyId', 'timerId'])
@Index('proposals_of_answerer', ['companyId', 'answeredBy'])
@Index('proposals_open', ['companyId', 'personId', 'timerId'], {
  unique: true,
  where: `state in ('draft', 'sent')`,
})
export class Proposal extends CompanyRow {
  @Column('uuid', { name: 'timer_id' })
  timerId: string;

  @ManyToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('timer_id', 'proposals_of_timer'))
  timer: Relation<Timer>;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'proposals_person'))
  person: Relation<Person>;

  @Column('text')
  state: ProposalState;

  /** Version; 1 is a new suggestion. */
  @Column('integer')
  version: number;

  /** In order, on top of the current settings. Only ever appended to. */
  @Column('jsonb', { default: [] })
  changes: RecordChange[];

  /** Note of the author. */
  @Column('text', { default: '' })
  note: string;

  /** Answer of whoever decided. */
  @Column('text', { default: '' })
  answer: string;

  @Column('uuid', { name: 'answered_by', nullable: true })
  answeredBy: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('answered_by', 'proposals_answerer'))
  answerer: Relation<Person> | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;

  @Column('timestamptz', { name: 'moved_at', default: () => 'now()' })
  movedAt: Date;
}
