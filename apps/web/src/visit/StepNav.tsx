import { NavLink } from 'react-router';
import { STEPS, type StepPath, type StepState } from './steps.ts';
import './visit.css';

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
}

/** The visit in its order: every step with whether it is done, and of the one that is open what is missing. */
export function StepNav({ timerId, shown, states }: Props) {
  const state = states[STEPS.find(([path]) => path === shown)?.[0] ?? ''];
  return (
    <div className="steps">
      <nav className="timer-views" aria-label="The visit, step by step">
        {STEPS.map(([path, name]) => (
          <NavLink key={path} to={path ? `/timers/${timerId}/${path}` : `/timers/${timerId}`} end>
            {name}
            {states[path]?.done === true && (
              <span className="step-done">
                {' '}
                ✓<span className="hidden-but-read"> done</span>
              </span>
            )}
          </NavLink>
        ))}
      </nav>
      {state && <p className="step-line soft">{state.line}</p>}
    </div>
  );
}
