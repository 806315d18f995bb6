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

/** What a personal token may be used for: reading; changing sites and timers; reading and planning visits. */
export const SCOPES = ['read', 'write', 'calendar'] as const;
export type Scope = (typeof SCOPES)[number];

/**
 * Whether a token with some scopes may use a right. Never the person's own account or the company: a stolen token must not be enough to
 * take over either.
 *
 * @param scope enough for the route besides the right's own; `none`: no token may use it
 */
export function isInScope(
  scopes: readonly Scope[],
  right: Right,
  scope: Scope | 'none' | undefined,
): boolean {
  if (right === 'own' || right === 'company' || scope === 'none') return false;
  const own = right === 'see' ? 'read' : 'write';
  return scopes.includes(own) || (scope !== undefined && scopes.includes(scope));
}

export const SCOPE = 'scope';

/** A scope that is enough for a route, besides `read` or `write`; `none`: no token may use it. */
export const Within = (scope: Scope | 'none') => SetMetadata(SCOPE, scope);

export const FRESH = 'fresh';

/** A route that an unattended browser must not reach: the password has to be fresh. Writes with the right `company` always are. */
export const Fresh = () => SetMetadata(FRESH, true);

export const RIGHT = 'right';

/** The right a handler needs. By default reading needs `see` and writing needs `work`. */
export const May = (right: Right) => SetMetadata(RIGHT, right);

export const rightOf = (named: Right | undefined, method: string): Right =>
  named ?? (method === 'GET' || method === 'HEAD' ? 'see' : 'work');

export const isAllowed = (role: Role, right: Right): boolean =>
  (RIGHTS[right].roles as readonly Role[]).includes(role);
