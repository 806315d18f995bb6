import { Drawer } from 'antd';
import { Link } from 'react-router';
import { say } from '@water-clock/core';
import {
  foldsAway,
  pathOf,
  type Phase,
  type Step,
  type StepPath,
  type StepState,
} from '../../visit/steps/steps.ts';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { StepMark } from './Marks.tsx';

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
  /** Only a few steps apply to the timer; the rest fold away. */
  readonly simple: boolean;
  readonly phase: Phase | null;
  readonly close: () => void;
}

/** The steps of a phase in a sheet, on a phone. */
export default function PhaseSteps({ timerId, shown, states, simple, phase, close }: Props) {
  const list = (steps: readonly Step[]) => (
    <ul className="sheet-steps list ruled">
      {steps.map(([path, name]) => (
        <li key={path}>
          <Link
            to={pathOf(timerId, path)}
            aria-current={path === shown ? 'page' : undefined}
            onClick={close}
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
    <Drawer
      placement="bottom"
      size="auto"
      title={phase?.name}
      open={phase !== null}
      onClose={close}
    >
      {phase && (
        <>
          {list(phase.steps.filter(([path]) => !foldsAway(path, simple)))}
          {phase.steps.some(([path]) => foldsAway(path, simple)) && (
            <Disclosure className="sheet-more" summary={say`More steps`}>
              {() => list(phase.steps.filter(([path]) => foldsAway(path, simple)))}
            </Disclosure>
          )}
        </>
      )}
    </Drawer>
  );
}
