import type { Point } from '@/core/circuit/geometry';
import type { Sheet } from '@/core/circuit/sheet';
import { pinOf } from '@/core/drawing/geometry/placement';
import { type Diagnostic, isUnfinished } from '@/core/netlist/diagnostic';
import type { SessionState } from '@/session/state';
import type { DraggedObjects, Overlay } from './canvas/scene';
import type { PointerGesture } from './gestures/pointer-gesture';

/** Everything that is painted over the sheet: the selection, the gesture, problems, and lit parts. */
export function overlayOf(
  state: SessionState,
  sheet: Sheet,
  gesture: PointerGesture | undefined,
  dragged: DraggedObjects | null,
  lit: Overlay['lit'],
): Overlay {
  const hover = gesture?.hover ?? null;
  return {
    parts: state.selection.parts,
    wires: state.selection.wires,
    hover: hover && {
      part: hover.is === 'part' ? hover.part : undefined,
      wire: hover.is === 'wire' ? hover.wire : undefined,
      pin: hover.is === 'pin' ? hover.at : undefined,
    },
    lit,
    wirePreview: gesture?.wirePreview ?? [],
    box: gesture?.box ?? null,
    guides: gesture?.guides ?? [],
    border: gesture?.border ?? null,
    touches: gesture?.touches ?? [],
    problems: problemSpots(sheet, state.diagnostics).map(({ at, problem }) => ({
      at,
      grave: !isUnfinished(problem),
    })),
    grid: true,
    dragged,
  };
}

/** The pins of the problems, with their places on the sheet. */
export function problemSpots(
  sheet: Sheet,
  diagnostics: readonly Diagnostic[],
): { at: Point; problem: Diagnostic }[] {
  return diagnostics.flatMap((problem) =>
    problem.pins.flatMap(({ part, port }) => {
      const at = pinOf(sheet, part, port)?.at;
      return at ? [{ at, problem }] : [];
    }),
  );
}
