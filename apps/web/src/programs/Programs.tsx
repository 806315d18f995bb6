import { memo } from 'react';
import { Button } from 'antd';
import { letterAt, programsByLetter, type EpochDay } from '@water-clock/core';
import type { Snapshot, TimerEditor } from '../editor/editor.ts';
import { ProgramBlock } from './ProgramBlock.tsx';

const AddProgram = memo(function AddProgram({
  letter,
  editor,
}: {
  letter: string;
  editor: TimerEditor;
}) {
  const program = { letter, starts: [], runs: [], days: null };
  return (
    <Button size="large" onClick={() => editor.commit({ type: 'add-program', program })}>
      Add program {letter}
    </Button>
  );
});

/** The programs of a timer, and the next one to add. */
export function Programs({
  snapshot,
  editor,
  today,
}: {
  snapshot: Snapshot;
  editor: TimerEditor;
  today: EpochDay;
}) {
  const { settled: plan, plan: shown } = snapshot;
  const letters = Array.from({ length: plan.timer.programCount }, (_, i) => letterAt(i));
  const free = letters.find(
    (letter) => !plan.programs.some((program) => program.letter === letter),
  );
  return (
    <>
      {programsByLetter(plan).map((program) => (
        <ProgramBlock
          key={program.letter}
          program={program}
          shownProgram={shown.programs.find(({ letter }) => letter === program.letter) ?? program}
          plan={plan}
          editor={editor}
          today={today}
        />
      ))}
      {free && <AddProgram letter={free} editor={editor} />}
      {!free && (
        <p className="soft">All {plan.timer.programCount} programs of this timer are in use.</p>
      )}
    </>
  );
}
