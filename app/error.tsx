'use client';

import { FailedPage } from '@/ui/controls/FailedPage';

/** Instead of a page that failed. */
export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  return <FailedPage error={error} retry={reset} />;
}
