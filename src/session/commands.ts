import type { Point } from '@/core/circuit/geometry';
import { overlap } from '@/core/circuit/geometry';
import { type End, type Params, type Sheet, sheetOf } from '@/core/circuit/lesson';
import { excerpt, paste } from '@/core/drawing/copies';
import { connect, move, newPart, remove, setParams, turn } from '@/core/drawing/gestures';
import { extentOf, footprintOf } from '@/core/drawing/placement';
import { sameName } from '@/core/exercise/allowed';
import { readLesson, writeLesson } from '@/core/formats/lesson-file';
import { inputAt } from '@/core/logic/truth-table';
import type { PartKind } from '@/core/parts/part-kind';
import { NOTHING, type Session } from './session';

/*
 * What menus, keys, the ring and gestures do, each in one place. A command does nothing where it does not apply.
 */

/** Places parts of one kind one below the other from a point on, and selects them. */
export function place(
  session: Session,
  kind: PartKind,
  params: Params,
  labels: readonly string[],
  at: Point,
): void {
  const { sheet } = session;
  let parts = sheet.parts;
  const edits = labels.map((label, i) => {
    const spot = freeSpot({ ...sheet, parts }, kind, params, { x: at.x, y: at.y + i * 5 });
    const part = newPart({ ...sheet, parts }, kind, spot, params, label);
    parts = new Map(parts).set(part.id, part);
    return { type: 'addPart', sheet: sheet.id, part } as const;
  });
  if (session.edit(edits.length === 1 ? edits[0]! : { type: 'group', edits }))
    session.select({ parts: new Set(edits.map((e) => e.part.id)), wires: new Set() });
}

/** The wished point, or the nearest below it where the part covers no other. */
function freeSpot(sheet: Sheet, kind: PartKind, params: Params, wished: Point): Point {
  const taken = [...sheet.parts.values()].map(footprintOf);
  for (let down = 0; down < 200; down++) {
    const at = { x: wished.x, y: wished.y + down };
    const extent = footprintOf(newPart(sheet, kind, at, params, ''));
    if (!taken.some((t) => overlap(t, extent))) return at;
  }
  return wished;
}

export function wire(session: Session, from: End, to: End): void {
  const edit = connect(session.sheet, from, to);
  if (edit) session.edit(edit);
}

export function moveParts(session: Session, parts: ReadonlySet<string>, by: Point): void {
  if (parts.size > 0 && (by.x !== 0 || by.y !== 0))
    session.edit(move(session.state.lesson, session.state.sheetId, parts, by));
}

export function removeSelected(session: Session): void {
  const { selection } = session.state;
  const count = selection.parts.size + selection.wires.size;
  if (count === 0) return;
  if (session.edit(remove(session.sheet, selection.parts, selection.wires))) {
    session.select(NOTHING);
    if (count > 1) session.say(`${count} things removed.`, 'calm', () => session.undo());
  }
}

export function turnSelected(session: Session): void {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size > 0) session.edit(turn(lesson, sheetId, selection.parts));
}

export function selectAll(session: Session): void {
  const { parts, wires } = session.sheet;
  session.select({ parts: new Set(parts.keys()), wires: new Set(wires.keys()) });
}

export function relabel(session: Session, part: string, label: string): void {
  const now = session.sheet.parts.get(part);
  const text = label.trim().slice(0, 40);
  if (now && now.label !== text)
    session.edit({ type: 'changePart', sheet: session.state.sheetId, id: part, change: { label: text } });
}

export function changeParams(session: Session, part: string, params: Params): void {
  session.edit(setParams(session.state.lesson, session.state.sheetId, part, params));
}

/** The selected parts as text for the clipboard: a lesson file with one sheet; null where nothing is selected. */
export function copied(session: Session): string | null {
  const { selection, lesson } = session.state;
  if (selection.parts.size === 0) return null;
  return writeLesson({
    ...lesson,
    id: 'clipboard',
    title: 'Copied parts',
    exercise: null,
    sheets: [excerpt(session.sheet, selection.parts)],
  });
}

/** Puts copied parts onto the sheet, a little to the side of where they came from or at a point. */
export function pasteText(session: Session, text: string, allowed: (kind: string) => boolean): void {
  const read = readLesson(text);
  if (!read.ok) {
    session.say('What is on the clipboard is no circuit of Manege.', 'bad');
    return;
  }
  const from = read.value.sheets[0]!;
  const strange = [...from.parts.values()].find((p) => !allowed(p.kind));
  if (strange) {
    session.say('The clipboard holds a part that this exercise does not allow.', 'bad');
    return;
  }
  pasteSheet(session, from);
}

function pasteSheet(session: Session, from: Sheet): void {
  const { edit, parts } = paste(session.sheet, from, clearShift(session.sheet, from));
  if (edit && session.edit(edit)) session.select({ parts: new Set(parts), wires: new Set() });
}

/** How far a copy is put from its original, so that none of its parts covers another. */
function clearShift(onto: Sheet, from: Sheet): Point {
  const taken = [...onto.parts.values()].map(extentOf);
  const boxes = [...from.parts.values()].map(extentOf);
  for (let step = 3; step < 120; step += 2)
    if (
      !boxes.some((b) =>
        taken.some((t) => overlap(t, { x0: b.x0 + step, y0: b.y0 + step, x1: b.x1 + step, y1: b.y1 + step })),
      )
    )
      return { x: step, y: step };
  return { x: 3, y: 3 };
}

export function duplicateSelected(session: Session): void {
  const { selection } = session.state;
  if (selection.parts.size > 0) pasteSheet(session, excerpt(session.sheet, selection.parts));
}

export function renameSheet(session: Session, id: string, name: string): void {
  const text = name.trim().slice(0, 60);
  if (text) session.edit({ type: 'changeSheet', id, change: { name: text } });
}

/** Puts the switches, found by name, as in a row of a wanted function whose first input is the highest bit. */
export function goToWantedRow(session: Session, inputs: readonly string[], row: number): void {
  const there = session.state.netlist.inputs;
  session.put(
    inputs.flatMap((name, i) => {
      const input = there.find((t) => sameName(t.name, name));
      return input ? [[input.part, inputAt(inputs.length, i, row)] as const] : [];
    }),
  );
}

/** Puts one of the running sheet's inputs or outputs before another in declared order. */
export function reorder(session: Session, order: readonly string[]): void {
  const sheet = sheetOf(session.state.lesson, session.state.rootId)!;
  const edits = order.flatMap((id, rank) =>
    sheet.parts.get(id)?.rank === rank
      ? []
      : [{ type: 'changePart', sheet: sheet.id, id, change: { rank } } as const],
  );
  if (edits.length > 0) session.edit({ type: 'group', edits });
}
