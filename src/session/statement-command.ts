import type { Point } from '@/core/circuit/geometry';
import { isAllowed } from '@/core/exercise/allowed';
import { findKind } from '@/core/parts/catalogue';
import { drawStatement, readStatement } from '@/core/synthesis/statement';
import { sentence } from '@/core/values/result';
import type { Session } from './session';
import { addSheet } from './sheet-commands';

/** What is typed to begin another sheet: `sheet Full adder`. */
export const SHEET = /^sheet\s+(?=\S)/i;

/** Does what a typed line says that places no part: another sheet, or a statement. @returns what is wrong, or null. */
export function typedLine(session: Session, text: string, at: Point): string | null {
  const line = text.trim();
  if (!SHEET.test(line)) return drawTyped(session, line, at);
  if (session.state.lesson.exercise) return 'An exercise has one sheet.';
  addSheet(session, line.replace(SHEET, ''));
  return null;
}

/**
 * Draws what was typed as `Sum = A xor B`, in one step of undo, and selects it.
 * @returns what is wrong with it, or null.
 */
function drawTyped(session: Session, text: string, at: Point): string | null {
  const { lesson, sheetId } = session.state;
  const read = readStatement(lesson, sheetId, text);
  if (!read.ok) return sentence(read.problem);
  const { edit, parts } = drawStatement(lesson, sheetId, read.value, at);
  const added = edit.type === 'group' ? edit.edits : [edit];
  for (const e of added)
    if (e.type === 'addPart' && !isAllowed(lesson.exercise, e.part.kind))
      return `This exercise does not allow ${findKind(e.part.kind)!.name}.`;
  if (!session.edit(edit)) return null;
  session.select({ parts: new Set(parts), wires: new Set() });
  session.lookAtAll(true);
  const opened = added.find((e) => e.type === 'changePart' && e.sheet !== sheetId);
  const inside = opened && 'sheet' in opened && lesson.sheets.find((s) => s.id === opened.sheet);
  if (inside)
    session.say(`The switches and lamps of “${inside.name}” are its ports now.`, 'calm', () =>
      session.undo(),
    );
  return null;
}
