import { useState, type FormEvent } from 'react';
import { Button, Input } from 'antd';
import { RefusedError } from '../api/request.ts';
import { useSignIn, type SessionView } from '../api/people.ts';

const field = (error: Error | null, path: string) =>
  error instanceof RefusedError ? error.faults.find((fault) => fault.path === path) : undefined;

export default function SignInPage({ demo }: Pick<SessionView, 'demo'>) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useSignIn();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ email, password });
  };
  const { error } = signIn;
  const emailFault = field(error, 'email');
  const passwordFault = field(error, 'password');
  return (
    <div className="page stack column">
      <h1>Sign in</h1>
      <form className="stack" onSubmit={submit} noValidate>
        <label className="labelled">
          E-mail
          <Input
            type="email"
            name="email"
            autoComplete="username"
            value={email}
            aria-invalid={emailFault !== undefined}
            onChange={(event) => setEmail(event.target.value)}
            status={emailFault !== undefined ? 'error' : ''}
          />
          {emailFault && <span className="fault">{emailFault.message}</span>}
        </label>
        <label className="labelled">
          Password
          <Input
            type="password"
            name="password"
            autoComplete="current-password"
            value={password}
            aria-invalid={passwordFault !== undefined}
            onChange={(event) => setPassword(event.target.value)}
            status={passwordFault !== undefined ? 'error' : ''}
          />
          {passwordFault && <span className="fault">{passwordFault.message}</span>}
        </label>
        {error && !emailFault && !passwordFault && (
          <p role="alert" className="fault">
            {error.message}
          </p>
        )}
        <Button type="primary" htmlType="submit" size="large" loading={signIn.isPending}>
          Sign in
        </Button>
      </form>
      {demo && (
        <div className="sign-in-demo part stack">
          <p>
            This is a demonstration with invented gardens. Look around as {demo.name}; nobody's
            timer can be harmed.
          </p>
          <Button
            size="large"
            onClick={() => signIn.mutate({ email: demo.email, password: demo.password })}
          >
            Come in as {demo.name}
          </Button>
        </div>
      )}
    </div>
  );
}
