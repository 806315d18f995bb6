import { useState, type FormEvent } from 'react';
import { Alert, Button, QRCode, Table } from 'antd';
import Bowser from 'bowser';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import {
  useChangePassword,
  useEndSession,
  useNewFactor,
  useSecondFactor,
  useSessions,
  type SessionEntry,
} from '../../data/api/account.ts';
import { useSession } from '../../data/api/people.ts';
import { failureWords } from '../../data/api/request.ts';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useMoment } from '../../app/platform/useMoment.ts';
import { ApiTokens } from './ApiTokens.tsx';
import { say } from '@water-clock/core';

function PasswordForm() {
  const change = useChangePassword();
  const [typed, setTyped] = useState({ password: '', newPassword: '' });
  const field = (name: keyof typeof typed) => ({
    name,
    type: 'password',
    value: typed[name],
    fault: faultAt(change.error, name),
    set: (value: string) => setTyped((before) => ({ ...before, [name]: value })),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    change.mutate(typed, { onSuccess: () => setTyped({ password: '', newPassword: '' }) });
  };
  const told = field('password').fault ?? field('newPassword').fault;
  return (
    <form className="stack slim" onSubmit={submit} noValidate>
      <h2>{say`Password`}</h2>
      <TextField
        {...field('password')}
        label={say`Current password`}
        autoComplete="current-password"
      />
      <TextField
        {...field('newPassword')}
        label={say`New password`}
        autoComplete="new-password"
        hint={say`At least 10 characters. Three words are easy to remember.`}
      />
      {change.isSuccess && (
        <Alert type="success" title={say`Password changed. You are signed out everywhere else.`} />
      )}
      {change.error && told === undefined && (
        <Alert type="error" title={failureWords(change.error, say`Not changed`)} />
      )}
      <Button htmlType="submit" loading={change.isPending}>{say`Change password`}</Button>
    </form>
  );
}

/** Shows the secret to the app and asks for a code from it. */
function NewFactorForm({ done }: { readonly done: () => void }) {
  const made = useNewFactor();
  const set = useSecondFactor();
  const [code, setCode] = useState('');
  const [password, setPassword] = useState('');
  if (made.isPending) return <Loading what={say`a secret key`} />;
  if (made.isError)
    return <Failed what={say`Secret key`} error={made.error} retry={() => void made.refetch()} />;
  const { secret, address } = made.data;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    set.mutate({ password, secret, code }, { onSuccess: done });
  };
  const told = ['code', 'password'].map((path) => faultAt(set.error, path)).find(Boolean);
  return (
    <form className="stack slim" onSubmit={submit} noValidate>
      <p>{say`Open an authenticator app on your phone, add an account and scan this code. Then type the code the app shows.`}</p>
      <div className="row far">
        <div aria-hidden>
          <QRCode type="svg" value={address} size={180} bordered={false} />
        </div>
        <p>
          {say`No camera? Type this secret key into the app:`}
          <br />
          <code>{secret.replaceAll(/(.{4})/g, '$1 ').trim()}</code>
        </p>
      </div>
      <TextField
        label={say`Code`}
        inputMode="numeric"
        autoComplete="one-time-code"
        value={code}
        set={setCode}
        fault={faultAt(set.error, 'code')}
      />
      <TextField
        label={say`Your password`}
        type="password"
        autoComplete="current-password"
        value={password}
        set={setPassword}
        fault={faultAt(set.error, 'password')}
      />
      {set.error && told === undefined && (
        <Alert type="error" title={failureWords(set.error, say`Not switched on`)} />
      )}
      <div className="row near">
        <Button type="primary" htmlType="submit" loading={set.isPending}>{say`Switch on`}</Button>
        <Button onClick={done}>{say`Cancel`}</Button>
      </div>
    </form>
  );
}

