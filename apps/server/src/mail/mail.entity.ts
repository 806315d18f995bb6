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

/** A mail that the application writes. */
@Entity('mails')
export class Mail extends CompanyRow {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'mails_company' })
  company: Relation<Company>;

  @Column('text')
  recipient: string;

  @Column('text')
  subject: string;

  /** Empty once it is sent: it may hold a link that opens something. */
  @Column('text')
  text: string;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;

  @Column('timestamptz', { name: 'sent_at', nullable: true })
  sentAt: Date | null;

  @Column('integer', { default: 0 })
  tries: number;

  /** When it is tried next; null: it is not sent, or not any more. */
  @Index('mails_waiting', { where: 'next_at is not null' })
  @Column('timestamptz', { name: 'next_at', nullable: true })
  nextAt: Date | null;
}
