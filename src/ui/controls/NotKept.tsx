'use client';

import { useEffect } from 'react';
import { isStoreKept, isWorkUnkept } from '@/store/database';

function askFirst(event: BeforeUnloadEvent): void {
  if (isWorkUnkept()) event.preventDefault();
}

/**
 * Says that this browser keeps nothing, where it does not, and asks before what was done goes with the page; to be shown
 * once the store is open.
 */
export function NotKept() {
  useEffect(() => {
    window.addEventListener('beforeunload', askFirst);
    return () => window.removeEventListener('beforeunload', askFirst);
  }, []);
  if (isStoreKept()) return null;
  return (
    <p role="status" className="rounded-xl border border-bad bg-raised px-3 py-1.5 text-sm">
      This browser keeps no data for this page (private window, or site data blocked). Everything works until
      the page is closed or reloaded: save what you want to keep as a file.
    </p>
  );
}