function DropFactorForm({ done }: { readonly done: () => void }) {
  const drop = useSecondFactor();
  const [password, setPassword] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    drop.mutate({ password }, { onSuccess: done });
  };
  const fault = faultAt(drop.error, 'password');
  return (
    <form className="stack slim" onSubmit={submit} noValidate>
      <TextField
        label={say`Your password`}
        type="password"
        autoComplete="current-password"
        value={password}
        set={setPassword}
        fault={fault}
      />
      {drop.error && fault === undefined && (
        <Alert type="error" title={failureWords(drop.error, say`Not switched off`)} />
      )}
      <div className="row near">
        <Button danger htmlType="submit" loading={drop.isPending}>{say`Switch off`}</Button>
        <Button onClick={done}>{say`Keep it`}</Button>
      </div>
    </form>
  );
}

function SecondFactor({ isOn }: { readonly isOn: boolean }) {
  const [isOpen, setOpen] = useState(false);
  const done = () => setOpen(false);
  const Form = isOn ? DropFactorForm : NewFactorForm;
  return (
    <section className="stack">
      <h2>{say`Two-step sign-in`}</h2>
      <p>
        {isOn
          ? say`On. Each sign-in also asks for a code from your authenticator app.`
          : say`Off. Anyone with your password can sign in. With an authenticator app, a stolen password is useless.`}
      </p>
      {isOpen ? (
        <Form done={done} />
      ) : (
        <Button onClick={() => setOpen(true)}>{isOn ? say`Switch off …` : say`Set up …`}</Button>
      )}
    </section>
  );
}

/** `Firefox, Linux`, from a user agent. */
function timerWords(device: string): string {
  if (device === '') return say`Unknown device`;
  const { browser, os, platform } = Bowser.parse(device);
  const where = platform.model ?? os.name;
  return browser.name ? [browser.name, where].filter(Boolean).join(', ') : device;
}

function Sessions() {
  const moment = useMoment();
  const sessions = useSessions();
  const end = useEndSession();
  if (sessions.isPending) return <Loading what={say`where you are signed in`} />;
  if (sessions.isError)
    return (
      <Failed
        what={say`Where you are signed in`}
        error={sessions.error}
        retry={() => void sessions.refetch()}
      />
    );
  return (
    <section className="stack">
      <h2>{say`Where you are signed in`}</h2>
      <Table<SessionEntry>
        rowKey="id"
        size="small"
        pagination={false}
        dataSource={sessions.data}
        columns={[
          {
            title: say`Device`,
            render: (_, { device, isThis }) => (
              <>
                {timerWords(device)}
                {isThis && <div className="soft">{say`this one`}</div>}
              </>
            ),
          },
          { title: say`Last used`, render: (_, { seen }) => moment(seen) },
          { title: say`Since`, responsive: ['md'], render: (_, { since }) => moment(since) },
          {
            title: say`IP address`,
            responsive: ['md'],
            render: (_, { address }) => address ?? '',
          },
          {
            title: <span className="hidden-but-read">{say`Sign out`}</span>,
            render: (_, { id, isThis, device }) =>
              !isThis && (
                <Button
                  size="small"
                  aria-label={say`Sign out ${timerWords(device)}`}
                  onClick={() => end.mutate(id)}
                >{say`Sign out`}</Button>
              ),
          },
        ]}
      />
      {end.error && <Alert type="error" title={failureWords(end.error, say`Not signed out`)} />}
      {sessions.data.length > 1 && (
        <Button onClick={() => end.mutate(null)}>{say`Sign out everywhere else`}</Button>
      )}
    </section>
  );
}

/** The signed-in person's account. */
export default function AccountPage() {
  const person = useSession().data?.person;
  if (!person) return null;
  return (
    <div className="page stack column far">
      <div>
        <PageHeading title={say`Your account`} />
        <p className="soft">
          {person.name}, {person.email}
        </p>
      </div>
      <Sessions />
      <PasswordForm />
      <SecondFactor isOn={person.secondFactor} />
      <ApiTokens />
    </div>
  );
}
