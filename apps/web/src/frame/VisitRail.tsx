import { memo } from 'react';
import { Menu } from 'antd';
import { LeftOutlined } from '@ant-design/icons';
import { Link } from 'react-router';
import { pathOf, PHASES, type StepPath, type StepState } from '../steps/steps.ts';
import { StepMark } from './Marks.tsx';
import { Rail } from './Rail.tsx';
import { useScreen } from './useScreen.ts';

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
}

/** The visit as a rail: its steps under five phases, each with its mark. */
export const VisitRail = memo(function VisitRail({ timerId, shown, states }: Props) {
  const words = useScreen() === 'desktop';
  return (
    <Rail>
      <Link to="/sites" className="rail-back" aria-label="All sites">
        <LeftOutlined /> {words && 'All sites'}
      </Link>
      <Menu
        className="rail-steps"
        aria-label="The visit, step by step"
        selectedKeys={[`step-${shown}`]}
        items={PHASES.map(({ name, steps }) => ({
          key: name,
          type: 'group' as const,
          label: words ? name : <span className="hidden-but-read">{name}</span>,
          children: steps.map(([path, step]) => ({
            key: `step-${path}`,
            icon: <StepMark state={states[path]} />,
            label: (
              <Link to={pathOf(timerId, path)} aria-current={path === shown ? 'page' : undefined}>
                {step}
              </Link>
            ),
          })),
        }))}
      />
    </Rail>
  );
});
