import type { Role } from '../../data/api/people.ts';
import { say } from '@water-clock/core';

/** From most rights to fewest. */
export const ROLES: readonly (readonly [role: Role, name: string, may: string])[] = [
  ['owner', say`Owner`, say`can do everything, including managing people and the company`],
  ['office', say`Office`, say`works on all sites, timers and the library`],
  ['technician', say`Technician`, say`works on all sites, timers and the library`],
  ['apprentice', say`Apprentice`, say`can view everything and suggest changes`],
];

export const roleName = (role: Role): string => ROLES.find(([one]) => one === role)?.[1] ?? role;
