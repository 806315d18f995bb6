import { lazy, Suspense } from 'react';
import { Outlet } from 'react-router';
import { InStep } from '../offline/InStep.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { useSession } from '../api/people.ts';
import { say } from '@water-clock/core';

const NewVersion = lazy(() => import('../offline/NewVersion.tsx'));
const Outbox = lazy(() => import('../offline/Outbox.tsx'));
const SignInPage = lazy(() => import('./SignInPage.tsx'));

/** What is for people who are signed in. Shows the sign-in to strangers. */
export function Signed() {
  const session = useSession();
  if (session.isPending) return <Loading what={say`your sites`} />;
  if (session.isError)
    return (
      <Failed what={say`Water Clock`} error={session.error} retry={() => void session.refetch()} />
    );
  const { person, demo } = session.data;
  if (person)
    return (
      <>
        <InStep />
        <Suspense>
          <NewVersion />
          <Outbox />
        </Suspense>
        <Outlet />
      </>
    );
  return (
    <main>
      <SignInPage demo={demo} />
    </main>
  );
}
