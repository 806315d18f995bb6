import { memo, useState } from 'react';
import { Button, Drawer } from 'antd';
import {
  EnvironmentOutlined,
  EyeOutlined,
  FileTextOutlined,
  ProfileOutlined,
  ToolOutlined,
} from '@ant-design/icons';
import { Link } from 'react-router';
import {
  foldsAway,
  pathOf,
  PHASES,
  phaseOf,
  type Phase,
  type Step,
  type StepPath,
  type StepState,
} from '../steps/steps.ts';
import { Disclosure } from '../fields/Disclosure.tsx';
import { StepMark } from './Marks.tsx';

const ICONS: Readonly<Record<Phase['name'], React.ReactNode>> = {
  Arrive: <EnvironmentOutlined aria-hidden />,
  Look: <EyeOutlined aria-hidden />,
  Plan: <ProfileOutlined aria-hidden />,
  Set: <ToolOutlined aria-hidden />,
  'Hand over': <FileTextOutlined aria-hidden />,
};

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
  /** The timer needs only a few of the steps; the rest fold away. */
  readonly simple: boolean;
}

/** On a phone: the five phases at the foot; one of them opens its steps as a sheet. */
export const PhaseBar = memo(function PhaseBar({ timerId, shown, states, simple }: Props) {
  const [open, setOpen] = useState<Phase | null>(null);
  const here = phaseOf(shown);
  const list = (steps: readonly Step[]) => (
    <ul className="sheet-steps list ruled">
      {steps.map(([path, name]) => (
        <li key={path}>
          <Link
            to={pathOf(timerId, path)}
            aria-current={path === shown ? 'page' : undefined}
            onClick={() => setOpen(null)}
          >
            <StepMark state={states[path]} />
            <span className="grow">
              {name} {states[path] && <span className="soft small below">{states[path].line}</span>}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
  return (
    <nav className="foot" aria-label="The visit, phase by phase">
      {PHASES.map((phase) => (
        <Button
          key={phase.name}
          type="text"
          className="foot-place plain"
          aria-current={phase === here ? 'step' : undefined}
          aria-haspopup="dialog"
          onClick={() => setOpen(phase)}
        >
          {ICONS[phase.name]}
          {phase.name}
        </Button>
      ))}
      <Drawer
        placement="bottom"
        size="auto"
        title={open?.name}
        open={open !== null}
        onClose={() => setOpen(null)}
      >
        {open && (
          <>
            {list(open.steps.filter(([path]) => !foldsAway(path, simple)))}
            {open.steps.some(([path]) => foldsAway(path, simple)) && (
              <Disclosure className="sheet-more" summary="More steps">
                {() => list(open.steps.filter(([path]) => foldsAway(path, simple)))}
              </Disclosure>
            )}
          </>
        )}
      </Drawer>
    </nav>
  );
});
