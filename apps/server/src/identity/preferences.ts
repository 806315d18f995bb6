import { DATE_ORDERS, LANGUAGES } from '@water-clock/core';

/** A person's preferences. Null or absent: as on their device. */
export const CLOCKS = ['12', '24'] as const;
export const WEEK_STARTS = ['mon', 'sun'] as const;
export const UNITS = ['metric', 'us'] as const;
export const THEMES = ['day', 'night'] as const;
export const CONTRASTS = ['usual', 'high'] as const;
/** Percent of the normal text size. */
export const TEXT_SIZES = [100, 112, 125, 150, 175, 200] as const;
/** Columns of the site list, besides the site. */
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

/** Preferences with the version a change is based on. */
export interface PreferencesView {
  readonly version: number;
  readonly preferences: Preferences;
}
