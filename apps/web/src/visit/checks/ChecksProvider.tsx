import { lazy, Suspense, useCallback, useMemo, useState, type ReactNode } from 'react';
import { findingGroups, type ClockSecond, type Speech } from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { breachWords, checkMarks } from './checkMarks.ts';
import { ChecksContext, OpenChecksContext, type Checks } from './checksContext.ts';
import { useChecks, type CheckedFacts } from './useChecks.ts';

const ChecksDrawer = lazy(() => import('./ChecksDrawer.tsx'));

interface Props {
  readonly timerId: string;
  /** Null: not worked out yet. */
  readonly facts: CheckedFacts | null;
  readonly editor: TimerEditor;
  readonly speech: Speech;
  /** Brings the night of a moment to the strip. */
  readonly show: (moment: ClockSecond) => void;
  readonly children: ReactNode;
}

/** The checks of a timer: their drawer, and for what lies inside, their number and their marks. */
export function ChecksProvider({ timerId, facts, editor, speech, show, children }: Props) {
  const [isOpen, setOpen] = useState(false);
  // Once it has been opened it stays, so that closing is seen.
  const [wasOpened, setWasOpened] = useState(false);
  const findings = useChecks(facts);
  const open = useCallback(() => {
    setWasOpened(true);
    setOpen(true);
  }, []);
  const { on, clock, order } = speech;
  const checks = useMemo(
    (): Checks => ({
      count:
        findings &&
        findingGroups(findings.open).filter(({ severity }) => severity !== 'note').length,
      marks: checkMarks(findings?.open ?? [], { on, clock, order }),
      breach: breachWords(findings?.open ?? [], { on, clock, order }),
    }),
    [findings, on, clock, order],
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
