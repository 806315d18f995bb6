import { lazy, Suspense, useCallback, useMemo, useState, type ReactNode } from 'react';
import { findingGroups, type ClockSecond, type Speech } from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { breachWords, checkMarks } from './checkMarks.ts';
import { ChecksContext, OpenChecksContext, type Checks } from './checksContext.ts';
import { useChecks, type CheckedFacts } from './useChecks.ts';

const ChecksDrawer = lazy(() => import('./ChecksDrawer.tsx'));

interface Props {
  readonly timerId: string;
  /** Null: not known yet. */
  readonly facts: CheckedFacts | null;
  readonly editor: TimerEditor;
  readonly speech: Speech;
  /** Shows the night of a moment on the strip. */
  readonly show: (moment: ClockSecond) => void;
  readonly children: ReactNode;
}

/** A timer's checks: the drawer, and for everything inside, their number and marks. */
export function ChecksProvider({ timerId, facts, editor, speech, show, children }: Props) {
  const [isOpen, setOpen] = useState(false);
  // Stays mounted once opened, so that closing is animated.
  const [wasOpened, setWasOpened] = useState(false);
  const findings = useChecks(facts);
  const open = useCallback(() => {
    setWasOpened(true);
    setOpen(true);
  }, []);
  const { on, clock, order } = speech;
  const rules = facts?.brief.rules ?? null;
  const checks = useMemo(
    (): Checks => ({
      count:
        findings &&
        findingGroups(findings.open).filter(({ severity }) => severity !== 'note').length,
      marks: checkMarks(findings?.open ?? [], { on, clock, order }),
      breach: breachWords(findings?.open ?? [], { on, clock, order }),
      rules,
    }),
    [findings, on, clock, order, rules],
  );
  return (
    <ChecksContext value={checks}>
      <OpenChecksContext value={open}>{children}</OpenChecksContext>
      {wasOpened && facts && findings && (
        <Suspense>
          <ChecksDrawer
            {...facts}
            timerId={timerId}
            findings={findings}
            editor={editor}
            speech={speech}
            show={show}
            open={isOpen}
            close={() => setOpen(false)}
          />
        </Suspense>
      )}
    </ChecksContext>
  );
}
