import { memo, useCallback } from 'react';
import { Button } from 'antd';
import {
  attempt,
  cycleShape,
  daysWords,
  effectivePercent,
  enabledStations,
  isUnused,
  lengthWords,
  monthOf,
  nextCycles,
  missingOf,
  missingSentence,
  type Days,
  type EpochDay,
  type Plan,
  type Program,
  type RunEntry,
} from '@water-clock/core';
import { ProgramBadge } from '../charts/patterns.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { commitWords } from '../editor/commitWords.ts';
import { DayPicker } from './DayPicker.tsx';
import type { TimerEditor } from '../editor/editor.ts';
import { ProgramExtras } from './ProgramExtras.tsx';
import { RunGrid } from './RunGrid.tsx';
import { StartChips } from './StartChips.tsx';

interface Props {
  /** As it is made: what an entry is compared with. */
  readonly program: Program;
  /** The same with what is being typed or dragged: what the totals are of. */
  readonly shownProgram: Program;
  /** The whole plan, for stations, timer and settings. */
  readonly plan: Plan;
  readonly editor: TimerEditor;
  /** The date from which the rule is looked at, and whose month's percent the total is at. */
  readonly today: EpochDay;
}

/** One program: its starts, its days, its run minutes, and what they add up to. */
export const ProgramBlock = memo(
  function ProgramBlock({ program, shownProgram, plan, editor, today }: Props) {
    const { clock } = usePreferences();
    const { letter } = program;
    const hasStarts = program.starts.length > 0;
    const percent = effectivePercent(plan, shownProgram, monthOf(today));
    const shape = attempt(() => cycleShape(plan, shownProgram, percent));
    const seconds = shape.ok ? shape.value.seconds : 0;
    const worked = attempt(() => nextCycles(plan, shownProgram, today));
    const next = worked.ok ? worked.value : [];
    const missing = missingOf(shownProgram, enabledStations(plan));

    const startsChange = useCallback(
      (starts: readonly string[]) => ({ type: 'set-starts', program: letter, starts }) as const,
      [letter],
    );
    const runsChange = useCallback(
      (runs: readonly RunEntry[]) => ({ type: 'set-runs', program: letter, runs }) as const,
      [letter],
    );
    const draftStarts = useCallback(
      (starts: readonly string[] | null) => editor.setDraft(starts && startsChange(starts)),
      [editor, startsChange],
    );
    const commitStarts = useCallback(
      (starts: readonly string[]) => void editor.commit(startsChange(starts)),
      [editor, startsChange],
    );
    const draftRuns = useCallback(
      (runs: readonly RunEntry[] | null) => editor.setDraft(runs && runsChange(runs)),
      [editor, runsChange],
    );
    const commitRuns = useCallback(
      (runs: readonly RunEntry[]) => void editor.commit(runsChange(runs)),
      [editor, runsChange],
    );
    const commitDays = useCallback(
      (days: Days | null) => {
        const change = { type: 'set-days', program: letter, days } as const;
        // Hours take the place of starts, so those go in the same step, and come back with its undo.
        if (days?.rule === 'hours' && hasStarts)
          return commitWords(editor, {
            type: 'several',
            changes: [{ type: 'set-starts', program: letter, starts: [] }, change],
          });
        return commitWords(editor, change);
      },
      [editor, letter, hasStarts],
    );

    return (
      <section className="program" aria-label={`Program ${letter}`}>
        <div className="program-head">
          <ProgramBadge letter={letter} size={44} />
          {program.days?.rule === 'hours' ? (
            <p className="soft">Starts {daysWords(program.days, clock)}.</p>
          ) : (
            <StartChips
              letter={letter}
              starts={program.starts}
              shownStarts={shownProgram.starts}
              next={next}
              stepMinutes={plan.timer.startStepMinutes}
              mostStarts={plan.timer.startsPerProgram}
              clock={clock}
              draft={draftStarts}
              commit={commitStarts}
            />
          )}
          <p className="program-total">
            <strong>{lengthWords(seconds)}</strong>
            <span className="soft">{percent === 100 ? 'in all' : `in all, at ${percent} %`}</span>
          </p>
        </div>
        <div className="program-days">
          <DayPicker program={program} plan={plan} today={today} commit={commitDays} />
          <Button
            className="program-remove"
            onClick={() => void editor.commit({ type: 'remove-program', program: letter })}
          >
            Take out {letter}
          </Button>
        </div>
        <RunGrid
          letter={letter}
          stations={plan.stations}
          runs={program.runs}
          stepSeconds={plan.timer.runStepSeconds}
          longestSeconds={plan.timer.longestRunSeconds}
          percent={percent}
          seasonal={plan.timer.seasonal}
          draft={draftRuns}
          commit={commitRuns}
        />
        <ProgramExtras program={shownProgram} plan={plan} editor={editor} percent={percent} />
        {missing.length > 0 && !isUnused(missing) && (
          <p className="fault">{missingSentence(letter, missing)}</p>
        )}
      </section>
    );
  },
  // Typing in one program makes a new plan each time; other programs are drawn again only if what they show changed.
  (before, after) =>
    before.program === after.program &&
    before.shownProgram === after.shownProgram &&
    before.editor === after.editor &&
    before.today === after.today &&
    before.plan.timer === after.plan.timer &&
    before.plan.settings === after.plan.settings &&
    before.plan.stations === after.plan.stations,
);
