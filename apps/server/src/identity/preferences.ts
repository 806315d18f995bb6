import { DATE_ORDERS, LANGUAGES } from '@water-clock/core';

/** What a person likes. Null or absent: as their device has it. */
export const CLOCKS = ['12', '24'] as const;
export const WEEK_STARTS = ['mon', 'sun'] as const;
export const UNITS = ['metric', 'us'] as const;
export const THEMES = ['day', 'night'] as const;
export const CONTRASTS = ['usual', 'high'] as const;
/** Percent of the usual size of text. */
export const TEXT_SIZES = [100, 112, 125, 150, 175, 200] as const;
/** Of the list of sites, beside the house. */
export const SITE_COLUMNS = [
  ...['town', 'street', 'verdict', 'week', 'stations', 'headroom', 'trouble', 'battery', 'person'],
  ...['last', 'next'],
] as const;

export interface Preferences {
  readonly language?: (typeof LANGUAGES)[number] | null | undefined;
  readonly clock?: (typeof CLOCKS)[number] | null | undefined;
  readonly dateOrder?: (typeof DATE_ORDERS)[number] | null | undefined;
  readonly weekStart?: (typeof WEEK_STARTS)[number] | null | undefined;
  readonly units?: (typeof UNITS)[number] | null | undefined;
  readonly theme?: (typeof THEMES)[number] | null | undefined;
  readonly contrast?: (typeof CONTRASTS)[number] | null | undefined;
  readonly textSize?: (typeof TEXT_SIZES)[number] | null | undefined;
  readonly siteColumns?: readonly string[] | null | undefined;
}

/** Preferences with the version of their person, which a change of them names. */
export interface PreferencesView {
  readonly version: number;
  readonly preferences: Preferences;
}
