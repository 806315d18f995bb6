import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A signed-in browser. The cookie holds a random token; only its SHA-256 is kept here. */
@Entity('sessions')
export class Session {
  @PrimaryColumn('text', { name: 'token_hash' })
  tokenHash: string;

  @Column('uuid', { name: 'company_id' })
  companyId: string;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;
}
