import { apply, type Edit } from '@/core/circuit/edit';
import { around, overlap, type Point } from '@/core/circuit/geometry';
import {
  type End,
  type Lesson,
  type Params,
  type ParamValue,
  type Sheet,
  type Symbols,
  sheetOf,
} from '@/core/circuit/lesson';
import { sheetsHeld, sheetsToBring, withSheetIds } from '@/core/drawing/bring';
import { excerpt, paste } from '@/core/drawing/copies';
import { fitted, portFor, wantedAt } from '@/core/drawing/fits';
import { connect, move, newPart, remove, setParams, turn } from '@/core/drawing/gestures';
import { joinUp, probeEdit, removeHealing } from '@/core/drawing/join-up';
import { courseOf, extentOf, footprintOf } from '@/core/drawing/placement';
import { isFlat, pieceAt, reconnect } from '@/core/drawing/pull';
import { group } from '@/core/drawing/relay';
import { pairsOf } from '@/core/drawing/sweep';
import { readLesson } from '@/core/formats/lesson-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { findKind, kindOf } from '@/core/parts/catalogue';
import { bitsText } from '@/core/parts/common';
import type { PartKind } from '@/core/parts/part-kind';
import type { Session } from './session';
import { NOTHING } from './state';

/*
 * What menus, keys, the ring and gestures do, each in one place. A command does nothing where it does not apply.
 */

/**
 * Places parts of one kind one below the other from a point on, and selects them.
 * @param join whether they are joined to what they touch there: not where nobody has pointed.
 * @returns their ids.
 */
export function place(
  session: Session,
  kind: PartKind,
  params: Params,
  labels: readonly string[],
  at: Point,
  join = true,
): string[] {
  const steps = new Steps(session);
  let y = at.y;
  const ids = labels.map((label) => {
    const spot = freeSpot(steps.sheet, kind, params, { x: at.x, y });
    const part = newPart(steps.sheet, kind, spot, params, label);
    steps.make({ type: 'addPart', sheet: steps.sheet.id, part });
    y = spot.y + Math.max(5, Math.ceil(extentOf(part).y1 - extentOf(part).y0) + 2);
    return part.id;
  });
  if (join) steps.make(joinUp(steps.now, steps.sheet.id, ids));
  if (!steps.done()) return [];
  session.select({ parts: new Set(ids), wires: new Set() });
  return ids;
}

/** Places a part so that one of its pins stands at a point, and joins ends of wires to it and the pins below it. */
export function placeFrom(
  session: Session,
  from: readonly End[],
  kind: PartKind,
  params: Params,
  label: string,
  at: Point,
): string[] {
  const steps = new Steps(session);
  const wanted = wantedAt(steps.sheet, from[0]!);
  const fit = fitted(kind, params, wanted);
  if (!fit) {
    session.say(
      `${kind.name} has no pin for this wire: ${wanted.direction === 'in' ? 'an input' : 'an output'} of ${bitsText(wanted.width)} is needed.`,
      'bad',
    );
    return [];
  }
  const port = portFor(kind, fit, wanted)!;
  const spot = freeSpot(steps.sheet, kind, fit, { x: at.x - port.x, y: at.y - port.y });
  const part = newPart(steps.sheet, kind, spot, fit, label);
  steps.make({ type: 'addPart', sheet: steps.sheet.id, part });
  const pairs = pairsOf(steps.sheet, { from, onto: [{ part: part.id, port: port.name }] });
  for (const [a, b] of pairs) steps.make(connect(steps.sheet, a, b));
  if (!steps.done()) return [];
  session.select({ parts: new Set([part.id]), wires: new Set() });
  return [part.id];
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
  wirePairs(session, [[from, to]]);
}

/** Puts an end of a wire elsewhere, or says why that cannot be. */
export function moveEnd(session: Session, wireId: string, key: 'from' | 'to', onto: End): void {
  const edit = reconnect(session.state.lesson, session.state.sheetId, wireId, key, onto);
  if (edit) session.edit(edit);
  else session.say('A wire cannot end on itself.', 'bad');
}

/** Wires ends pair by pair in one step. */
export function wirePairs(session: Session, pairs: readonly (readonly [End, End])[]): void {
  const steps = new Steps(session);
  for (const [from, to] of pairs) steps.make(connect(steps.sheet, from, to));
  steps.done();
}

/** Edits that each need the one before to be made, gathered into one step of undo. */
export class Steps {
  private readonly edits: Edit[] = [];
  private lesson: Lesson;

  constructor(private readonly session: Session) {
    this.lesson = session.state.lesson;
  }

  get now(): Lesson {
    return this.lesson;
  }

  get sheet(): Sheet {
    return sheetOf(this.lesson, this.session.state.sheetId)!;
  }

  make(edit: Edit | null): boolean {
    const applied = edit && apply(this.lesson, edit);
    if (!edit || !applied?.ok) return false;
    this.lesson = applied.value;
    this.edits.push(edit);
    return true;
  }

  /** @returns whether there was anything to make, and it was made. */
  done(): boolean {
    if (this.edits.length === 0) return false;
    return this.session.edit(this.edits.length === 1 ? this.edits[0]! : { type: 'group', edits: this.edits });
  }
}

export function moveParts(session: Session, parts: ReadonlySet<string>, by: Point): void {
  if (parts.size > 0 && (by.x !== 0 || by.y !== 0))
    session.edit(move(session.state.lesson, session.state.sheetId, parts, by));
}

