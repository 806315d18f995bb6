import { createContext, useContext } from 'react';
import type { CheckMarks } from './checkMarks.ts';

export interface Checks {
  /** Of the findings that are more than good to know; null: not worked out yet. */
  readonly count: number | null;
  readonly marks: CheckMarks;
  readonly open: () => void;
}

export const ChecksContext = createContext<Checks>({
  count: null,
  marks: () => null,
  open: () => undefined,
});

export const useOpenChecks = (): Checks => useContext(ChecksContext);
