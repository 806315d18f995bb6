import { Alert, Button, Modal } from 'antd';
import { useEffect, useState } from 'react';
import { useSignOut } from '../api/people.ts';
import { clearDevice, unsentHere, unsentWords } from '../people/device.ts';

/** Signs out: at once where everything has reached the server; else it says what would be lost, and asks. */
export default function SignOutDialog({ close }: { readonly close: () => void }) {
  const { mutate, isPending, isError } = useSignOut(clearDevice);
  const [unsent, setUnsent] = useState<string | null>(null);
  useEffect(() => {
    void unsentHere().then((found) => {
      const words = unsentWords(found);
      if (words === null) mutate();
      else setUnsent(words);
    });
  }, [mutate]);
  if (unsent === null && !isError) return null;
  return (
    <Modal
      open
      title={unsent === null ? 'The server did not answer' : 'Some work is not sent yet'}
      onCancel={close}
      footer={[
        <Button key="out" danger loading={isPending} onClick={() => mutate()}>
          {unsent === null ? 'Try again' : 'Delete and sign out'}
        </Button>,
        <Button key="stay" type="primary" onClick={close}>
          Stay signed in
        </Button>,
      ]}
    >
      {unsent !== null && (
        <p>
          Waiting on this device: {unsent}. To send what waits, open its timer where there is a
          network. If you sign out now, it is deleted.
        </p>
      )}
      {isError && (
        <Alert
          type="error"
          title="Whether you are signed out is not known: the server did not answer. Nothing was deleted on this device."
        />
      )}
    </Modal>
  );
}
