import { freshId, type Sheet } from '@/core/circuit/sheet';
import type { Counter } from '@/core/synthesis/counter';
import type { Result } from '@/core/values/result';
import type { Session } from '../session';

/** Puts a counter on a sheet of its own, in one step of undo, and opens it. */
export function drawCounter(session: Session, { sheet }: Counter): Result<undefined> {
  const { lesson } = session.state;
  const taken = new Map(lesson.sheets.map((s) => [s.id, s]));
  const names = new Set(lesson.sheets.map((s) => s.name));
  let name = sheet.name;
  for (let n = 2; names.has(name); n++) name = `${sheet.name} ${n}`;
  const own: Sheet = { ...sheet, id: freshId(taken, 'sheet'), name };
  const drawn = session.edit(`draw “${name}”`, { type: 'addSheet', sheet: own, at: lesson.sheets.length });
  if (drawn.ok) session.openSheet(own.id);
  return drawn;
}
