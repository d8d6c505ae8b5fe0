'use client';

import './globals.css';
import { FailedPage } from '@/ui/controls/FailedPage';

/** Shown in place of everything when the layout around the pages fails. */
export default function GlobalError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <FailedPage error={error} retry={reset} />
      </body>
    </html>
  );
}
