import { freshId, type Sheet } from '@/core/circuit/sheet';
import { portsFor } from '@/core/drawing/editing/ports';
import { usesOf } from '@/core/netlist/blocks';
import { DONE, type Result } from '@/core/values/result';
import type { Session } from '../session';
import { tellIfPart } from './lesson';

/** Adds an empty sheet and opens it. @param name its name; the next free number without one. */
export function addSheet(session: Session, name = ''): Result<undefined> {
  const { lesson } = session.state;
  const ids = new Set(lesson.sheets.map((s) => s.id));
  const id = freshId(ids, 'sheet');
  const names = new Set(lesson.sheets.map((s) => s.name));
  let n = lesson.sheets.length + 1;
  while (names.has(`Sheet ${n}`)) n++;
  const called = name.trim().slice(0, 60) || `Sheet ${n}`;
  const sheet: Sheet = { id, name: called, parts: new Map(), wires: new Map() };
  const added = session.edit(`add “${called}”`, { type: 'addSheet', sheet, at: lesson.sheets.length });
  if (added.ok) {
    session.openSheet(id);
    tellIfPart(session, called);
  }
  return added;
}

/** Adds a copy of a sheet, with its table and its stimuli, behind it and opens it. */
export function duplicateSheet(session: Session, id: string): Result<undefined> {
  const { sheets } = session.state.lesson;
  const at = sheets.findIndex((s) => s.id === id);
  const original = sheets[at];
  if (!original) return DONE;
  const names = new Set(sheets.map((s) => s.name));
  const stem = original.name.replace(/ \d+$/, '').slice(0, 54);
  let n = 2;
  while (names.has(`${stem} ${n}`)) n++;
  const copy: Sheet = {
    ...original,
    id: freshId(new Set(sheets.map((s) => s.id)), 'sheet'),
    name: `${stem} ${n}`,
  };
  const added = session.edit(`duplicate “${original.name}”`, { type: 'addSheet', sheet: copy, at: at + 1 });
  if (added.ok) session.openSheet(copy.id);
  return added;
}

export function removeSheet(session: Session, id: string): Result<undefined> {
  const name = session.state.lesson.sheets.find((s) => s.id === id)?.name;
  const uses = usesOf(session.state.lesson, id);
  const broken =
    uses > 0
      ? ` ${uses === 1 ? 'A block' : `${uses} blocks`} of it now ${uses === 1 ? 'has' : 'have'} nothing inside.`
      : '';
  const removed = session.edit(`remove “${name}”`, { type: 'removeSheet', id });
  if (removed.ok) session.sayUndoable(`Sheet “${name}” removed.${broken}`);
  return removed;
}

/**
 * Turns switches and buttons of the sheet into input ports and lamps into output ports, so that it can be a
 * block.
 */
export function portsForSheet(session: Session, id: string): Result<undefined> {
  const sheet = session.state.lesson.sheets.find((s) => s.id === id);
  const edits = sheet ? portsFor(sheet) : [];
  if (edits.length === 0) {
    session.say(
      'There are no switches and lamps on this sheet. Place ports by typing “port in A” or “port out Y”.',
    );
    return DONE;
  }
  const made = session.edit(`make “${sheet!.name}” usable as a block`, { type: 'group', edits });
  if (made.ok)
    session.sayUndoable(
      `“${sheet!.name}” can now be placed as a block on the other sheets: type its name there, or find it in the ring.`,
    );
  return made;
}
