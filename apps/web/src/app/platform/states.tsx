/** What a page shows that has nothing to show yet, or cannot. */
import { Button } from 'antd';
import { Link } from 'react-router';
import { RefusedError } from '../../data/api/request.ts';
import { say } from '@water-clock/core';

export function Loading({ what }: { readonly what: string }) {
  return <p role="status" className="page soft">{say`Loading ${what} …`}</p>;
}

export function NotFound() {
  return (
    <div className="page">
      <h1>{say`This page does not exist`}</h1>
      <p>
        <Link to="/">{say`Go to Sites`}</Link>
      </p>
    </div>
  );
}

interface FailedProps {
  readonly what: string;
  readonly error: Error;
  readonly retry: () => void;
}

export function Failed({ what, error, retry }: FailedProps) {
  if (error instanceof RefusedError && error.status === 404) return <NotFound />;
  return (
    <div className="page" role="alert">
      <h1>{say`${what} could not be loaded`}</h1>
      <p>
        {error.message}. <Button type="primary" onClick={retry}>{say`Try again`}</Button>
      </p>
    </div>
  );
}
