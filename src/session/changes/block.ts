import { makeBlock } from '@/core/drawing/editing/make-block';
import { DONE, type Result } from '@/core/values/result';
import type { Session } from '../session';

/** Moves the selection onto a sheet of its own and puts a block in its place. */
export function blockOfSelection(session: Session): Result<undefined> {
  const { lesson, sheetId, selection } = session.state;
  const names = new Set(lesson.sheets.map((s) => s.name));
  let n = 1;
  while (names.has(`Block ${n}`)) n++;
  const made = makeBlock(lesson, sheetId, selection.parts, `Block ${n}`);
  if (!made.ok) {
    session.say(`No block can be made of this: ${made.problem.message}.`, 'bad');
    return made;
  }
  const edited = session.edit(`make “Block ${n}”`, made.value.edit);
  if (!edited.ok) return edited;
  session.select({ parts: new Set([made.value.block]), wires: new Set() });
  session.sayUndoable(`“Block ${n}” has a sheet of its own now; rename it there.`);
  return DONE;
}
