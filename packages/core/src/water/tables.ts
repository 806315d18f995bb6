/**
 * Starting values, overridden by measurements or the company's own tables (water-need.md sections 2, 6, 8 and 9). The middle of the usual
 * range.
 */

/** Plant factor, as a share of ETo (section 2; ANSI/ASABE S623). */
export const PLANT_FACTORS = {
  'cool-season-lawn': 0.8,
  'warm-season-lawn': 0.6,
  'annual-flowers': 0.8,
  'trees-and-shrubs': 0.5,
  'trees-and-shrubs-wet': 0.7,
  'desert-adapted': 0.3,
  'vegetables-and-fruit': 1,
  'new-seed-or-turf': 1,
} as const;
export type Plants = keyof typeof PLANT_FACTORS;

/** Root depth, m: starting values for the longest interval (section 9). */
export const ROOT_METRES: Readonly<Record<Plants, number>> = {
  'cool-season-lawn': 0.2,
  'warm-season-lawn': 0.3,
  'annual-flowers': 0.2,
  'trees-and-shrubs': 0.6,
  'trees-and-shrubs-wet': 0.6,
  'desert-adapted': 0.6,
  'vegetables-and-fruit': 0.3,
  'new-seed-or-turf': 0.05,
};

/** Effect of sun, shade and heat on need (section 2). */
export const SURROUNDINGS = {
  'deep-shade': 0.5,
  'part-shade': 0.75,
  'full-sun': 1,
  'hot-wall': 1.4,
} as const;
export type Surroundings = keyof typeof SURROUNDINGS;

interface Head {
  /** mm an hour; null: only from flow and area. */
  readonly rate: number | null;
  /** Default distribution uniformity (section 6). */
  readonly uniformity: number;
  /** Rule-of-thumb minutes for a watering, and their usual range. */
  readonly minutes: number;
  readonly usualMinutes: readonly [number, number];
  readonly overhead: boolean;
}

export const HEADS = {
  'fixed-spray': { rate: 41, uniformity: 0.6, minutes: 15, usualMinutes: [10, 20], overhead: true },
  'rotating-stream': {
    rate: 11,
    uniformity: 0.7,
    minutes: 40,
    usualMinutes: [35, 45],
    overhead: true,
  },
  'gear-rotor': { rate: 13, uniformity: 0.7, minutes: 35, usualMinutes: [25, 50], overhead: true },
  'impact-rotor': {
    rate: 12,
    uniformity: 0.7,
    minutes: 35,
    usualMinutes: [30, 45],
    overhead: true,
  },
  bubbler: { rate: null, uniformity: 0.85, minutes: 5, usualMinutes: [3, 10], overhead: false },
  drip: { rate: null, uniformity: 0.85, minutes: 45, usualMinutes: [30, 60], overhead: false },
  'micro-spray': { rate: 22, uniformity: 0.6, minutes: 15, usualMinutes: [10, 20], overhead: true },
} as const satisfies Record<string, Head>;
export type HeadType = keyof typeof HEADS;

interface Soil {
  /** Intake rate, mm an hour. */
  readonly intake: number;
  /** Available water, mm a metre of depth (FAO-56 table 19, middle of its ranges). */
  readonly available: number;
  /** Allowable surface accumulation, mm, by slope: to 3, 6 and 12 percent, and steeper (section 8). */
  readonly allowance: readonly [number, number, number, number];
  /** Minutes of soak before the next cycle, on the flat. */
  readonly soakMinutes: number;
}

export const SOILS = {
  sand: { intake: 20, available: 80, allowance: [8.4, 7.6, 6.6, 5.6], soakMinutes: 15 },
  'sandy-loam': { intake: 13, available: 130, allowance: [7.4, 6.6, 5.6, 4.6], soakMinutes: 20 },
  loam: { intake: 9, available: 155, allowance: [6.6, 5.6, 4.6, 3.6], soakMinutes: 30 },
  'clay-loam': { intake: 5, available: 155, allowance: [5.6, 4.6, 3.6, 2.8], soakMinutes: 45 },
  clay: { intake: 2.5, available: 160, allowance: [5, 4.1, 3, 2.5], soakMinutes: 60 },
} as const satisfies Record<string, Soil>;
export type SoilType = keyof typeof SOILS;

/** Upper ends of the slope classes of `allowance`, percent. */
const SLOPE_ENDS_PERCENT = [3, 6, 12] as const;

const slopeClass = (slopePercent: number): 0 | 1 | 2 | 3 => {
  const found = SLOPE_ENDS_PERCENT.findIndex((end) => slopePercent <= end);
  // Safe cast: there are three ends, and anything steeper is the fourth class.
  return (found < 0 ? SLOPE_ENDS_PERCENT.length : found) as 0 | 1 | 2 | 3;
};

/** Allowable surface accumulation of a soil on a slope, mm. @param slopePercent 0 or more. */
export const allowanceOf = (soil: SoilType, slopePercent: number): number =>
  SOILS[soil].allowance[slopeClass(slopePercent)];

/** A default soak in seconds: the soil's, a quarter longer for each slope class, an hour and a half at most. */
export const soakSecondsOf = (soil: SoilType, slopePercent: number): number =>
  Math.min(5400, Math.round(SOILS[soil].soakMinutes * (1 + slopeClass(slopePercent) / 4)) * 60);
