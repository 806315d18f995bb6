import { lazy, Suspense, useState } from 'react';
import { useKeys } from './useKeys.ts';
import type { Command } from './commands.ts';
import { say } from '@water-clock/core';

const CommandDialog = lazy(() => import('./CommandDialog.tsx'));
const KeysDialog = lazy(() => import('./KeysDialog.tsx'));

interface Props {
  readonly commands: readonly Command[];
  /** Single-key shortcuts of this page. */
  readonly keys?: Readonly<Record<string, () => void>>;
}

/** Ctrl-K or ⌘K, the list of shortcuts, and the page's own. */
export function Commands({ commands, keys = {} }: Props) {
  const [shown, setShown] = useState<'commands' | 'keys' | null>(null);
  useKeys({ ...keys, 'mod+k': () => setShown('commands'), '?': () => setShown('keys') });
  if (shown === null) return null;
  const close = () => setShown(null);
  return (
    <Suspense>
      {shown === 'keys' ? (
        <KeysDialog close={close} />
      ) : (
        <CommandDialog
          close={close}
          commands={[
            ...commands,
            {
              key: 'keys',
              kind: say`Help`,
              name: say`Keyboard shortcuts`,
              run: () => setShown('keys'),
            },
          ]}
        />
      )}
    </Suspense>
  );
}
