import type { Point } from '@/core/circuit/geometry';
import { drawStatement, readStatement } from '@/core/drawing/statement';
import { isAllowed } from '@/core/exercise/allowed';
import { findKind } from '@/core/parts/catalogue';
import type { Session } from './session';

/**
 * Draws what was typed as `Sum = A xor B`, in one step of undo, and selects it.
 * @returns what is wrong with it, or null.
 */
export function drawTyped(session: Session, text: string, at: Point): string | null {
  const read = readStatement(session.sheet, text);
  if (!read.ok) return read.problem;
  const { lesson, sheetId } = session.state;
  const { edit, parts } = drawStatement(lesson, sheetId, read.value, at);
  const added = edit.type === 'group' ? edit.edits : [edit];
  for (const e of added)
    if (e.type === 'addPart' && !isAllowed(lesson.exercise, e.part.kind))
      return `This exercise does not allow ${findKind(e.part.kind)!.name}.`;
  if (session.edit(edit)) session.select({ parts: new Set(parts), wires: new Set() });
  return null;
}
