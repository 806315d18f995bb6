/** Question and answer of the worker behind "What was seen". Plain data both ways. */
import type { Ask, Behind, EpochDay, Explanation, Night, Question } from '@water-clock/core';

export interface DiagnosisRequest {
  readonly question: Question;
  /** 00:00 today at the site, in true time. */
  readonly today: number;
  /** The night shown on each explanation's strip. */
  readonly night: EpochDay;
}

export interface Explained extends Explanation {
  /** What the night would have been like; null if it cannot be calculated. */
  readonly shown: Night | null;
  readonly behind: readonly Behind[];
}

export interface Diagnosis {
  readonly explanations: readonly Explained[];
  readonly ask: Ask | null;
}
