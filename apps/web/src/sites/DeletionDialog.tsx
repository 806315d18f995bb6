import { useState } from 'react';
import { Alert, Button, Modal } from 'antd';
import { useDeletion } from '../api/houses.ts';
import { failureWords } from '../api/request.ts';
import { TextField } from '../fields/TextField.tsx';

interface Props {
  readonly of: 'sites' | 'timers';
  readonly id: string;
  readonly name: string;
  /** Where it is saved as a file. */
  readonly file: string;
  readonly close: () => void;
  readonly done: () => void;
}

/** Deletes for good, by the name, after it was saved as a file. */
export function DeletionDialog({ of, id, name, file, close, done }: Props) {
  const deletion = useDeletion();
  const [typed, setTyped] = useState('');
  return (
    <Modal
      open
      title={`Delete ${name} for good?`}
      onCancel={close}
      footer={[
        <Button key="keep" type="primary" onClick={close}>
          Keep it
        </Button>,
        <Button
          key="delete"
          danger
          disabled={typed.trim() !== name}
          loading={deletion.isPending}
          onClick={() => deletion.mutate({ of, id, name: typed }, { onSuccess: done })}
        >
          Delete for good
        </Button>,
      ]}
    >
      <div className="stack">
        <p>
          {of === 'sites' ? 'The house goes with all its timers' : 'The timer goes'}, with programs,
          survey, logbook and links. Nothing can be brought back but from a file.
        </p>
        <p>
          <Button href={file}>Save it as a file first</Button>
        </p>
        <TextField
          label={`Type its name: ${name}`}
          value={typed}
          set={setTyped}
          autoComplete="off"
        />
        {deletion.error && (
          <Alert type="error" title={failureWords(deletion.error, 'Not deleted')} />
        )}
      </div>
    </Modal>
  );
}
