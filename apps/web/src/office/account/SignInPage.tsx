import { useState, type FormEvent } from 'react';
import { Alert, Button } from 'antd';
import { Link, Navigate } from 'react-router';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useFounding, useForgotten } from '../../data/api/joining.ts';
import { useSignIn, type SessionView } from '../../data/api/people.ts';
import { failureWords, RefusedError } from '../../data/api/request.ts';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';
import { say } from '@water-clock/core';

const CODE_CODES = ['code-needed', 'wrong-code'];

/** Asks for a link to a new password. */
function Forgotten({ email }: { readonly email: string }) {
  const { mutate, isPending, isSuccess, error, variables } = useForgotten();
  if (isSuccess)
    return (
      <Alert
        type="info"
        title={say`If ${variables} has an account, we sent a link to set a new password. It works for two hours. Without a mail server, your company’s owner finds it under Company, Mail.`}
      />
    );
  return (
    <>
      <Button loading={isPending} onClick={() => mutate(email)}>{say`Forgot password?`}</Button>
      {error && (
        <p role="alert" className="fault">
          {faultAt(error, 'email') ?? failureWords(error, say`Link not requested`)}
        </p>
      )}
    </>
  );
}

function FoundLink() {
  const founding = useFounding();
  // No one has an account yet: the first visit creates the company.
  if (founding.data === 'code') return <Navigate to="/new-company" replace />;
  if (founding.data !== 'open') return null;
  return (
    <p>
      {say`New here?`} <Link to="/new-company">{say`Create your company`}</Link>
    </p>
  );
}

export default function SignInPage({ demo }: Pick<SessionView, 'demo'>) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const signIn = useSignIn();
  const { error } = signIn;
  const [asksCode, setAsksCode] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate(
      { email, password, ...(asksCode ? { code } : {}) },
      {
        onError: (told) =>
          setAsksCode(told instanceof RefusedError && CODE_CODES.includes(told.code)),
      },
    );
  };
  const [emailFault, passwordFault] = [faultAt(error, 'email'), faultAt(error, 'password')];
  const asks = error instanceof RefusedError && error.code === 'code-needed';
  return (
    <div className="page stack slim">
      <PageHeading title={say`Sign in`} />
      <form className="stack" onSubmit={submit} noValidate>
        <TextField
          label={say`E-mail`}
          type="email"
          name="email"
          autoComplete="username"
          value={email}
          set={setEmail}
          fault={emailFault}
        />
        <TextField
          label={say`Password`}
          type="password"
          name="password"
          autoComplete="current-password"
          value={password}
          set={setPassword}
          fault={passwordFault}
        />
        {asksCode && (
          <TextField
            label={say`Code`}
            name="code"
            inputMode="numeric"
            autoComplete="one-time-code"
            autoFocus
            value={code}
            set={setCode}
            hint={say`The six digits shown in your authenticator app.`}
          />
        )}
        {error && !asks && !emailFault && !passwordFault && (
          <p role="alert" className="fault">
            {error.message}
          </p>
        )}
        <Button
          type="primary"
          htmlType="submit"
          size="large"
          loading={signIn.isPending}
        >{say`Sign in`}</Button>
      </form>
      <Forgotten email={email} />
      <FoundLink />
      {demo && (
        <div className="sign-in-demo part stack">
          <p>{say`This is a demo with invented gardens. Look around as ${demo.name}. No real timers are affected.`}</p>
          <Button
            size="large"
            onClick={() => signIn.mutate({ email: demo.email, password: demo.password })}
          >
            {say`Sign in as ${demo.name}`}
          </Button>
        </div>
      )}
    </div>
  );
}
