import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { STEPS, type StepPath, type StepState } from './steps.ts';
import './steps.css';

interface Props {
  readonly timerId: string;
  readonly shown: string;
  readonly states: Partial<Record<StepPath, StepState>>;
}

/** The visit in its order: every step with whether it is done, and of the one that is open what is missing. */
export function StepNav({ timerId, shown, states }: Props) {
  const nav = useRef<HTMLElement>(null);
  // On a phone the steps are wider than the screen.
  useEffect(() => {
    const open = nav.current?.querySelector<HTMLElement>('.active');
    if (nav.current && open)
      nav.current.scrollLeft = open.offsetLeft - (nav.current.clientWidth - open.clientWidth) / 2;
  }, [shown]);
  const state = states[STEPS.find(([path]) => path === shown)?.[0] ?? ''];
  return (
    <div className="steps">
      <nav ref={nav} className="timer-views" aria-label="The visit, step by step">
        {STEPS.map(([path, name]) => (
          <Link
            key={path}
            to={path ? `/timers/${timerId}/${path}` : `/timers/${timerId}`}
            className={path === shown ? 'active' : undefined}
            aria-current={path === shown ? 'page' : undefined}
          >
            {name}
            {states[path]?.done === true && (
              <span className="step-done">
                {' '}
                ✓<span className="hidden-but-read"> done</span>
              </span>
            )}
          </Link>
        ))}
      </nav>
      {state && <p className="step-line soft">{state.line}</p>}
    </div>
  );
}
