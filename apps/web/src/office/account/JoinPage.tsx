import { useState, type FormEvent } from 'react';
import { Alert, Button } from 'antd';
import { Link } from 'react-router';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useJoin, useLinkPurpose } from '../../data/api/joining.ts';
import { failureWords, newId, RefusedError } from '../../data/api/request.ts';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { roleName } from './roles.ts';
import { useComeIn } from './useComeIn.ts';
import { say } from '@water-clock/core';

/** For people with a link: an invitation, or a new password. The token is after the #, so the browser sends it to no one. */
export default function JoinPage() {
  const [token] = useState(() => location.hash.slice(1));
  const [personId] = useState(newId);
  const [password, setPassword] = useState('');
  const link = useLinkPurpose(token);
  const join = useJoin(token);
  const comeIn = useComeIn();
  if (link.isPending) return <Loading what={say`your link`} />;
  if (link.error instanceof RefusedError)
    return (
      <main className="page stack slim">
        <PageHeading title={say`This link does not work`} />
        <p>{link.error.message}.</p>
        <Link to="/">{say`Sign in`}</Link>
      </main>
    );
  if (link.isError)
    return <Failed what={say`Your link`} error={link.error} retry={() => void link.refetch()} />;
  const { purpose, company, name, email, role } = link.data;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    join.mutate({ personId, password }, { onSuccess: () => comeIn(email, password) });
  };
  const fault = faultAt(join.error, 'password');
  return (
    <main className="page stack slim">
      <PageHeading
        title={purpose === 'invitation' ? say`Welcome to ${company}` : say`A new password`}
      />
      <p>
        {purpose === 'invitation'
          ? role === null
            ? say`${name}, you are invited. Choose a password to join.`
            : say`${name}, you are invited as ${roleName(role).toLowerCase()}. Choose a password to join.`
          : say`${name}, choose a new password for ${company}. You will be signed out everywhere else.`}
      </p>
      <form className="stack" onSubmit={submit} noValidate>
        <TextField
          label={say`E-mail`}
          type="email"
          name="email"
          autoComplete="username"
          value={email}
          disabled
          set={() => undefined}
        />
        <TextField
          label={say`Password`}
          type="password"
          name="password"
          autoComplete="new-password"
          value={password}
          set={setPassword}
          fault={fault}
          hint={say`At least 10 characters. Three words are easy to remember.`}
        />
        {join.error && fault === undefined && (
          <Alert type="error" title={failureWords(join.error, say`Not done`)} />
        )}
        <Button type="primary" htmlType="submit" size="large" loading={join.isPending}>
          {purpose === 'invitation' ? say`Join company` : say`Set password`}
        </Button>
      </form>
    </main>
  );
}
