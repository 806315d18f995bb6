/** Nights of a fortnight, tonight first. */
export const NIGHTS = 14;

/** How far the strip looks. */
export const DISTANCES = ['night', 'fortnight', 'year'] as const;
export type Distance = (typeof DISTANCES)[number];
