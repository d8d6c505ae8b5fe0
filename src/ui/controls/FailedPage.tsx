import { WholePage } from './WholePage';

/** A page that failed as a whole: the error, and the remedies. */
export function FailedPage({ error, retry }: { error: Error; retry: () => void }) {
  return (
    <WholePage title="This page stopped with an unexpected error">
      <p className="max-w-md text-quiet">
        Lessons are kept in this browser after each change: what was saved is not affected.
      </p>
      <p className="max-w-md text-sm text-quiet">{error.message}</p>
      <button type="button" className="button main" onClick={retry}>
        Try again
      </button>
    </WholePage>
  );
}
