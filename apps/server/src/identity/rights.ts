import { SetMetadata } from '@nestjs/common';
import { ROLES, type Role } from './person.entity.ts';

/** Who may do what in a company. docs/people.md shows this table, and a test compares the two. */
export const RIGHTS = {
  see: { roles: ROLES, words: 'see every site, timer, visit and document, and save them as files' },
  own: { roles: ROLES, words: 'set their own preferences, password, second factor and sessions' },
  propose: {
    roles: ROLES,
    words:
      'suggest changes to a timer, with photos, for someone else to accept, and comment on visits',
  },
  work: {
    roles: ['owner', 'office', 'technician'],
    words:
      'change sites, timers, visits, photos and the library, plan visits, replan many timers, and make links for homeowners',
  },
  company: {
    roles: ['owner'],
    words: 'look after people, invitations, mail, the activity log, and the company’s settings',
  },
} as const satisfies Record<string, { readonly roles: readonly Role[]; readonly words: string }>;
export type Right = keyof typeof RIGHTS;

export const RIGHT = 'right';

/** The right a handler needs. By default reading needs `see` and writing needs `work`. */
export const May = (right: Right) => SetMetadata(RIGHT, right);

export const rightOf = (named: Right | undefined, method: string): Right =>
  named ?? (method === 'GET' || method === 'HEAD' ? 'see' : 'work');

export const isAllowed = (role: Role, right: Right): boolean =>
  (RIGHTS[right].roles as readonly Role[]).includes(role);
