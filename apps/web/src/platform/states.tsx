/** What a page shows that has nothing to show yet, or cannot. */
import { Button } from 'antd';
import { Link } from 'react-router';
import { RefusedError } from '../api/request.ts';

export function Loading({ what }: { readonly what: string }) {
  return (
    <p role="status" className="page soft">
      Fetching {what} …
    </p>
  );
}

export function NotFound() {
  return (
    <div className="page">
      <h1>There is nothing at this address</h1>
      <p>
        <Link to="/">Go to your sites</Link>
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
      <h1>{what} could not be fetched</h1>
      <p>
        {error.message}.{' '}
        <Button type="primary" onClick={retry}>
          Try again
        </Button>
      </p>
    </div>
  );
}
