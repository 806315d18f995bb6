import { createContext, useContext } from 'react';
import type { BriefRules } from '@water-clock/core';
import type { CheckMarks } from './checkMarks.ts';

export interface Checks {
  /** Open findings above "for information"; null: not known yet. */
  readonly count: number | null;
  readonly marks: CheckMarks;
  /** The first open breach of the site's rules, as a message; null: none. */
  readonly breach: string | null;
  /** The site's rules today; null: none, or not known yet. */
  readonly rules: BriefRules | null;
}

export const ChecksContext = createContext<Checks>({
  count: null,
  marks: () => null,
  breach: null,
  rules: null,
});

/** A context of its own, because it never changes. */
export const OpenChecksContext = createContext<() => void>(() => undefined);

export const useOpenFindings = (): Checks => useContext(ChecksContext);

/** Opens the checks drawer. */
export const useOpenChecks = (): (() => void) => useContext(OpenChecksContext);
