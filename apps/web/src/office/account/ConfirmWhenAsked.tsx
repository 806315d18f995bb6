import { lazy, Suspense, useEffect, useState } from 'react';
import { confirming } from '../../data/api/confirming.ts';

const ConfirmPassword = lazy(() => import('./ConfirmPassword.tsx'));

/** Opens the password dialog when a request needs it. */
export function ConfirmWhenAsked() {
  const [answer, setAnswer] = useState<{ readonly with: (given: boolean) => void } | null>(null);
  useEffect(() => {
    confirming.askedBy(() => new Promise((resolve) => setAnswer({ with: resolve })));
    return () => confirming.askedBy(null);
  }, []);
  return (
    answer && (
      <Suspense>
        <ConfirmPassword
          done={(given) => {
            setAnswer(null);
            answer.with(given);
          }}
        />
      </Suspense>
    )
  );
}
