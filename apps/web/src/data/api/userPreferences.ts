import type { ClockStyle, DateOrder, Language, UnitSystem } from '@water-clock/core';

export type Theme = 'day' | 'night';
export type Contrast = 'usual' | 'high';

/** A person's preferences; null or absent: the device's own. */
export interface UserPreferences {
  readonly language?: Language | null;
  readonly clock?: ClockStyle | null;
  readonly dateOrder?: DateOrder | null;
  readonly weekStart?: 'mon' | 'sun' | null;
  readonly units?: UnitSystem | null;
  readonly theme?: Theme | null;
  readonly contrast?: Contrast | null;
  readonly textSize?: number | null;
  /** Columns of the site list. */
  readonly siteColumns?: readonly string[] | null;
}

export interface SavedPreferences {
  readonly version: number;
  readonly preferences: UserPreferences;
}
