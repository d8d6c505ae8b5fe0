'use client';

import { useEffect, useState } from 'react';
import type { Pane } from '@/ui/controls/Split';

/** One pane at a time, the others behind tabs; a face that is opened comes to the front. */
export function Tabs({ panes }: { panes: readonly Pane[] }) {
  const [chosen, setChosen] = useState('drawing');
  const keys = panes.map(({ key }) => key).join(' ');
  const [known, setKnown] = useState(keys);
  useEffect(() => {
    const added = keys.split(' ').find((key) => !known.split(' ').includes(key));
    if (added) setChosen(added);
    setKnown(keys);
  }, [keys, known]);
  const shown = panes.some((p) => p.key === chosen) ? chosen : 'drawing';
  return (
    <>
      <div role="tablist" aria-label="Faces" className="mb-1.5 flex gap-1 overflow-x-auto">
        {panes.map(({ key, name }) => (
          <button
            key={key}
            type="button"
            role="tab"
            id={`tab-${key}`}
            aria-controls={`face-${key}`}
            aria-selected={key === shown}
            className={`h-8 shrink-0 cursor-pointer rounded-full px-3 ${key === shown ? 'bg-accent-soft font-semibold text-accent' : ''}`}
            onClick={() => setChosen(key)}
          >
            {name}
          </button>
        ))}
      </div>
      {panes.map(({ key, node }) => (
        <div
          key={key}
          role="tabpanel"
          id={`face-${key}`}
          aria-labelledby={`tab-${key}`}
          hidden={key !== shown}
          className={key === shown ? 'flex min-h-0 flex-1 flex-col' : ''}
        >
          {node}
        </div>
      ))}
    </>
  );
}
