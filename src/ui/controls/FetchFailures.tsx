'use client';

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { loading, reloadOnce } from '@/loading/load';

/**
 * Tells which part of Manege cannot be fetched while it is retried, and reloads, once, a page whose server
 * has another build by now.
 */
export function FetchFailures() {
  const { failing, isOutdated } = useStore(loading);
  const [isReloading, setReloading] = useState(false);
  const isStuck = isOutdated && failing.length > 0;
  useEffect(() => {
    if (!isStuck) return;
    setReloading(true);
    void reloadOnce().then(setReloading);
  }, [isStuck]);
  if (failing.length === 0) return null;
  const what = [...new Set(failing.map((f) => f.what))].join(', ');
  return (
    <div
      role="alert"
      className="fixed top-16 left-1/2 z-[70] flex max-w-[min(44rem,92vw)] -translate-x-1/2 items-center gap-3 rounded-xl border border-bad bg-raised px-4 py-2.5 shadow-lg"
    >
      {isReloading ? (
        <span>Manege was updated on the server. This page reloads; all you did is kept.</span>
      ) : (
        <>
          <span>
            {isOutdated
              ? `Manege was updated on the server, and this page is too old for ${what}. Reload it; what was saved stays.`
              : `Could not fetch ${what}. Trying again; what you did waits for it.`}
          </span>
          <button
            type="button"
            className="button small"
            onClick={() => (isOutdated ? location.reload() : failing.map((f) => f.retry()))}
          >
            {isOutdated ? 'Reload' : 'Try again'}
          </button>
        </>
      )}
    </div>
  );
}
