import { lazy, memo, Suspense, useState } from 'react';
import { Button } from 'antd';
import {
  EnvironmentOutlined,
  EyeOutlined,
  FileTextOutlined,
  ProfileOutlined,
  ToolOutlined,
} from '@ant-design/icons';
import {
  PHASES,
  phaseOf,
  type Phase,
  type StepPath,
  type StepState,
} from '../../visit/steps/steps.ts';
import { say } from '@water-clock/core';

const PhaseSteps = lazy(() => import('./PhaseSteps.tsx'));

const ICONS: Readonly<Record<Phase['id'], React.ReactNode>> = {
  arrive: <EnvironmentOutlined aria-hidden />,
  look: <EyeOutlined aria-hidden />,
  plan: <ProfileOutlined aria-hidden />,
  set: <ToolOutlined aria-hidden />,
  'hand-over': <FileTextOutlined aria-hidden />,
};

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
  /** Only a few steps apply to the timer; the rest fold away. */
  readonly simple: boolean;
}

/** On a phone: the five phases at the bottom; each opens its steps in a sheet. */
export const PhaseBar = memo(function PhaseBar({ timerId, shown, states, simple }: Props) {
  const [open, setOpen] = useState<Phase | null>(null);
  // Stays mounted once opened, so that it can slide out.
  const [isWanted, setIsWanted] = useState(false);
  const here = phaseOf(shown);
  return (
    <nav className="foot" aria-label={say`Visit phases`}>
      {PHASES.map((phase) => (
        <Button
          key={phase.id}
          type="text"
          className="foot-place plain"
          aria-current={phase === here ? 'step' : undefined}
          aria-haspopup="dialog"
          onClick={() => {
            setIsWanted(true);
            setOpen(phase);
          }}
        >
          {ICONS[phase.id]}
          {phase.name}
        </Button>
      ))}
      {isWanted && (
        <Suspense>
          <PhaseSteps
            {...{ timerId, shown, states, simple }}
            phase={open}
            close={() => setOpen(null)}
          />
        </Suspense>
      )}
    </nav>
  );
});
