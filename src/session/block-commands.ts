import type { Session } from './session';

/** Moves what is selected onto a sheet of its own and puts a block in its place. */
export async function blockOfSelection(session: Session): Promise<void> {
  const { makeBlock } = await import('@/core/drawing/make-block');
  const { lesson, sheetId, selection } = session.state;
  const names = new Set(lesson.sheets.map((s) => s.name));
  let n = 1;
  while (names.has(`Block ${n}`)) n++;
  const made = makeBlock(lesson, sheetId, selection.parts, `Block ${n}`);
  if (!made.ok) {
    session.say(`That makes no block: ${made.problem.message}.`, 'bad');
    return;
  }
  if (!session.edit(made.value.edit)) return;
  session.select({ parts: new Set([made.value.block]), wires: new Set() });
  session.say(`“Block ${n}” has a sheet of its own now; rename it there.`, 'calm', () => session.undo());
}
