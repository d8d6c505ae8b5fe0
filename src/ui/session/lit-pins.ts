import { useMemo } from 'react';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import { useCrossHighlight } from './cross-highlight';
import { useSessionState } from './session-context';

/** What of a plan is lit because somebody points at it, on the drawing or on a face. */
export interface LitPins {
  /** Whether a drawn part is, by its path. */
  readonly isPart: (part: string) => boolean;
  /** The pins of its units (`U1.3`), and the ends of the wire that is pointed at. */
  readonly pins: ReadonlySet<string>;
  /** Those ends alone; none where no wire is. */
  readonly ends: readonly string[];
  /** Whether a wire of the plan is lit: the pointer is on it or on a unit that it leads to. */
  readonly isWire: (wire: { readonly from: string; readonly to: string }) => boolean;
}

/** What of a plan is lit now. */
export function useLitPins(planned: Pick<SheetPlan, 'plan'> | null): LitPins {
  const lit = useCrossHighlight((p) => p.parts);
  const over = useCrossHighlight((p) => p.over);
  const ends = useCrossHighlight((p) => p.ends);
  const selected = useSessionState((s) => s.selection.parts);
  const path = useSessionState((s) => s.path);
  return useMemo(() => {
    const inside = path.length === 0 ? '' : `${path.join('/')}/`;
    const meant = [
      ...(lit ?? []),
      ...(over === null ? [] : [over]),
      ...[...selected].map((id) => inside + id),
    ];
    const parts = new Set(meant);
    const isPart = (part: string) => parts.has(part) || meant.some((one) => part.startsWith(`${one}/`));
    const pins = new Set(
      (parts.size === 0 ? [] : (planned?.plan.packages ?? [])).flatMap(({ ref, units }) =>
        units
          .filter((unit) => unit.parts.some(isPart))
          .flatMap((unit) => [...unit.pins.keys()].map((pin) => `${ref}.${pin}`)),
      ),
    );
    const [from, to] = ends;
    const isPointedAt = (wire: { from: string; to: string }) =>
      (wire.from === from && wire.to === to) || (wire.from === to && wire.to === from);
    return {
      isPart,
      pins: new Set([...pins, ...ends]),
      ends,
      isWire: (wire) => isPointedAt(wire) || pins.has(wire.from) || pins.has(wire.to),
    };
  }, [lit, over, ends, selected, path, planned]);
}
