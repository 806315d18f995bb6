import { useRef, useState, type FormEvent } from 'react';
import { Alert, Button, Modal } from 'antd';
import { useMutation } from '@tanstack/react-query';
import { say } from '@water-clock/core';
import { failureWords, request } from '../../data/api/request.ts';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';

/** Asks for the password again before something that an unattended browser must not do. */
export default function ConfirmPassword({ done }: { readonly done: (given: boolean) => void }) {
  const [password, setPassword] = useState('');
  const confirm = useMutation({
    mutationFn: () => request<undefined>('POST', '/api/session/confirm', { password }),
    onSuccess: () => done(true),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    confirm.mutate();
  };
  const form = useRef<HTMLFormElement>(null);
  const fault = faultAt(confirm.error, 'password');
  return (
    <Modal
      open
      title={say`Confirm your password`}
      onCancel={() => done(false)}
      footer={null}
      afterOpenChange={(isOpen) => {
        if (isOpen) form.current?.querySelector('input')?.focus();
      }}
    >
      <form ref={form} className="stack" onSubmit={submit} noValidate>
        <p>{say`This step needs it again, because you last gave it some time ago.`}</p>
        <TextField
          label={say`Your password`}
          type="password"
          value={password}
          set={setPassword}
          fault={fault}
          autoComplete="current-password"
        />
        {confirm.error && fault === undefined && (
          <Alert type="error" title={failureWords(confirm.error, say`Not confirmed`)} />
        )}
        <div className="row near">
          <Button
            type="primary"
            htmlType="submit"
            loading={confirm.isPending}
          >{say`Confirm`}</Button>
          <Button onClick={() => done(false)}>{say`Cancel`}</Button>
        </div>
      </form>
    </Modal>
  );
}
