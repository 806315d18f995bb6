import { memo, useState, lazy, Suspense } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  CloudOutlined,
  CloudSyncOutlined,
  DisconnectOutlined,
  MoreOutlined,
  RedoOutlined,
  TeamOutlined,
  UndoOutlined,
} from '@ant-design/icons';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { exportPath, type TimerView } from '../../data/api/timers.ts';
import { ChecksButton } from '../checks/ChecksButton.tsx';
import { Hint } from '../../shared/fields/Hint.tsx';
import { MenuButton } from '../../shared/fields/MenuButton.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { STEPS, type StepPath } from '../steps/steps.ts';
import { say } from '@water-clock/core';

const ImportDialog = lazy(() => import('./ImportDialog.tsx'));
const StepHelp = lazy(() => import('../../app/frame/StepHelp.tsx'));
const RestoreDialog = lazy(() => import('./RestoreDialog.tsx'));

const STATUS_WORDS: Record<Snapshot['status'], string> = {
  saved: say`Saved`,
  saving: say`Saving …`,
  offline: say`We could not confirm your last change. Trying again …`,
  'signed-out': say`Save not confirmed: you are signed out.`,
};

const STATUS_ICONS: Record<Snapshot['status'], React.ReactNode> = {
  saved: <CloudOutlined />,
  saving: <CloudSyncOutlined />,
  offline: <DisconnectOutlined />,
  'signed-out': <DisconnectOutlined />,
};

/** Step in the address. */
function stepHere(): StepPath {
  const [, , , shown = ''] = location.pathname.split('/');
  const path = shown === 'walk' ? 'stations' : shown;
  return STEPS.find(([step]) => step === path)?.[0] ?? '';
}

interface Props {
  readonly editor: TimerEditor;
  /** What is being typed makes no difference here. */
  readonly snapshot: Omit<Snapshot, 'plan'>;
  readonly view: TimerView;
  /** Who else has the timer open. */
  readonly people: readonly string[];
  readonly startVisit: () => void;
}

const SHOWN = ['settled', 'status', 'unsaved', 'canUndo', 'canRedo', 'conflict', 'survey'] as const;

/** Sync status, undo and redo, the checks, import and export. */
export const TimerTools = memo(function TimerTools(props: Props) {
  const { editor, snapshot, view, people, startVisit } = props;
  const { clock } = usePreferences();
  const isPhone = useScreen() === 'phone';
  const [importing, setImporting] = useState(false);
  const [restoring, setRestoring] = useState(false);
  const [helping, setHelping] = useState<StepPath | null>(null);
  const { status, unsaved, canUndo, canRedo } = snapshot;
  const undecided = snapshot.conflict !== null;
  const isFine = status === 'saved' && !undecided;
  const words = undecided ? say`Not saved yet: two changes conflict.` : STATUS_WORDS[status];
  return (
    <div className="timer-tools row in-line near push">
      {people.length > 0 && (
        <Hint title={say`Viewing now: ${people.join(', ')}`}>
          <span className="soft" aria-label={say`Viewing now: ${people.join(', ')}`} role="img">
            <TeamOutlined /> {!isPhone && people.map((name) => name.split(' ')[0]).join(', ')}
          </span>
        </Hint>
      )}
      <span role="status" className={isFine ? 'soft' : 'fault'}>
        {/* On a phone the words would hide the site's name: the count is enough, and the line above says why. */}
        {STATUS_ICONS[status]} {isPhone && !isFine && status !== 'saving' && snapshot.unsaved}
        <span className={isPhone && status !== 'signed-out' ? 'hidden-but-read' : ''}>{words}</span>
      </span>
      {status === 'signed-out' && <Button href={`/timers/${view.id}`}>{say`Sign in again`}</Button>}
      <Hint title={say`Undo (u, Ctrl Z)`}>
        <Button
          icon={<UndoOutlined />}
          aria-label={say`Undo`}
          disabled={!canUndo}
          onClick={() => editor.undo()}
        />
      </Hint>
      {!isPhone && (
        <Hint title={say`Redo (Ctrl Shift Z)`}>
          <Button
            icon={<RedoOutlined />}
            aria-label={say`Redo`}
            disabled={!canRedo}
            onClick={() => editor.redo()}
          />
        </Hint>
      )}
      <ChecksButton />
      <MenuButton
        icon={<MoreOutlined />}
        aria-label={say`More`}
        items={[
          ...(isPhone
            ? [
                {
                  key: 'redo',
                  label: say`Redo`,
                  disabled: !canRedo,
                  onClick: () => editor.redo(),
                },
              ]
            : []),
          {
            key: 'visit',
            label: snapshot.survey.visit ? say`Visit in progress` : say`Start visit`,
            disabled: snapshot.survey.visit !== undefined,
            onClick: startVisit,
          },
          { key: 'import', label: say`Import plan …`, onClick: () => setImporting(true) },
          {
            key: 'export',
            disabled: unsaved > 0,
            label: <a href={exportPath(view.id)}>{say`Export the plan`}</a>,
          },
          { key: 'help', label: say`Help for this step`, onClick: () => setHelping(stepHere()) },
          { key: 'print', label: say`Print this step`, onClick: () => print() },
          {
            key: 'bench',
            label: <Link to={`/bench?timer=${view.id}`}>{say`Open on the bench`}</Link>,
          },
          { key: 'restore', label: say`Restore by phone …`, onClick: () => setRestoring(true) },
        ]}
      />
      {restoring && (
        <Suspense>
          <RestoreDialog
            language={view.site.language}
            timerId={view.id}
            plan={snapshot.settled}
            visit={snapshot.survey.visit}
            close={() => setRestoring(false)}
          />
        </Suspense>
      )}
      {helping !== null && (
        <Suspense>
          <StepHelp path={helping} close={() => setHelping(null)} />
        </Suspense>
      )}
      {importing && (
        <Suspense>
          <ImportDialog
            plan={snapshot.settled}
            clock={clock}
            close={() => setImporting(false)}
            take={(plan) => {
              editor.commit({ type: 'replace-plan', plan });
              setImporting(false);
            }}
          />
        </Suspense>
      )}
    </div>
  );
}, isAsBefore);

function isAsBefore(before: Props, after: Props): boolean {
  return (
    before.editor === after.editor &&
    before.view === after.view &&
    before.people === after.people &&
    SHOWN.every((key) => before.snapshot[key] === after.snapshot[key])
  );
}
