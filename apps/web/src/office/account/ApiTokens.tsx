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

/** Tokens by which one's own programs use the API. */
export function ApiTokens() {
  const moment = useMoment();
  const tokens = useApiTokens();
  const make = useMakeToken();
  const withdraw = useWithdrawToken();
  // If the answer is lost on the way, the same one is made again, once.
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
      <h2>{say`Tokens for programs`}</h2>
      <p>
        {say`A program that sends`} <code>Authorization: Bearer</code>{' '}
        {say`and a token does what you may do, but for your account.`}{' '}
        <a href="/api/docs">{say`What it can ask`}</a>
      </p>
      {made && (
        <div className="notice">
          <strong>{say`Copy it now; it is shown once:`}</strong>{' '}
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
                  {say`until ${moment(token.expiresAt)},`}{' '}
                  {token.usedAt === null ? say`never used` : say`last used ${moment(token.usedAt)}`}
                </span>
              </span>
              <Button
                size="small"
                aria-label={say`Withdraw ${token.name}`}
                onClick={() => withdraw.mutate(token.id)}
              >{say`Withdraw`}</Button>
            </li>
          ))}
        </ul>
      )}
      <form className="stack slim" onSubmit={submit} noValidate>
        <TextField label={say`What it is for`} value={name} set={setName} fault={fault} />
        <SelectField
          label={say`Good for`}
          value={days}
          options={DAYS}
          pick={(value) => setDays(Number(value))}
        />
        <Button htmlType="submit" loading={make.isPending}>{say`Make a token`}</Button>
      </form>
      {error && <Alert type="error" title={failureWords(error, say`Not done`)} />}
    </section>
  );
}
