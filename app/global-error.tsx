'use client';

import './globals.css';
import { FailedPage } from '@/ui/controls/FailedPage';

/** Instead of everything, where even what surrounds the pages failed. */
export default function GlobalError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <FailedPage error={error} retry={reset} />
      </body>
    </html>
  );
}
