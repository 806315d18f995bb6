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
import type { RecordChange } from '@water-clock/core';
import { Person } from '../people/person.entity.ts';
import { inCompany } from '../platform/in-company.ts';

export const SUBJECTS = ['site', 'timer', 'library'] as const;
export type Subject = (typeof SUBJECTS)[number];

/** Whether a change was made, or took back one that was made, or made that one again. */
export const WAYS = ['do', 'undo', 'redo'] as const;
export type Way = (typeof WAYS)[number];

/** A change that was saved: the record of who did what, and what makes a repeated write harmless. Never altered. */
@Entity('changes')
@Index('changes_of_subject', ['companyId', 'subject', 'subjectId', 'version'], { unique: true })
export class Change {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  /** Made by the client. */
  @PrimaryColumn('uuid')
  id: string;

  @Column('text')
  subject: Subject;

  @Column('uuid', { name: 'subject_id' })
  subjectId: string;

  /** Of the subject, after the change. */
  @Column('integer')
  version: number;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'changes_person'))
  person: Relation<Person>;

  @Column('text')
  way: Way;

  /** SHA-256 of the request, to tell a repeated write from another one under the same id. */
  @Column('text')
  fingerprint: string;

  /** Null for a change of another kind than a timer's. */
  @Column('jsonb', { nullable: true })
  change: RecordChange | null;

  /** What takes it back. */
  @Column('jsonb', { nullable: true })
  inverse: RecordChange | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
