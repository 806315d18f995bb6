import { memo, useState } from 'react';
import { Button } from 'antd';
import { usePreferences } from '../platform/preferences.tsx';
import type { Snapshot, TimerEditor } from '../editor/editor.ts';
import { ImportDialog } from './ImportDialog.tsx';
import { exportPath, type TimerView } from '../api/timers.ts';

const STATUS_WORDS: Record<Snapshot['status'], string> = {
  saved: 'All saved',
  saving: 'Saving …',
  offline: 'Not saved yet: the server cannot be reached. Trying again …',
  'signed-out': 'Not saved yet: you are signed out.',
};

interface Props {
  readonly editor: TimerEditor;
  /** What is being typed makes no difference here. */
  readonly snapshot: Omit<Snapshot, 'plan'>;
  readonly view: TimerView;
}

const SHOWN = ['settled', 'status', 'unsaved', 'canUndo', 'canRedo', 'conflict'] as const;

/** Whether all is saved, undo and redo, and the way out and in as a document. */
export const TimerTools = memo(function TimerTools({ editor, snapshot, view }: Props) {
  const { clock } = usePreferences();
  const [importing, setImporting] = useState(false);
  const undecided = snapshot.conflict !== null;
  return (
    <div className="timer-tools">
      <span role="status" className={snapshot.status === 'saved' && !undecided ? 'soft' : 'fault'}>
        {undecided ? 'Not saved yet: two changes meet.' : STATUS_WORDS[snapshot.status]}
      </span>
      {snapshot.status === 'signed-out' && (
        <Button href={`/timers/${view.id}`}>Sign in again</Button>
      )}
      <Button disabled={!snapshot.canUndo} onClick={() => editor.undo()} title="Ctrl Z">
        Undo
      </Button>
      <Button disabled={!snapshot.canRedo} onClick={() => editor.redo()} title="Ctrl Shift Z">
        Redo
      </Button>
      <Button onClick={() => setImporting(true)}>Import</Button>
      <Button href={exportPath(view.id)} disabled={snapshot.unsaved > 0}>
        Export
      </Button>
      {importing && (
        <ImportDialog
          plan={snapshot.settled}
          clock={clock}
          close={() => setImporting(false)}
          take={(plan) => {
            editor.commit({ type: 'replace-plan', plan });
            setImporting(false);
          }}
        />
      )}
    </div>
  );
}, isAsBefore);

function isAsBefore(before: Props, after: Props): boolean {
  return (
    before.editor === after.editor &&
    before.view === after.view &&
    SHOWN.every((key) => before.snapshot[key] === after.snapshot[key])
  );
}
