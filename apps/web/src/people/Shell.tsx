import { lazy } from 'react';
import { Button } from 'antd';
import { Link, Outlet } from 'react-router';
import { Failed, Loading } from '../platform/states.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { useSession, useSignOut } from '../api/people.ts';
import './shell.css';

const SignInPage = lazy(() => import('./SignInPage.tsx'));

/** The frame of every page: who is here, how hours are written, and the way home. Shows the sign-in to strangers. */
export function Shell() {
  const session = useSession();
  const signOut = useSignOut();
  const { clock, setClock, theme, setTheme } = usePreferences();
  if (session.isPending) return <Loading what="your sites" />;
  if (session.isError)
    return <Failed what="Water Clock" error={session.error} retry={() => void session.refetch()} />;
  const { person, demo } = session.data;
  return (
    <>
      <header className="shell">
        <Link to="/" className="shell-home">
          <img src="/icon.svg" alt="" width="28" height="28" />
          <span className="shell-name">Water Clock</span>
        </Link>
        {person && <span className="shell-company soft">{person.company}</span>}
        {person && (
          <Link to="/due" className="shell-link">
            Due
          </Link>
        )}
        {person && (
          <Link to="/library" className="shell-link">
            Library
          </Link>
        )}
        <span className="shell-tools">
          <Button
            aria-label={clock === '12' ? '5:30 pm: switch to 17:30' : '17:30: switch to 5:30 pm'}
            onClick={() => setClock(clock === '12' ? '24' : '12')}
          >
            {clock === '12' ? '5:30 pm' : '17:30'}
          </Button>
          <Button
            aria-label={theme === 'day' ? 'Dark screen' : 'Bright screen'}
            onClick={() => setTheme(theme === 'day' ? 'night' : 'day')}
          >
            {theme === 'day' ? 'Dark' : 'Bright'}
          </Button>
          {person && (
            <Button onClick={() => signOut.mutate()}>
              Sign out<span className="hidden-but-read"> {person.name}</span>
            </Button>
          )}
        </span>
      </header>
      <main>{person ? <Outlet /> : <SignInPage demo={demo} />}</main>
    </>
  );
}
