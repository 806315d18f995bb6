/** What is noted of a house beside its place. */

/** Where its water comes from; local rules may differ by it. */
export const SUPPLIES = ['mains', 'bore', 'pump', 'tank'] as const;
export type Supply = (typeof SUPPLIES)[number];

/** Somebody at a house, and how to reach them. */
export interface Contact {
  readonly name: string;
  readonly role: string;
  readonly phone: string;
}
