import { useState, type FormEvent } from 'react';
import { Alert, Button, Checkbox, Typography } from 'antd';
import {
  useApiTokens,
  useMakeToken,
  useWithdrawToken,
  type Scope,
} from '../../data/api/account.ts';
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

const SCOPES: readonly { readonly value: Scope; readonly label: string }[] = [
  { value: 'read', label: say`Read everything you can see` },
  { value: 'write', label: say`Change sites and timers` },
  { value: 'calendar', label: say`Read and plan visits` },
];
const scopesWords = (scopes: readonly Scope[]) =>
  SCOPES.filter(({ value }) => scopes.includes(value))
    .map(({ label }) => label)
    .join(', ');

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
  const [scopes, setScopes] = useState<readonly Scope[]>(['read']);
  const [password, setPassword] = useState('');
  const [days, setDays] = useState(90);
  const [made, setMade] = useState<string | null>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate(
      { ...ids, name, scopes, password, days },
      {
        onSuccess: () => {
          setMade(`wct_${ids.token}`);
          setIds(makeIds());
          setName('');
          setPassword('');
        },
        onError: (told) => {
          if (told instanceof RefusedError) setIds(makeIds());
        },
      },
    );
  };
  const fault = faultAt(make.error, 'name');
  const wrong = fault ?? faultAt(make.error, 'password');
  const error = withdraw.error ?? (wrong === undefined ? make.error : null);
  return (
    <section className="stack">
      <h2>{say`API tokens`}</h2>
      <p>
        {say`A program that sends “Authorization: Bearer” and a token can do what you choose below, but never change your account or the company.`}{' '}
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
                <span className="soft">{scopesWords(token.scopes)}</span>
                <br />
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
        <Checkbox.Group<Scope>
          className="stack near"
          aria-label={say`Scopes`}
          options={[...SCOPES]}
          value={[...scopes]}
          onChange={setScopes}
        />
        <SelectField
          label={say`Valid for`}
          value={days}
          options={DAYS}
          pick={(value) => setDays(Number(value))}
        />
        <TextField
          label={say`Your password, to create the token`}
          type="password"
          value={password}
          set={setPassword}
          fault={faultAt(make.error, 'password')}
          autoComplete="current-password"
        />
        <Button
          htmlType="submit"
          disabled={scopes.length === 0}
          loading={make.isPending}
        >{say`Create token`}</Button>
      </form>
      {error && <Alert type="error" title={failureWords(error, say`Not done`)} />}
    </section>
  );
}
