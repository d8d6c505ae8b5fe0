import { useEffect, useState } from 'react';
import type { CircuitForm } from '@/core/synthesis/circuit-of-spec';
import { type DrawingJob, drawSpec } from '@/session/changes/draw-table';
import { useSession } from '@/ui/session/session-context';

/** Draws the circuit of the filled-in table, and stops while that is under way. */
export function useDrawSpec(): {
  readonly draw: (as: CircuitForm) => void;
  readonly stop: (() => void) | null;
} {
  const session = useSession();
  const [drawing, setDrawing] = useState<DrawingJob | null>(null);
  useEffect(() => () => drawing?.cancel(), [drawing]);
  const draw = (as: CircuitForm) => {
    if (drawing) return;
    const going = drawSpec(session, as);
    setDrawing(going);
    void going?.done.finally(() => setDrawing(null));
  };
  const stop = () => {
    drawing?.cancel();
    setDrawing(null);
  };
  return { draw, stop: drawing && stop };
}
