import type { Role } from './person.entity.ts';

/** Who is signed in. Everything that touches the database takes its company from here and from nowhere else. */
export interface Actor {
  readonly companyId: string;
  readonly companyName: string;
  readonly personId: string;
  readonly personName: string;
  readonly role: Role;
}
