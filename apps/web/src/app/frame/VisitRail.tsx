import { memo } from 'react';
import { Menu } from 'antd';
import { EllipsisOutlined, LeftOutlined } from '@ant-design/icons';
import { Link } from 'react-router';
import {
  foldsAway,
  pathOf,
  PHASES,
  STEPS,
  type Step,
  type StepPath,
  type StepState,
} from '../../visit/steps/steps.ts';
import { StepMark } from './Marks.tsx';
import { Rail } from './Rail.tsx';
import { useScreen } from './useScreen.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
  /** Only a few steps apply to the timer; the rest fold away. */
  readonly simple: boolean;
}

/** The visit as a rail: steps under five phases, each with its mark. */
export const VisitRail = memo(function VisitRail({ timerId, shown, states, simple }: Props) {
  const words = useScreen() === 'desktop';
  const item = ([path, step]: Step) => ({
    key: `step-${path}`,
    icon: <StepMark state={states[path]} />,
    label: (
      <Link to={pathOf(timerId, path)} aria-current={path === shown ? 'page' : undefined}>
        {step}
      </Link>
    ),
  });
  const folded = STEPS.filter(([path]) => foldsAway(path, simple));
  return (
    <Rail>
      <Link to="/sites" className="rail-home row" aria-label={say`All sites`}>
        <LeftOutlined /> {words && say`All sites`}
      </Link>
      <Menu
        className="rail-steps"
        aria-label={say`Visit steps`}
        selectedKeys={[`step-${shown}`]}
        items={[
          ...PHASES.map(({ name, steps }) => ({
            key: name,
            type: 'group' as const,
            label: words ? name : <span className="hidden-but-read">{name}</span>,
            children: steps.filter(([path]) => !foldsAway(path, simple)).map(item),
          })),
          ...(folded.length > 0
            ? [
                {
                  key: 'more',
                  icon: <EllipsisOutlined aria-hidden />,
                  label: say`More steps`,
                  children: folded.map(item),
                },
              ]
            : []),
        ]}
      />
    </Rail>
  );
});
