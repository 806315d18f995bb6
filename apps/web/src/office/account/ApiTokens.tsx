import { useState, type FormEvent } from 'react';
import { Alert, Button, Typography } from 'antd';
import { useApiTokens, useMakeToken, useWithdrawToken } from '../../data/api/account.ts';
import { failureWords, newId, RefusedError } from '../../data/api/request.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';
import { newToken } from '../../app/platform/token.ts';
import { useMoment } from '../../app/platform/useMoment.ts';
import { say } from '@water-clock/core';

const DAYS = [
  [30, say`a month`],
  [90, say`three months`],
  [365, say`a year`],
] as const;

const makeIds = () => ({ id: newId(), token: newToken() });

/** API tokens for a person's own programs. */
export function ApiTokens() {
  const moment = useMoment();
  const tokens = useApiTokens();
  const make = useMakeToken();
  const withdraw = useWithdrawToken();
  // If the answer is lost, the same token is created again, not a second one.
  const [ids, setIds] = useState(makeIds);
  const [name, setName] = useState('');
  const [days, setDays] = useState(90);
  const [made, setMade] = useState<string | null>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate(
      { ...ids, name, days },
      {
        onSuccess: () => {
          setMade(`wct_${ids.token}`);
          setIds(makeIds());
          setName('');
        },
        onError: (told) => {
          if (told instanceof RefusedError) setIds(makeIds());
        },
      },
    );
  };
  const fault = faultAt(make.error, 'name');
  const error = withdraw.error ?? (fault === undefined ? make.error : null);
  return (
    <section className="stack">
      <h2>{say`API tokens`}</h2>
      <p>
        {say`A program sends`} <code>Authorization: Bearer</code>{' '}
        {say`and a token, and can then do what you can do, except change your account.`}{' '}
        <a href="/api/docs">{say`API documentation`}</a>
      </p>
      {made && (
        <div className="notice">
          <strong>{say`Copy it now. It is shown only once:`}</strong>{' '}
          <Typography.Text code copyable>
            {made}
          </Typography.Text>
        </div>
      )}
      {(tokens.data ?? []).length > 0 && (
        <ul className="list ruled">
          {tokens.data?.map((token) => (
            <li key={token.id}>
              <span>
                <strong>{token.name}</strong>{' '}
                <span className="soft">
                  {token.usedAt === null
                    ? say`valid until ${moment(token.expiresAt)}, never used`
                    : say`valid until ${moment(token.expiresAt)}, last used ${moment(token.usedAt)}`}
                </span>
              </span>
              <Button
                size="small"
                aria-label={say`Revoke ${token.name}`}
                onClick={() => withdraw.mutate(token.id)}
              >{say`Revoke`}</Button>
            </li>
          ))}
        </ul>
      )}
      <form className="stack slim" onSubmit={submit} noValidate>
        <TextField label={say`Purpose`} value={name} set={setName} fault={fault} />
        <SelectField
          label={say`Valid for`}
          value={days}
          options={DAYS}
          pick={(value) => setDays(Number(value))}
        />
        <Button htmlType="submit" loading={make.isPending}>{say`Create token`}</Button>
      </form>
      {error && <Alert type="error" title={failureWords(error, say`Not done`)} />}
    </section>
  );
}
