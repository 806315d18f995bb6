import {
  attempt,
  cycleShape,
  lengthWords,
  totalOnDisplay,
  type PlanChange,
  type Plan,
  type Program,
  say,
} from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import { CycleDrawing } from './CycleDrawing.tsx';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { WindowsEditor } from '../../shared/fields/WindowsEditor.tsx';

type Extras = Extract<PlanChange, { type: 'set-program' }>['fields'];

interface Props {
  readonly program: Program;
  readonly plan: Plan;
  readonly editor: TimerEditor;
  /** Current percent. */
  readonly percent: number;
}

const minutes = (seconds: number | undefined) => (seconds === undefined ? null : seconds / 60);

/** A program's extras: percent, cycle and soak, its own hours, cycles, total. */
export function ProgramExtras({ program, plan, editor, percent }: Props) {
  const { letter } = program;
  const { timer, stations } = plan;
  const set = (fields: Extras) =>
    commitWords(editor, { type: 'set-program', program: letter, fields });
  const split = timer.cycleSoak === 'program' || program.cycleSeconds !== undefined;
  const atOnce = timer.stationsAtOnce > 1 || program.stationsAtOnce !== undefined;
  const windows = timer.inWindow !== 'ignore' || (program.noWaterWindows?.length ?? 0) > 0;
  const total = attempt(() => totalOnDisplay(plan, program, percent));
  return (
    <div className="stack">
      <Pieces program={program} plan={plan} percent={percent} />
      <div className="tiles of-150 at-foot">
        {timer.seasonal.scope === 'program' && (
          <NumberField
            label={say`Seasonal percent of ${letter}`}
            unit="%"
            value={program.seasonalPercent ?? null}
            most={500}
            empty="100"
            commit={(seasonalPercent) => set({ seasonalPercent })}
          />
        )}
        {split && (
          <>
            <NumberField
              label={say`Longest cycle`}
              unit={say`minutes`}
              decimal
              value={minutes(program.cycleSeconds)}
              most={1440}
              empty={say`not split`}
              commit={(value) =>
                set({
                  cycleSeconds: value === null ? null : Math.max(1, Math.round(value * 60)),
                })
              }
            />
            <NumberField
              label={say`Shortest soak`}
              unit={say`minutes`}
              decimal
              value={minutes(program.soakSeconds)}
              most={1440}
              empty={say`not split`}
              commit={(value) =>
                set({ soakSeconds: value === null ? null : Math.round(value * 60) })
              }
            />
          </>
        )}
        {atOnce && (
          <NumberField
            label={say`Most stations at once`}
            value={program.stationsAtOnce ?? null}
            least={1}
            most={99}
            empty={say`same as timer`}
            commit={(stationsAtOnce) => set({ stationsAtOnce })}
          />
        )}
      </div>
      {windows && (
        <WindowsEditor
          label={say`No-water hours for ${letter}`}
          timer={timer}
          windows={program.noWaterWindows ?? []}
          commit={(noWaterWindows) => set({ noWaterWindows })}
        />
      )}
      <p className="soft">
        {stations.length > 0 && timer.cycleSoak === 'station'
          ? `${say`This timer sets cycle and soak by station. Set it under Stations.`} `
          : timer.cycleSoak === 'none'
            ? `${say`This timer has no cycle and soak. Add a second start time instead.`} `
            : ''}
        {total.ok &&
          (total.value === null
            ? say`This timer does not show program totals.`
            : say`Total shown on the timer: ${lengthWords(total.value)}.`)}
      </p>
    </div>
  );
}

function Pieces({ program, plan, percent }: Omit<Props, 'editor'>) {
  const shape = attempt(() => cycleShape(plan, program, percent));
  return shape.ok ? (
    <CycleDrawing letter={program.letter} shape={shape.value} stations={plan.stations} />
  ) : (
    <p className="fault">{say`This cycle has too many parts to draw.`}</p>
  );
}
