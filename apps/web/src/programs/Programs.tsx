import { lazy, Suspense, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Button } from 'antd';
import { PlusOutlined } from '@ant-design/icons';
import {
  attempt,
  effectivePercent,
  letterAt,
  meanWeeklySeconds,
  monthOf,
  programsByLetter,
  type Brief,
  type EpochDay,
} from '@water-clock/core';
import type { Snapshot, TimerEditor } from '../editor/editor.ts';
import { useScreen } from '../frame/useScreen.ts';
import { Board } from './Board.tsx';
import { PhonePrograms } from './PhonePrograms.tsx';
import { ProgramHead } from './ProgramHead.tsx';
import { WeekCell } from './WeekCell.tsx';

const ProgramDrawer = lazy(() => import('./ProgramDrawer.tsx'));

interface Props {
  readonly snapshot: Snapshot;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  readonly brief: Brief;
  /** The program in the address; null: the first one. */
  readonly letter: string | null;
  readonly setLetter: (letter: string | null) => void;
}

/** The programs of a timer as a board of stations by programs; on a phone one at a time. */
export function Programs(props: Props) {
  const { snapshot, editor, today, brief, letter, setLetter } = props;
  const { settled: plan, plan: shown } = snapshot;
  const isPhone = useScreen() === 'phone';
  const [opened, setOpened] = useState<string | null>(null);
  const open = useCallback((program: string) => setOpened(program), []);
  const free = Array.from({ length: plan.timer.programCount }, (_, i) => letterAt(i)).find(
    (one) => !plan.programs.some((program) => program.letter === one),
  );
  // What is given follows when there is time: the strip and the verdict come first.
  const later = useDeferredValue(shown);
  const given = useMemo(() => {
    const worked = attempt(() => meanWeeklySeconds(later));
    return worked.ok ? worked.value : new Map<number, number>();
  }, [later]);
  const needed = useMemo(
    () =>
      new Map(
        brief.stations
          .filter(({ weeklySeconds }) => weeklySeconds > 0)
          .map(({ number, weeklySeconds }) => [number, weeklySeconds]),
      ),
    [brief.stations],
  );
  const programs = programsByLetter(plan);
  const shownOf = (one: string) => shown.programs.find((program) => program.letter === one);
  const propsOf = (one: string) => {
    const program = programs.find((program) => program.letter === one);
    return program && { program, shownProgram: shownOf(one) ?? program, plan, editor, today };
  };
  const head = (one: string) => {
    const given = propsOf(one);
    return given && <ProgramHead {...given} open={open} />;
  };
  const add = free
    ? () => {
        editor.commit({
          type: 'add-program',
          program: { letter: free, starts: [], runs: [], days: null },
        });
        setLetter(free);
      }
    : null;
  const drawer = opened === null ? undefined : propsOf(opened);
  return (
    <>
      {isPhone ? (
        <PhonePrograms
          plan={plan}
          editor={editor}
          letter={letter ?? ''}
          setLetter={setLetter}
          add={add}
          head={head}
          week={(station) => (
            <WeekCell given={given.get(station) ?? 0} needed={needed.get(station) ?? null} />
          )}
        />
      ) : (
        <>
          <Board
            plan={plan}
            editor={editor}
            percents={programs.map((program) => effectivePercent(plan, program, monthOf(today)))}
            head={head}
            given={given}
            needed={needed}
          />
          {add ? (
            <Button className="board-add" icon={<PlusOutlined />} onClick={add}>
              Add program {free}
            </Button>
          ) : (
            <p className="soft">All {plan.timer.programCount} programs of this timer are in use.</p>
          )}
        </>
      )}
      {drawer && (
        <Suspense>
          <ProgramDrawer {...drawer} close={() => setOpened(null)} />
        </Suspense>
      )}
    </>
  );
}
