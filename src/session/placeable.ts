import { isAllowed } from '@/core/exercise/allowed';
import { blocksFor } from '@/core/netlist/blocks';
import { PLACEABLE } from '@/core/parts/catalogue';
import type { PartKind } from '@/core/parts/part-kind';
import type { Session } from '@/session/session';

/** Whether the open lesson lets a kind be placed: an exercise may not. */
export function allowedIn(session: Session): (kind: string) => boolean {
  return (kind) => isAllowed(session.state.lesson.exercise, kind);
}

/**
 * The parts that can be placed on the open sheet: the catalogue and the lesson's other sheets, as far as an
 * exercise allows.
 */
export function placeable(session: Session): PartKind[] {
  const { lesson, sheetId } = session.state;
  const allowed = allowedIn(session);
  const blocks = lesson.exercise ? [] : blocksFor(lesson, sheetId);
  return [...PLACEABLE.filter((k) => allowed(k.kind)), ...blocks];
}
