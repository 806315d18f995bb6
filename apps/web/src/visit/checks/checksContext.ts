import { createContext, useContext } from 'react';
import type { CheckMarks } from './checkMarks.ts';

export interface Checks {
  /** Of the findings that are more than good to know; null: not worked out yet. */
  readonly count: number | null;
  readonly marks: CheckMarks;
  /** The first open breach of the rules of the place, in words; null: none. */
  readonly breach: string | null;
}

export const ChecksContext = createContext<Checks>({
  count: null,
  marks: () => null,
  breach: null,
});

/** Apart, because it never changes. */
export const OpenChecksContext = createContext<() => void>(() => undefined);

export const useOpenFindings = (): Checks => useContext(ChecksContext);

/** Opens the drawer of the checks. */
export const useOpenChecks = (): (() => void) => useContext(OpenChecksContext);
