import { useEffect, useState } from 'react';
import type { CircuitForm } from '@/core/synthesis/circuit-of-spec';
import { type Drawing, drawSpec } from '@/session/changes/draw-table';
import { useSession } from '@/ui/session/session-context';

/** What draws the circuit of the table that is filled in, and what stops that while it goes on. */
export function useDrawSpec(): {
  readonly draw: (as: CircuitForm) => void;
  readonly stop: (() => void) | null;
} {
  const session = useSession();
  const [drawing, setDrawing] = useState<Drawing | null>(null);
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
