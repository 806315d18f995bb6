import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import { Company } from '../identity/company.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';

/** A mail written by the application. */
@Entity('mails')
export class Mail extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'mails_company' })
  company: Relation<Company>;

  @Column('text')
  recipient: string;

  @Column('text')
  subject: string;

  /** Cleared once sent, since it may hold a link that gives access. */
  @Column('text')
  text: string;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;

  @Column('timestamptz', { name: 'sent_at', nullable: true })
  sentAt: Date | null;

  @Column('integer', { default: 0 })
  tries: number;

  /** Next attempt; null if it is not to be sent any more. */
  @Index('mails_waiting', { where: 'next_at is not null' })
  @Column('timestamptz', { name: 'next_at', nullable: true })
  nextAt: Date | null;
}
