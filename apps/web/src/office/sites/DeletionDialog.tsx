import { useState } from 'react';
import { Alert, Button, Modal } from 'antd';
import { useDeletion } from '../../data/api/houses.ts';
import { failureWords } from '../../data/api/request.ts';
import { TextField } from '../../shared/fields/TextField.tsx';
import { say } from '@water-clock/core';

interface Props {
  readonly of: 'sites' | 'timers';
  readonly id: string;
  readonly name: string;
  /** Address of the archive. */
  readonly file: string;
  readonly close: () => void;
  readonly done: () => void;
}

/** Permanent deletion, confirmed by typing the name after saving an archive. */
export function DeletionDialog({ of, id, name, file, close, done }: Props) {
  const deletion = useDeletion();
  const [typed, setTyped] = useState('');
  return (
    <Modal
      open
      title={say`Delete ${name} permanently?`}
      onCancel={close}
      footer={[
        <Button key="keep" type="primary" onClick={close}>{say`Keep it`}</Button>,
        <Button
          key="delete"
          danger
          disabled={typed.trim() !== name}
          loading={deletion.isPending}
          onClick={() => deletion.mutate({ of, id, name: typed }, { onSuccess: done })}
        >{say`Delete permanently`}</Button>,
      ]}
    >
      <div className="stack">
        <p>
          {of === 'sites'
            ? say`The site and all its timers will be deleted, with programs, surveys, logbooks and links. You can restore it only from an export.`
            : say`The timer will be deleted, with its programs, survey, logbook and links. You can restore it only from an export.`}
        </p>
        <p>
          <Button href={file}>{say`Export it first`}</Button>
        </p>
        <TextField
          label={say`Type the name to confirm: ${name}`}
          value={typed}
          set={setTyped}
          autoComplete="off"
        />
        {deletion.error && (
          <Alert type="error" title={failureWords(deletion.error, say`Not deleted`)} />
        )}
      </div>
    </Modal>
  );
}
