/** What the page "What was seen" asks its worker, and the answer. Plain data both ways. */
import type { Ask, Behind, EpochDay, Explanation, Night, Question } from '@water-clock/core';

export interface DiagnosisRequest {
  readonly question: Question;
  /** 00:00 of the present date at the house, by the true clock. */
  readonly today: number;
  /** The night of which each explanation's strip is shown. */
  readonly night: EpochDay;
}

export interface Explained extends Explanation {
  /** What it would have been like; null where it cannot be worked out. */
  readonly shown: Night | null;
  readonly behind: readonly Behind[];
}

export interface Diagnosis {
  readonly explanations: readonly Explained[];
  readonly ask: Ask | null;
}
