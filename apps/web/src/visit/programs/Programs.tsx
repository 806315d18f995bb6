import { lazy, Suspense, useLayoutEffect, useMemo, useState } from 'react';
import { Button } from 'antd';
import { PlusOutlined } from '@ant-design/icons';
import {
  effectivePercent,
  letterAt,
  monthOf,
  programsByLetter,
  type Brief,
  type EpochDay,
  say,
} from '@water-clock/core';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import { Loading } from '../../app/platform/states.tsx';
import { board, phonePrograms } from './boards.ts';
import './board.css';
import { DraftContext, programOf, WeeksProvider, type Draft } from './draft.tsx';

const Board = lazy(board);
const PhonePrograms = lazy(phonePrograms);
const ProgramDrawer = lazy(() => import('./ProgramDrawer.tsx'));

interface Props {
  readonly snapshot: Snapshot;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  readonly brief: Brief;
  /** The program in the address; null: the first. */
  readonly letter: string | null;
  readonly setLetter: (letter: string | null) => void;
}

/** A timer's programs as a board of stations by programs; on a phone, one at a time. */
export function Programs(props: Props) {
  const { snapshot, editor, today, brief, letter, setLetter } = props;
  const { settled: plan, plan: shown } = snapshot;
  const isPhone = useScreen() === 'phone';
  const [opened, setOpened] = useState<string | null>(null);
  const free = Array.from({ length: plan.timer.programCount }, (_, i) => letterAt(i)).find(
    (one) => !plan.programs.some((program) => program.letter === one),
  );
  // By keyboard, the focus goes to the first start of a new program; by touch, its days are as near.
  const [added, setAdded] = useState<string | null>(null);
  useLayoutEffect(() => {
    if (added !== null && !isPhone)
      document.querySelector<HTMLElement>(`[data-field="new-start-${added}"]`)?.focus();
  }, [added, isPhone]);
  const percents = useMemo(
    () => programsByLetter(plan).map((program) => effectivePercent(plan, program, monthOf(today))),
    [plan, today],
  );
  const draft = useMemo(
    (): Draft => ({ plan, shown, editor, today, open: setOpened }),
    [plan, shown, editor, today],
  );
  const add = free
    ? () => {
        editor.commit({
          type: 'add-program',
          program: { letter: free, starts: [], runs: [], days: null },
        });
        setLetter(free);
        setAdded(free);
      }
    : null;
  const drawer = opened === null ? null : programOf(draft, opened);
  return (
    <DraftContext value={draft}>
      <WeeksProvider shown={shown} needs={brief.stations}>
        <Suspense fallback={<Loading what={say`the programs`} />}>
          {isPhone ? (
            <PhonePrograms
              plan={plan}
              editor={editor}
              letter={letter ?? ''}
              setLetter={setLetter}
              add={add}
            />
          ) : (
            <>
              <Board plan={plan} editor={editor} percents={percents} />
              {add ? (
                <Button icon={<PlusOutlined />} onClick={add}>
                  {say`Add program ${free}`}
                </Button>
              ) : (
                <p className="soft">
                  {plan.timer.programCount === 1
                    ? say`This timer has one program, and it is in use.`
                    : say`All ${plan.timer.programCount} programs of this timer are in use.`}
                </p>
              )}
            </>
          )}
        </Suspense>
      </WeeksProvider>
      {drawer && (
        <Suspense>
          <ProgramDrawer {...drawer} close={() => setOpened(null)} />
        </Suspense>
      )}
    </DraftContext>
  );
}
