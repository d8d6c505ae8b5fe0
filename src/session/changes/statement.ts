import type { Point } from '@/core/circuit/geometry';
import { type Drawn, drawStatement } from '@/core/synthesis/draw-statement';
import { readStatement } from '@/core/synthesis/statement';
import { DONE, type Result, refused } from '@/core/values/result';
import type { Session } from '../session';
import { addSheet } from './sheets';

/** The typed line that begins another sheet: `sheet Full adder`. */
export const SHEET = /^sheet\s+(?=\S)/i;

/** Runs a typed line that places no part: another sheet, or a statement. */
export function typedLine(session: Session, text: string, at: Point): Result<undefined> {
  const line = text.trim();
  if (!SHEET.test(line)) return drawTyped(session, line, at);
  return addSheet(session, line.replace(SHEET, ''));
}

const saidOf = ({ name, was }: Drawn['redefined'][number]): string =>
  was === 'switch' ? `${name} is no longer a switch: the statement drives it.` : `${name} is redefined.`;

/** Draws a typed statement, `Sum = A xor B`, in one step of undo, and selects it. */
function drawTyped(session: Session, text: string, at: Point): Result<undefined> {
  const { lesson, sheetId } = session.state;
  if (session.state.rules.drawing === 'by hand')
    return refused('by-hand', 'in this task the circuit is drawn by hand, part by part');
  const read = readStatement(lesson, sheetId, text);
  if (!read.ok) return read;
  const { edit, parts, redefined } = drawStatement(lesson, sheetId, read.value, at);
  const added = edit.type === 'group' ? edit.edits : [edit];
  const drawn = session.edit(`draw ${text.slice(0, 40)}`, edit);
  if (!drawn.ok) return drawn;
  session.select({ parts: new Set(parts), wires: new Set() });
  session.lookAtAll('parts');
  if (redefined.length > 0) session.sayUndoable(redefined.map(saidOf).join(' '));
  const opened = added.find((e) => e.type === 'changePart' && e.sheet !== sheetId);
  const inside = opened && 'sheet' in opened && lesson.sheets.find((s) => s.id === opened.sheet);
  if (inside) session.sayUndoable(`The switches and lamps of “${inside.name}” are its ports now.`);
  return DONE;
}
