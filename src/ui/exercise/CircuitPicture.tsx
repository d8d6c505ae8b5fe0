'use client';

import { useEffect, useState } from 'react';
import type { TaskPicture } from '@/core/circuit/exercise';
import { sheetsGiven } from '@/core/exercise/begin';
import { load } from '@/loading/load';
import { STILL_DRAWN } from '@/ui/controls/when-drawn';

/** A circuit in the words of a task, drawn as on paper in both themes. */
export function CircuitPicture({ picture: { name, circuit } }: { readonly picture: TaskPicture }) {
  const [drawn, setDrawn] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    load('the pictures of circuits', () => import('@/core/formats/svg'))
      .then(({ writeSvg }) => {
        if (!left) setDrawn(writeSvg(sheetsGiven(circuit)[0]!, circuit.settings));
      })
      // The words stand without it, and its name in its place.
      .catch(() => {
        if (!left) setDrawn('');
      });
    return () => {
      left = true;
    };
  }, [circuit]);
  if (!drawn)
    return (
      <span className="text-quiet" {...(drawn === null && STILL_DRAWN)}>
        {name}
      </span>
    );
  return (
    // biome-ignore lint/performance/noImgElement: the picture is made here, there is nothing to fetch
    <img
      src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawn)}`}
      alt={name}
      className="my-1 max-h-72 max-w-full rounded-lg bg-white p-2"
    />
  );
}
