import { daysWords, type NextCycle, type Program, type Timer, say } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { StartChips } from './StartChips.tsx';
import type { useProgramActs } from './useProgramActs.ts';

interface Props {
  readonly program: Program;
  /** With what is being typed or dragged. */
  readonly shownProgram: Program;
  readonly timer: Timer;
  readonly next: readonly NextCycle[];
  readonly acts: ReturnType<typeof useProgramActs>;
}

/** A program's starts; a program on an hourly rule has none. */
export function ProgramStarts({ program, shownProgram, timer, next, acts }: Props) {
  const { clock, order } = usePreferences();
  if (program.days?.rule === 'hours')
    return <p className="soft">{say`Starts ${daysWords(program.days, clock, order)}.`}</p>;
  return (
    <StartChips
      letter={program.letter}
      starts={program.starts}
      shownStarts={shownProgram.starts}
      next={next}
      stepMinutes={timer.startStepMinutes}
      mostStarts={timer.startsPerProgram}
      clock={clock}
      draft={acts.draftStarts}
      commit={acts.commitStarts}
    />
  );
}
