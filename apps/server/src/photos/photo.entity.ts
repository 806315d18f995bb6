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
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { MEDIA_TYPES, type MediaType } from './photo-content.ts';

/** A photo of a station or panel. Never updated; another picture is another photo. */
@Entity('photos')
@Check('photos_media_type_words', oneOfWords('media_type', MEDIA_TYPES))
@Index('photos_of_person', ['companyId', 'personId'])
export class Photo extends CompanyRow {
  /** Detected from the content, whatever the name. */
  @Column('text', { name: 'media_type' })
  mediaType: MediaType;

  @Column('bytea')
  bytes: Buffer;

  /** SHA-256 of the uploaded file. */
  @Column('text')
  source: string;

  /** Pixels. */
  @Column('integer')
  width: number;

  @Column('integer')
  height: number;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'photos_person'))
  person: Relation<Person>;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
