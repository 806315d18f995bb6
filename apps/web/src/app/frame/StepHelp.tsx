import { HELP } from '../../visit/steps/help.ts';
import { nameOf, type StepPath } from '../../visit/steps/steps.ts';
import { SideDrawer } from './SideDrawer.tsx';
import { say } from '@water-clock/core';

/** Help for the current step: one paragraph and a picture. */
export default function StepHelp({
  path,
  close,
}: {
  readonly path: StepPath;
  readonly close: () => void;
}) {
  const name = nameOf(path);
  return (
    <SideDrawer title={name} open close={close}>
      <p>{HELP[path]}</p>
      <img
        width="100%"
        src={`/help/${path || 'programs'}.webp`}
        alt={say`The step “${name}” for a sample garden`}
      />
      <p className="soft">{say`Press ? to see all keyboard shortcuts.`}</p>
    </SideDrawer>
  );
}
