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

const SUBJECTS = [
  'site',
  'timer',
  'library',
  'person',
  'company',
  'member',
  'invitation',
  'timer-place',
  'proposal',
  'replan',
  'stop',
  'day-order',
] as const;
export type Subject = (typeof SUBJECTS)[number];

/** Whether a change was made, undone or redone. */
export const WAYS = ['do', 'undo', 'redo'] as const;
export type Way = (typeof WAYS)[number];

/** A saved change: the record of who did what, which also makes repeated writes harmless. Never updated. */
@Entity('changes')
@Check('changes_subject_words', oneOfWords('subject', SUBJECTS))
@Check('changes_way_words', oneOfWords('way', WAYS))
@Index('changes_by_age', ['companyId', 'at'])
@Index('changes_of_person', ['companyId', 'personId'])
@Index('changes_of_subject', ['companyId', 'subject', 'subjectId', 'version'], { unique: true })
export class Change extends CompanyRow {
  @Column('text')
  subject: Subject;

  @Column('uuid', { name: 'subject_id' })
  subjectId: string;

  /** Version of the subject after the change. */
  @Column('integer')
  version: number;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'changes_person'))
  person: Relation<Person>;

  @Column('text')
  way: Way;

  /** SHA-256 of the request, which tells a repeated write from a different one with the same id. */
  @Column('text')
  fingerprint: string;

  /** Null unless the change is to a timer. */
  @Column('jsonb', { nullable: true })
  change: RecordChange | null;

  /** Version on which the change was made, if it was rebased on later ones; null: the version before. */
  @Column('integer', { name: 'made_on', nullable: true })
  madeOn: number | null;

  /** The inverse change. */
  @Column('jsonb', { nullable: true })
  inverse: RecordChange | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
