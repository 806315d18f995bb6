/** What a page shows when it has nothing to show, or cannot. */
import { Button } from 'antd';
import { Link } from 'react-router';
import { PageHeading } from './PageHeading.tsx';
import { RefusedError } from '../../data/api/request.ts';
import { say } from '@water-clock/core';

export function Loading({ what }: { readonly what: string }) {
  return <p role="status" className="page soft">{say`Loading ${what} …`}</p>;
}

export function NotFound() {
  return (
    <div className="page">
      <PageHeading title={say`This page does not exist`} />
      <p>
        <Link to="/sites">{say`Go to Sites`}</Link>
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
      <PageHeading title={say`${what} could not be loaded`} />
      <p>
        {error.message}. <Button type="primary" onClick={retry}>{say`Try again`}</Button>
      </p>
    </div>
  );
}
