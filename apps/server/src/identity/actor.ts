import type { Role } from './person.entity.ts';
import type { Scope } from './rights.ts';

/** The signed-in person. All database access takes its company from here and nowhere else. */
export interface Actor {
  readonly companyId: string;
  readonly companyName: string;
  readonly personId: string;
  readonly personName: string;
  readonly role: Role;
  /** Whether the password was given in the last minutes; absent for a personal token. */
  readonly isConfirmed?: boolean;
  /** Of the personal token that the request used; absent for a session. */
  readonly scopes?: readonly Scope[];
}
