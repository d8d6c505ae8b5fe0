import { boundingBox, type Point, samePoint } from '@/core/circuit/geometry';
import type { Sheet } from '@/core/circuit/sheet';
import { excerpt, paste } from '@/core/drawing/editing/clipboard';
import { sheetsToAdd, sheetsUsedBy, withSheetIds } from '@/core/drawing/editing/paste-dependencies';
import { freeShift } from '@/core/drawing/geometry/free-place';
import { footprintOf } from '@/core/drawing/geometry/placement';
import { readLesson } from '@/core/formats/lesson-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { findKind } from '@/core/parts/catalogue';
import { DONE, type Result, refused } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import type { Session } from '../session';
import { namedParts } from './parts';
import { place } from './place';

/**
 * The selected parts as text for the clipboard: a lesson file with one sheet of them, and behind it the sheets of all
 * blocks among them. Null where nothing is selected.
 */
export function copied(session: Session): string | null {
  const { selection, lesson, rules } = session.state;
  // A circuit that stands still is not to be tried elsewhere.
  if (selection.parts.size === 0 || rules.still) return null;
  const copy = excerpt(session.sheet, selection.parts);
  const held = sheetsUsedBy(lesson, copy);
  return writeLesson({
    ...lesson,
    id: 'clipboard',
    title: 'Copied parts',
    exercise: null,
    work: undefined,
    sheets: [copy, ...lesson.sheets.filter((s) => held.has(s.id))],
  });
}

/** Refuses the content of the clipboard, and says so. */
function refusedPaste(session: Session, code: string, message: string): Result<undefined> {
  session.say(`${message}.`, 'bad');
  return refused(code, message);
}

/** Pastes copied parts onto the sheet, slightly beside their originals or at a point. */
export function pasteText(session: Session, text: string): Result<undefined> {
  const read = readLesson(text);
  if (!read.ok) {
    if (text.includes('\t') && text.length <= 20_000) return pasteTable(session, text);
    return refusedPaste(
      session,
      'other-format',
      'The clipboard holds no circuit of Manege; cells from a spreadsheet would become a table',
    );
  }
  const from = read.value.sheets[0]!;
  const [, ...others] = read.value.sheets;
  return pasteWithSheets(session, from, others);
}

/** Pastes parts with the sheets that their blocks need, unless the lesson has the same already. */
function pasteWithSheets(session: Session, from: Sheet, others: readonly Sheet[]): Result<undefined> {
  const { added, ids } = sheetsToAdd(session.state.lesson, others);
  const pasted = session.transaction(`paste ${counted(from.parts.size, 'part')}`, (made) => {
    for (const sheet of added) made.make({ type: 'addSheet', sheet, at: made.lesson.sheets.length });
    const { edit, parts } = paste(made.sheet, withSheetIds(from, ids), clearShift(made.sheet, from));
    made.make(edit);
    return parts;
  });
  if (!pasted.ok) return pasted;
  session.select({ parts: new Set(pasted.value), wires: new Set() });
  session.lookAtAll('middles');
  if (added.length > 0)
    session.sayUndoable(
      `${added.map((s) => `“${s.name}”`).join(', ')} came along as ${added.length === 1 ? 'a sheet' : 'sheets'} of this lesson.`,
    );
  return DONE;
}

/** Puts cells from a spreadsheet below all that is on the sheet, as a table. */
function pasteTable(session: Session, cells: string): Result<undefined> {
  const box = boundingBox([...session.sheet.parts.values()].map(footprintOf));
  const at = box ? { x: Math.round(box.x0), y: Math.ceil(box.y1) + 3 } : { x: 0, y: 0 };
  const kind = findKind('table')!;
  const placed = place(session, kind, { cells }, [''], at, false);
  return placed.ok ? DONE : placed;
}

/** How far a copy stands from its original, clear of all that is there. */
function clearShift(onto: Sheet, from: Sheet): Point {
  const box = boundingBox([...from.parts.values()].map(footprintOf));
  return box ? freeShift(onto, box) : { x: 0, y: 0 };
}

export function duplicateSelected(session: Session): Result<undefined> {
  const { selection } = session.state;
  if (selection.parts.size === 0) return DONE;
  const from = excerpt(session.sheet, selection.parts);
  return copies(session, 'duplicate', [from], [clearShift(session.sheet, from)]);
}

/** Copies the selection so many times, each a step further, labels counted on; the last copy is selected. */
export function repeatSelected(session: Session, times: number, by: Point): Result<undefined> {
  const { selection } = session.state;
  if (selection.parts.size === 0 || samePoint(by, { x: 0, y: 0 })) return DONE;
  const original = excerpt(session.sheet, selection.parts);
  const shifts = Array.from({ length: times }, (_, i) => ({ x: by.x * (i + 1), y: by.y * (i + 1) }));
  return copies(
    session,
    'repeat',
    shifts.map(() => original),
    shifts,
  );
}

/** Puts copies of an excerpt onto the sheet and selects the last one. */
function copies(
  session: Session,
  what: string,
  originals: readonly Sheet[],
  shifts: readonly Point[],
): Result<undefined> {
  const name = `${what} ${namedParts(session, session.state.selection.parts)}`;
  const copied = session.transaction(name, (made) => {
    let last: readonly string[] = [];
    for (const [i, shift] of shifts.entries()) {
      const copy = paste(made.sheet, originals[i]!, shift);
      made.make(copy.edit);
      last = copy.parts;
    }
    return last;
  });
  if (!copied.ok) return copied;
  session.select({ parts: new Set(copied.value), wires: new Set() });
  session.lookAtAll('middles');
  return DONE;
}
