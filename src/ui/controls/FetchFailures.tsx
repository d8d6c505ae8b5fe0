'use client';

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { loading, reloadOnce, watchForUpdate } from '@/loading/load';

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
  const [isLater, setLater] = useState(false);
  useEffect(watchForUpdate, []);
  if (failing.length === 0) return isOutdated && !isLater ? <Updated onLater={() => setLater(true)} /> : null;
  const what = [...new Set(failing.map((f) => f.what))].join(', ');
  return (
    <div
      role="alert"
      // Whoever has it fetched again still wants it: this is no press elsewhere.
      onPointerDown={(event) => event.stopPropagation()}
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

/** Tells that the server has a newer build; nothing of this page has failed yet. */
function Updated({ onLater }: { onLater: () => void }) {
  return (
    <div
      role="status"
      className="fixed bottom-4 left-4 z-[70] flex max-w-[min(30rem,92vw)] items-center gap-3 rounded-xl border border-accent bg-raised px-4 py-2.5 shadow-lg"
    >
      <span>Manege was updated on the server. This page goes on as it is until it is reloaded.</span>
      <button type="button" className="button small" onClick={() => location.reload()}>
        Reload
      </button>
      <button type="button" className="icon-button" aria-label="Later" onClick={onLater}>
        ×
      </button>
    </div>
  );
}
