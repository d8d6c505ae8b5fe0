import { freshId, type Sheet } from '@/core/circuit/lesson';
import type { Counter } from '@/core/synthesis/counter';
import type { Session } from './session';

/** Puts a counter on a sheet of its own, in one step of undo, and opens it. */
export function drawCounter(session: Session, { sheet }: Counter): void {
  const { lesson } = session.state;
  if (lesson.exercise) {
    session.say('An exercise has one sheet.', 'bad');
    return;
  }
  const taken = new Map(lesson.sheets.map((s) => [s.id, s]));
  const names = new Set(lesson.sheets.map((s) => s.name));
  let name = sheet.name;
  for (let n = 2; names.has(name); n++) name = `${sheet.name} ${n}`;
  const own: Sheet = { ...sheet, id: freshId(taken, 'sheet'), name };
  if (session.edit({ type: 'addSheet', sheet: own, at: lesson.sheets.length })) session.openSheet(own.id);
}
