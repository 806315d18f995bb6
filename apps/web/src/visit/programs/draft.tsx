/**
 * What is being typed or dragged, for the few parts of the board that show it. Kept outside the board, so that a key press re-renders only
 * its cell, its program's header and the weekly totals.
 */
import { createContext, useContext, useDeferredValue, useMemo, type ReactNode } from 'react';
import {
  attempt,
  meanWeeklySeconds,
  type Brief,
  type EpochDay,
  type Plan,
} from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { ProgramHead, type ProgramProps } from './ProgramHead.tsx';
import { WeekCell } from './WeekCell.tsx';

export interface Draft {
  /** As saved. */
  readonly plan: Plan;
  /** With what is being typed or dragged. */
  readonly shown: Plan;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  /** Opens all settings of a program. */
  readonly open: (letter: string) => void;
}

export const DraftContext = createContext<Draft | null>(null);

/** What a program's header and drawer show; null: no such program. */
export function programOf(
  { plan, shown, editor, today }: Draft,
  letter: string,
): ProgramProps | null {
  const at = ({ programs }: Plan) => programs.find((one) => one.letter === letter);
  const program = at(plan);
  return program ? { program, shownProgram: at(shown) ?? program, plan, editor, today } : null;
}

export function HeadOf({ letter }: { readonly letter: string }) {
  const draft = useContext(DraftContext);
  const given = draft && programOf(draft, letter);
  return given && <ProgramHead {...given} open={draft.open} />;
}

interface Weeks {
  /** Seconds a week by station. */
  readonly given: ReadonlyMap<number, number>;
  /** The need, likewise, if known. */
  readonly needed: ReadonlyMap<number, number>;
}

const WeeksContext = createContext<Weeks>({ given: new Map(), needed: new Map() });

interface WeeksProps {
  readonly shown: Plan;
  readonly needs: Brief['stations'];
  readonly children: ReactNode;
}

/** Calculates what stations get and need, after strip and verdict. */
export function WeeksProvider({ shown, needs, children }: WeeksProps) {
  const later = useDeferredValue(shown);
  const given = useMemo(() => {
    const worked = attempt(() => meanWeeklySeconds(later));
    return worked.ok ? worked.value : new Map<number, number>();
  }, [later]);
  const weeks = useMemo(
    (): Weeks => ({
      given,
      needed: new Map(
        needs
          .filter(({ weeklySeconds }) => weeklySeconds > 0)
          .map(({ number, weeklySeconds }) => [number, weeklySeconds]),
      ),
    }),
    [given, needs],
  );
  return <WeeksContext value={weeks}>{children}</WeeksContext>;
}

export function WeekOf({ station }: { readonly station: number }) {
  const { given, needed } = useContext(WeeksContext);
  return <WeekCell given={given.get(station) ?? 0} needed={needed.get(station) ?? null} />;
}
