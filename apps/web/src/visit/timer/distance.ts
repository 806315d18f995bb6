/** Nights of a fortnight, tonight first. */
export const NIGHTS = 14;

/** Range of the strip. */
export const DISTANCES = ['night', 'fortnight', 'year'] as const;
export type Distance = (typeof DISTANCES)[number];
