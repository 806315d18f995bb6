import {
  Column,
  Entity,
  Generated,
  Index,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  type Relation,
} from 'typeorm';
import { Person } from '../identity/person.entity.ts';
import { inCompany } from '../platform/in-company.ts';

/** A signed-in browser. The cookie holds a random token; only its SHA-256 is kept here. */
@Entity('sessions')
@Index('sessions_of_person', ['companyId', 'personId'])
export class Session {
  @PrimaryColumn('text', { name: 'token_hash' })
  tokenHash: string;

  /** To name it in a list; it opens nothing. */
  @Column('uuid')
  @Generated('uuid')
  id: string;

  @Column('uuid', { name: 'company_id' })
  companyId: string;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'sessions_person'))
  person: Relation<Person>;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  /** When it was last used, to within some minutes. */
  @Column('timestamptz', { name: 'seen_at', default: () => 'now()' })
  seenAt: Date;

  @Column('timestamptz', { default: () => 'now()' })
  at: Date;

  /** What the browser says of itself. */
  @Column('text', { default: '' })
  device: string;

  /** Of the network it was opened from. */
  @Column('text', { nullable: true })
  address: string | null;
}
