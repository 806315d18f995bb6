import type { Role } from '../api/people.ts';

/** From who may do most to who may do least. */
export const ROLES: readonly (readonly [role: Role, name: string, may: string])[] = [
  ['owner', 'Owner', 'does everything, and looks after people and the firm'],
  ['office', 'Office', 'works on all sites, timers and the library'],
  ['technician', 'Technician', 'works on all sites, timers and the library'],
  ['apprentice', 'Apprentice', 'sees everything, and proposes changes of timers'],
];

export const roleName = (role: Role): string => ROLES.find(([one]) => one === role)?.[1] ?? role;