/** Parts that were dragged, or copies of them, are let go: what they touch there is joined in the same step. */
export function letGo(session: Session, edit: Edit | null, copies: boolean): void {
  const before = session.sheet.parts;
  const steps = new Steps(session);
  if (!steps.make(edit)) return;
  const fresh = [...steps.sheet.parts.keys()].filter((id) => !before.has(id));
  const parts = copies ? fresh : [...session.state.selection.parts];
  steps.make(joinUp(steps.now, session.state.sheetId, parts));
  if (steps.done() && copies) session.select({ parts: new Set(parts), wires: new Set() });
}

/** @param heal whether what came into each part is led on to where it went. */
export function removeSelected(session: Session, heal = false): void {
  const { selection, lesson, sheetId } = session.state;
  const count = selection.parts.size + selection.wires.size;
  if (count === 0) return;
  const edit = heal
    ? removeHealing(lesson, sheetId, selection.parts)
    : remove(session.sheet, selection.parts, selection.wires);
  if (session.edit(edit)) {
    session.select(NOTHING);
    if (count > 1) session.say(`${count} things removed.`, 'calm', () => session.undo());
  }
}

export function turnSelected(session: Session, quarters = 1): void {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size > 0) session.edit(turn(lesson, sheetId, selection.parts, quarters));
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

/** Draws parts by one of the two standards, whatever the lesson says; as the lesson says without one. */
export function drawBy(session: Session, parts: readonly string[], symbols: Symbols | undefined): void {
  const sheet = session.state.sheetId;
  session.edit(group(parts.map((id) => ({ type: 'changePart', sheet, id, change: { symbols } }))));
}

/**
 * Sets one parameter of parts, in one step of undo. Where a part's kind does not take the value, nothing changes.
 * @returns what is wrong with the value, or null.
 */
export function setParam(
  session: Session,
  parts: readonly string[],
  param: string,
  value: ParamValue | undefined,
): string | null {
  const steps = new Steps(session);
  for (const id of parts) {
    const part = steps.sheet.parts.get(id);
    if (!part) continue;
    const { [param]: _, ...others } = part.params;
    const params = kindOf(part).params.safeParse(
      value === undefined ? others : { ...others, [param]: value },
    );
    if (!params.success) return params.error.issues[0]!.message;
    steps.make(setParams(steps.now, steps.sheet.id, id, params.data));
  }
  steps.done();
  return null;
}

/**
 * The selected parts as text for the clipboard: a lesson file with one sheet of them, and behind it the sheets of all
 * blocks among them. Null where nothing is selected.
 */
export function copied(session: Session): string | null {
  const { selection, lesson } = session.state;
  if (selection.parts.size === 0) return null;
  const copy = excerpt(session.sheet, selection.parts);
  const held = sheetsHeld(lesson, copy);
  return writeLesson({
    ...lesson,
    id: 'clipboard',
    title: 'Copied parts',
    exercise: null,
    sheets: [copy, ...lesson.sheets.filter((s) => held.has(s.id))],
  });
}

/** Puts copied parts onto the sheet, a little to the side of where they came from or at a point. */
export function pasteText(session: Session, text: string, allowed: (kind: string) => boolean): void {
  const read = readLesson(text);
  if (!read.ok) {
    if (text.includes('\t') && text.length <= 20_000) pasteTable(session, text);
    else
      session.say(
        'What is on the clipboard is no circuit of Manege. Cells from a spreadsheet would become a table.',
        'bad',
      );
    return;
  }
  const from = read.value.sheets[0]!;
  const strange = [...from.parts.values()].find((p) => !allowed(p.kind));
  if (strange) {
    session.say('The clipboard holds a part that this exercise does not allow.', 'bad');
    return;
  }
  const [, ...others] = read.value.sheets;
  pasteWithSheets(session, from, others);
}

/** Pastes parts with the sheets that their blocks need, as far as the lesson does not have the same already. */
function pasteWithSheets(session: Session, from: Sheet, others: readonly Sheet[]): void {
  const steps = new Steps(session);
  const { added, ids } = sheetsToBring(steps.now, others);
  if (added.length > 0 && session.state.lesson.exercise) {
    session.say('The clipboard holds a block, and this exercise has no place for its sheet.', 'bad');
    return;
  }
  for (const sheet of added) steps.make({ type: 'addSheet', sheet, at: steps.now.sheets.length });
  const onto = steps.sheet;
  const { edit, parts } = paste(onto, withSheetIds(from, ids), clearShift(onto, from));
  steps.make(edit);
  if (!steps.done()) return;
  session.select({ parts: new Set(parts), wires: new Set() });
  if (added.length > 0)
    session.say(
      `${added.map((s) => `“${s.name}”`).join(', ')} came along as ${added.length === 1 ? 'a sheet' : 'sheets'} of this lesson.`,
      'calm',
      () => session.undo(),
    );
}

/** Puts cells from a spreadsheet below all that is on the sheet, as a table. */
function pasteTable(session: Session, cells: string): void {
  const box = around([...session.sheet.parts.values()].map(footprintOf));
  const at = box ? { x: Math.round(box.x0), y: Math.ceil(box.y1) + 3 } : { x: 0, y: 0 };
  const kind = findKind('table')!;
  place(session, kind, { cells }, [''], at, false);
}

/** Pins a probe to a wire at a point of it. */
export function pinProbe(session: Session, wire: string, at: Point): void {
  const { sheet } = session;
  const there = sheet.wires.get(wire);
  const kind = findKind('probe')!;
  if (!there) return;
  const points = courseOf(sheet, there);
  const piece = pieceAt(points, at);
  const flat = piece === null || isFlat(points, piece);
  const part = newPart(sheet, kind, at, {}, '');
  if (session.edit(probeEdit(sheet, part, wire, at, flat, true)))
    session.select({ parts: new Set([part.id]), wires: new Set() });
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
