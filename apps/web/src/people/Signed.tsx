import { lazy } from 'react';
import { Outlet } from 'react-router';
import { Failed, Loading } from '../platform/states.tsx';
import { useSession } from '../api/people.ts';

const SignInPage = lazy(() => import('./SignInPage.tsx'));

/** What is for people who are signed in. Shows the sign-in to strangers. */
export function Signed() {
  const session = useSession();
  if (session.isPending) return <Loading what="your sites" />;
  if (session.isError)
    return <Failed what="Water Clock" error={session.error} retry={() => void session.refetch()} />;
  const { person, demo } = session.data;
  if (person) return <Outlet />;
  return (
    <main>
      <SignInPage demo={demo} />
    </main>
  );
}
