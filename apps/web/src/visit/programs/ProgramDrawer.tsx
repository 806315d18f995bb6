import { Button, Checkbox, Drawer } from 'antd';
import { phaseFields, unknownPhases, say } from '@water-clock/core';
import { useScreen } from '../../app/frame/useScreen.ts';
import { DayPicker } from './DayPicker.tsx';
import { ProgramExtras } from './ProgramExtras.tsx';
import type { ProgramProps } from './ProgramHead.tsx';
import { programFacts } from './programFacts.ts';
import { ProgramStarts } from './ProgramStarts.tsx';
import { useProgramActs } from './useProgramActs.ts';

/** All settings of a program: starts, day rule with its dates, cycle and soak, no-water hours. */
export default function ProgramDrawer(props: ProgramProps & { readonly close: () => void }) {
  const { program, shownProgram, plan, editor, today, close } = props;
  const { letter } = program;
  const isPhone = useScreen() === 'phone';
  const { survey } = editor.snapshot();
  const isUnknown = unknownPhases(plan, survey).includes(letter);
  const acts = useProgramActs(program, editor);
  const { percent, next } = programFacts(plan, shownProgram, today);
  return (
    <Drawer
      title={say`Program ${letter}`}
      className="program-drawer"
      placement={isPhone ? 'bottom' : 'right'}
      size={isPhone ? '90vh' : 560}
      open
      onClose={close}
      extra={
        <Button
          danger
          onClick={() => {
            close();
            acts.remove();
          }}
        >
          {say`Delete program ${letter}`}
        </Button>
      }
    >
      <div className="stack">
        <h3>{say`Start times`}</h3>
        <ProgramStarts
          program={program}
          shownProgram={shownProgram}
          timer={plan.timer}
          next={next}
          acts={acts}
        />
        <h3>{say`Days`}</h3>
        <DayPicker program={program} plan={plan} today={today} commit={acts.commitDays} />
        {program.days?.rule === 'interval' && (
          <Checkbox
            className="check"
            checked={isUnknown}
            onChange={({ target }) => {
              const fields = phaseFields(plan, survey, letter, target.checked);
              if (fields) editor.commit({ type: 'note', fields });
            }}
          >{say`its interval could not be read, so it may water on any of its days`}</Checkbox>
        )}
        <h3>{say`Cycle and soak, and more`}</h3>
        <ProgramExtras program={shownProgram} plan={plan} editor={editor} percent={percent} />
      </div>
    </Drawer>
  );
}
