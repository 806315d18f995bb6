/** What is noted of a house beside its place. */

/** Where its water comes from; local rules may differ by it. */
export const SUPPLIES = ['mains', 'bore', 'pump', 'tank'] as const;
export type Supply = (typeof SUPPLIES)[number];
