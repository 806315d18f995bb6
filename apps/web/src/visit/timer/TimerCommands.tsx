import { memo } from 'react';
import { useNavigate } from 'react-router';
import { exportPath } from '../../data/api/timers.ts';
import { useOpenChecks } from '../checks/checksContext.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { Commands } from '../../app/frame/Commands.tsx';
import { pathOf, STEPS } from '../steps/steps.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly timerId: string;
  readonly editor: TimerEditor;
  readonly startVisit: () => void;
}

/** A timer's steps and actions by a few letters, and its shortcuts: `[` and `]` for steps, `u` for undo. */
export const TimerCommands = memo(function TimerCommands({ timerId, editor, startVisit }: Props) {
  const navigate = useNavigate();
  const open = useOpenChecks();
  const go = (index: number) => {
    const step = STEPS[index];
    if (step) void navigate(pathOf(timerId, step[0]));
  };
  /** From the address; the page may follow a key press a moment later. */
  const here = () => {
    const [, , , shown = ''] = location.pathname.split('/');
    return STEPS.findIndex(([path]) => path === (shown === 'walk' ? 'stations' : shown));
  };
  return (
    <Commands
      keys={{ '[': () => go(here() - 1), ']': () => go(here() + 1), u: () => editor.undo() }}
      commands={[
        ...STEPS.map(([path, name], i) => ({
          key: `step-${path}`,
          kind: say`Step`,
          name,
          run: () => go(i),
        })),
        { key: 'visit', kind: say`Actions`, name: say`Start visit`, run: startVisit },
        { key: 'checks', kind: say`Actions`, name: say`Checks`, run: open },
        { key: 'undo', kind: say`Actions`, name: say`Undo`, run: () => editor.undo() },
        { key: 'redo', kind: say`Actions`, name: say`Redo`, run: () => editor.redo() },
        {
          key: 'export',
          kind: say`Actions`,
          name: say`Export the plan`,
          run: () => location.assign(exportPath(timerId)),
        },
        { key: 'print', kind: say`Actions`, name: say`Print this step`, run: () => print() },
        { key: 'today', kind: say`Page`, name: say`Today`, run: () => void navigate('/') },
        { key: 'all', kind: say`Page`, name: say`All sites`, run: () => void navigate('/sites') },
      ]}
    />
  );
});
