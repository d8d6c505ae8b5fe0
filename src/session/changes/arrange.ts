import { align, distribute, type Edge, spread, tidy, tidySome } from '@/core/drawing/editing/arrange';
import { mirror } from '@/core/drawing/editing/gestures';
import { bodyOf } from '@/core/drawing/geometry/placement';
import { DONE, type Result } from '@/core/values/result';
import type { Session } from '../session';
import { namedParts } from './parts';

/*
 * Order and looks of the selection. A change does nothing where it does not apply.
 */

export function alignSelected(session: Session, edge: Edge): Result<undefined> {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size < 2) return DONE;
  return session.edit(
    `align ${namedParts(session, selection.parts)}`,
    align(lesson, sheetId, selection.parts, edge),
  );
}

export function distributeSelected(session: Session, axis: 'across' | 'down'): Result<undefined> {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size < 3) return DONE;
  return session.edit(
    `space ${namedParts(session, selection.parts)} evenly`,
    distribute(lesson, sheetId, selection.parts, axis),
  );
}

export function mirrorSelected(session: Session, axis: 'across' | 'down'): Result<undefined> {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size === 0) return DONE;
  return session.edit(
    `mirror ${namedParts(session, selection.parts)}`,
    mirror(lesson, sheetId, selection.parts, axis),
  );
}

/** Lays the whole sheet out again, with a way back. */
export function tidySheet(session: Session): Result<undefined> {
  const { lesson, sheetId } = session.state;
  if (session.sheet.parts.size === 0) return DONE;
  const tidied = session.edit('tidy the sheet', tidy(lesson, sheetId));
  if (!tidied.ok) return tidied;
  session.lookAtAll();
  session.sayUndoable('The sheet is tidied.');
  return tidied;
}

/** Lays the selected parts out again, with a way back. */
export function tidySelected(session: Session): Result<undefined> {
  const { lesson, sheetId, selection } = session.state;
  if (selection.parts.size < 2) return DONE;
  const what = namedParts(session, selection.parts);
  const tidied = session.edit(`tidy ${what}`, tidySome(lesson, sheetId, selection.parts));
  if (!tidied.ok) return tidied;
  session.lookAtAll('parts');
  session.sayUndoable(`Tidied ${what}.`);
  return tidied;
}

/** Makes room to the right of the selected parts' left edge, or below their upper one; negative to close a gap. */
export function spreadFromSelected(session: Session, axis: 'across' | 'down', by: number): Result<undefined> {
  const { selection, lesson, sheetId } = session.state;
  const boxes = [...selection.parts].map((id) => bodyOf(session.sheet.parts.get(id)!));
  if (boxes.length === 0) return DONE;
  const from = Math.min(...boxes.map((b) => (axis === 'across' ? b.x0 : b.y0)));
  return session.edit('make room', spread(lesson, sheetId, axis, from, by), `make room ${axis}`);
}

/** Labels the selected parts from top to bottom, then from left to right, counted on: `A0`, `A1` ... */
export function numberSelected(session: Session, first: string): Result<undefined> {
  const text = first.trim().slice(0, 36);
  const parts = [...session.state.selection.parts]
    .map((id) => session.sheet.parts.get(id)!)
    .sort((a, b) => a.at.y - b.at.y || a.at.x - b.at.x);
  const found = /^(.*?)(\d+)$/.exec(text);
  const [stem, start] = found ? [found[1]!, Number(found[2])] : [text, 0];
  return session.edit(
    `label ${namedParts(session, session.state.selection.parts)}`,
    {
      type: 'group',
      edits: parts.map((part, i) => ({
        type: 'changePart',
        sheet: session.state.sheetId,
        id: part.id,
        change: { label: text ? `${stem}${start + i}` : '' },
      })),
    },
    'label several',
  );
}
