import { memo } from 'react';
import { Button } from 'antd';
import { SettingOutlined } from '@ant-design/icons';
import { lengthWords, type EpochDay, type Plan, type Program, say } from '@water-clock/core';
import { ProgramBadge } from '../../shared/charts/patterns.tsx';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import { CheckMark } from '../checks/CheckMark.tsx';
import { ProgramDays } from './ProgramDays.tsx';
import { programFacts } from './programFacts.ts';
import { ProgramStarts } from './ProgramStarts.tsx';
import { useProgramActs } from './useProgramActs.ts';

export interface ProgramProps {
  /** As saved; entries are compared with it. */
  readonly program: Program;
  /** With what is being typed or dragged, for the totals. */
  readonly shownProgram: Program;
  /** The whole plan: stations, timer and settings. */
  readonly plan: Plan;
  readonly editor: TimerEditor;
  /** Reference date for the day rule and the month's percent. */
  readonly today: EpochDay;
}

/** Typing in one program makes a new plan each time; other headers re-render only if what they show changed. */
const showsTheSame = (before: ProgramProps, after: ProgramProps): boolean =>
  before.program === after.program &&
  before.shownProgram === after.shownProgram &&
  before.editor === after.editor &&
  before.today === after.today &&
  before.plan.timer === after.plan.timer &&
  before.plan.settings === after.plan.settings &&
  before.plan.stations === after.plan.stations;

/** A program's header: total, starts, days, and a link to all settings. */
export const ProgramHead = memo(
  function ProgramHead(props: ProgramProps & { readonly open: (letter: string) => void }) {
    const { program, shownProgram, plan, editor, today, open } = props;
    const screen = useScreen();
    const { letter } = program;
    const { percent, seconds, next, missing } = programFacts(plan, shownProgram, today);
    const acts = useProgramActs(program, editor);
    return (
      <section className="program-head stack near" aria-label={say`Program ${letter}`}>
        <div className="program-line row near in-line">
          <ProgramBadge letter={letter} size={screen === 'phone' ? 40 : 30} />
          <p className="program-total grow">
            <strong>{lengthWords(seconds)}</strong>
            {percent !== 100 && <span className="soft"> {say`at ${percent} %`}</span>}
          </p>
          <CheckMark program={letter} />
          <Button
            className="program-settings"
            icon={<SettingOutlined />}
            aria-label={say`All settings for ${letter}`}
            onClick={() => open(letter)}
          >
            {screen === 'phone' && say`All settings`}
          </Button>
        </div>
        <ProgramStarts
          program={program}
          shownProgram={shownProgram}
          timer={plan.timer}
          next={next}
          acts={acts}
        />
        {program.days?.rule !== 'hours' && (
          <ProgramDays
            program={program}
            plan={plan}
            asKeys={screen !== 'tablet'}
            commit={acts.commitDays}
            open={() => open(letter)}
          />
        )}
        {missing && <p className="fault small">{missing}</p>}
      </section>
    );
  },
  (before, after) => before.open === after.open && showsTheSame(before, after),
);
