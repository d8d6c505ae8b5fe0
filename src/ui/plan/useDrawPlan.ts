import { useEffect, useState } from 'react';
import type { DrawnAs } from '@/core/synthesis/from-plan';
import { type Drawing, drawPlan } from '@/session/changes/draw-table';
import { useSession } from '@/ui/lesson/session-context';

/** What draws the circuit of the table that is filled in, and what stops that while it goes on. */
export function useDrawPlan(): { readonly draw: (as: DrawnAs) => void; readonly stop: (() => void) | null } {
  const session = useSession();
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  useEffect(() => () => drawing?.cancel(), [drawing]);
  const draw = (as: DrawnAs) => {
    if (drawing) return;
    const going = drawPlan(session, as);
    setDrawing(going);
    void going?.done.finally(() => setDrawing(null));
  };
  const stop = () => {
    drawing?.cancel();
    setDrawing(null);
  };
  return { draw, stop: drawing && stop };
}
