import { Alert, Button, Modal } from 'antd';
import { useEffect, useState } from 'react';
import { useSignOut } from '../../data/api/people.ts';
import { clearTimer, unsentHere, unsentWords } from '../../office/account/device.ts';
import { say } from '@water-clock/core';

/** Signs out at once if everything is saved; otherwise says what would be lost and asks. */
export default function SignOutDialog({ close }: { readonly close: () => void }) {
  const { mutate, isPending, isError } = useSignOut(clearTimer);
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
      title={unsent === null ? say`The server did not answer` : say`Some work has not been sent`}
      onCancel={close}
      footer={[
        <Button key="out" danger loading={isPending} onClick={() => mutate()}>
          {unsent === null ? say`Try again` : say`Delete and sign out`}
        </Button>,
        <Button key="stay" type="primary" onClick={close}>{say`Stay signed in`}</Button>,
      ]}
    >
      {unsent !== null && (
        <p>{say`Waiting on this device: ${unsent}. To send it, open its timer while online. If you sign out now, it is deleted.`}</p>
      )}
      {isError && (
        <Alert
          type="error"
          title={say`We could not confirm that you are signed out. Nothing was deleted on this device.`}
        />
      )}
    </Modal>
  );
}
