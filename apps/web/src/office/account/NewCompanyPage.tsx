import { useState, type FormEvent } from 'react';
import { Alert, Button } from 'antd';
import { Link } from 'react-router';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useFound, useFounding } from '../../data/api/joining.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useComeIn } from './useComeIn.ts';
import { say } from '@water-clock/core';

/** A new company and its owner. */
export default function NewCompanyPage() {
  const founding = useFounding();
  const found = useFound();
  const comeIn = useComeIn();
  // Made once, so that pressing twice creates one company.
  const [ids] = useState(() => ({ id: newId(), personId: newId() }));
  const [typed, setTyped] = useState({ company: '', name: '', email: '', password: '', code: '' });
  if (founding.isPending) return <Loading what={say`the page`} />;
  if (founding.isError)
    return (
      <Failed what={say`The page`} error={founding.error} retry={() => void founding.refetch()} />
    );
  if (founding.data === 'closed' && !found.isSuccess)
    return (
      <main className="page stack slim">
        <PageHeading title={say`New companies cannot be created here`} />
        <p>{say`Ask your company’s owner to invite you.`}</p>
        <Link to="/">{say`Sign in`}</Link>
      </main>
    );
  const { error } = found;
  const field = (name: keyof typeof typed) => ({
    name,
    value: typed[name],
    fault: faultAt(error, name),
    set: (value: string) => setTyped((before) => ({ ...before, [name]: value })),
  });
  const asksCode = founding.data === 'code';
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const code = asksCode ? typed.code : null;
    found.mutate(
      { ...ids, ...typed, code },
      { onSuccess: ({ email }) => comeIn(email, typed.password) },
    );
  };
  const told = Object.keys(typed).some((name) => faultAt(error, name) !== undefined);
  return (
    <main className="page stack slim">
      <PageHeading title={say`Create your company`} />
      <p>{say`You become its owner and can invite others right away.`}</p>
      <form className="stack" onSubmit={submit} noValidate>
        {asksCode && (
          <TextField
            {...field('code')}
            label={say`One-time code`}
            autoComplete="off"
            hint={say`The start command printed it.`}
          />
        )}
        <TextField {...field('company')} label={say`Company name`} autoComplete="organization" />
        <TextField {...field('name')} label={say`Your name`} autoComplete="name" />
        <TextField {...field('email')} label={say`E-mail`} type="email" autoComplete="username" />
        <TextField
          {...field('password')}
          label={say`Password`}
          type="password"
          autoComplete="new-password"
          hint={say`At least 10 characters. Three words are easy to remember.`}
        />
        {error && !told && (
          <Alert type="error" title={failureWords(error, say`Company not created`)} />
        )}
        <Button
          type="primary"
          htmlType="submit"
          size="large"
          loading={found.isPending}
        >{say`Create company`}</Button>
      </form>
      {!asksCode && <Link to="/">{say`Sign in to an existing company`}</Link>}
    </main>
  );
}
