import { lazy, Suspense, useEffect, useState } from 'react';
import { Outlet } from 'react-router';
import { SyncStatus } from '../../data/offline/SyncStatus.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useSession } from '../../data/api/people.ts';
import { PREFIX } from '../../data/offlineCache/pendingKeys.ts';
import { plural, say } from '@water-clock/core';

const NewVersion = lazy(() => import('../../data/offline/NewVersion.tsx'));
const Outbox = lazy(() => import('../../data/offline/Outbox.tsx'));
const SignInPage = lazy(() => import('./SignInPage.tsx'));

/** When someone was removed from the company, hands in what they entered on this device. */
function LeftBehind() {
  const [handed, setHanded] = useState(0);
  useEffect(() => {
    // A stranger's device has nothing, and loads none of this.
    const waits = Object.keys(localStorage).some((key) => key.startsWith(PREFIX));
    if (waits)
      void import('../../data/editor/leaveBehind.ts').then(({ leaveBehind }) =>
        leaveBehind().then(setHanded),
      );
  }, []);
  return handed > 0 ? (
    <p role="status" className="notice">
      {say`You were removed from the company. Your unsent changes were sent to the office: ${plural(handed, '# change', '# changes')}.`}
    </p>
  ) : null;
}

/** Content for signed-in people; strangers see the sign-in page. */
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
        <SyncStatus />
        <Suspense>
          <NewVersion />
          <Outbox />
        </Suspense>
        <Outlet />
      </>
    );
  return (
    <main>
      <LeftBehind />
      <SignInPage demo={demo} />
    </main>
  );
}
