import type { Edit } from '@/core/circuit/edit';
import { type Point, samePoint } from '@/core/circuit/geometry';
import { isPinEnd, type WireColour } from '@/core/circuit/lesson';
import { align, distribute, type Edge, spread, straighten, tidy } from '@/core/drawing/arrange';
import { excerpt, paste } from '@/core/drawing/copies';
import { mirror } from '@/core/drawing/gestures';
import { bodyOf, courseOf } from '@/core/drawing/placement';
import { isFlat, keepCourse, layAnew, pulledCourse } from '@/core/drawing/pull';
import { wiresOf } from '@/core/drawing/relay';
import { wireNets } from '@/core/drawing/wire-nets';
import { Steps } from './commands';
import type { Session } from './session';

/*
 * Order and looks: what is done with what is selected. A command does nothing where it does not apply.
 */

function edit(session: Session, made: Edit | null): void {
  if (made && (made.type !== 'group' || made.edits.length > 0)) session.edit(made);
}

export function alignSelected(session: Session, edge: Edge): void {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size > 1) edit(session, align(lesson, sheetId, selection.parts, edge));
}

export function distributeSelected(session: Session, axis: 'across' | 'down'): void {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size > 2) edit(session, distribute(lesson, sheetId, selection.parts, axis));
}

export function mirrorSelected(session: Session, axis: 'across' | 'down'): void {
  const { selection, lesson, sheetId } = session.state;
  if (selection.parts.size > 0) edit(session, mirror(lesson, sheetId, selection.parts, axis));
}

/** The selected wires, or those between selected parts. */
function chosenWires(session: Session): ReadonlySet<string> {
  const { parts, wires } = session.state.selection;
  if (wires.size > 0 || parts.size === 0) return wires;
  return new Set(excerpt(session.sheet, parts).wires.keys());
}

export function straightenSelected(session: Session): void {
  const { lesson, sheetId } = session.state;
  edit(session, straighten(lesson, sheetId, chosenWires(session)));
}

export function layWiresAnew(session: Session): void {
  const { lesson, sheetId } = session.state;
  edit(session, layAnew(lesson, sheetId, chosenWires(session)));
}

export function colourWires(session: Session, colour: WireColour | undefined): void {
  const edits = [...session.state.selection.wires].map(
    (id): Edit => ({ type: 'changeWire', sheet: session.state.sheetId, id, change: { colour } }),
  );
  edit(session, edits.length ? { type: 'group', edits } : null);
}

/** Selects all wires that hang together with the selected ones. */
export function selectNet(session: Session): void {
  const nets = wireNets(session.sheet);
  const chosen = new Set([...session.state.selection.wires].map((id) => nets.ofWire(id)));
  const wires = [...session.sheet.wires.keys()].filter((id) => chosen.has(nets.ofWire(id)));
  session.select({ ...session.state.selection, wires: new Set(wires) });
}

/** Selects the wires that hang on the selected parts instead of the parts. */
export function selectWires(session: Session): void {
  const wires = new Set(wiresOf(session.sheet, session.state.selection.parts));
  if (wires.size > 0) session.select({ parts: new Set(), wires });
  else session.say('Nothing is wired to this part yet.');
}

/** Selects the parts at either end of the selected wires' nets. */
export function selectPartsOnNet(session: Session): void {
  const nets = wireNets(session.sheet);
  const chosen = new Set([...session.state.selection.wires].map((id) => nets.ofWire(id)));
  const parts = new Set<string>();
  for (const wire of session.sheet.wires.values())
    if (chosen.has(nets.ofWire(wire.id)))
      for (const end of [wire.from, wire.to]) if (isPinEnd(end)) parts.add(end.part);
  session.select({ parts, wires: new Set() });
}

/** Lays the whole sheet out anew, with a way back. */
export function tidySheet(session: Session): void {
  const { lesson, sheetId } = session.state;
  if (session.sheet.parts.size === 0 || !session.edit(tidy(lesson, sheetId))) return;
  session.say('The sheet is laid out anew.', 'calm', () => session.undo());
}

/** Makes room to the right of the selected parts' left edge, or below their upper one; negative to close a gap. */
export function spreadFromSelected(session: Session, axis: 'across' | 'down', by: number): void {
  const { selection, lesson, sheetId } = session.state;
  const boxes = [...selection.parts].map((id) => bodyOf(session.sheet.parts.get(id)!));
  if (boxes.length === 0) return;
  const from = Math.min(...boxes.map((b) => (axis === 'across' ? b.x0 : b.y0)));
  edit(session, spread(lesson, sheetId, axis, from, by));
}

/** Copies what is selected so many times, each a step further, labels counted on; the last copy is selected. */
export function repeatSelected(session: Session, times: number, by: Point): void {
  const { selection } = session.state;
  if (selection.parts.size === 0 || samePoint(by, { x: 0, y: 0 })) return;
  const original = excerpt(session.sheet, selection.parts);
  const steps = new Steps(session);
  let last: string[] = [];
  for (let i = 1; i <= times; i++) {
    const copy = paste(steps.sheet, original, { x: by.x * i, y: by.y * i });
    steps.make(copy.edit);
    last = copy.parts;
  }
  if (steps.done()) session.select({ parts: new Set(last), wires: new Set() });
}

/** Labels the selected parts from top to bottom, then from left to right, counted on: `A0`, `A1` ... */
export function numberSelected(session: Session, first: string): void {
  const text = first.trim().slice(0, 36);
  const parts = [...session.state.selection.parts]
    .map((id) => session.sheet.parts.get(id)!)
    .sort((a, b) => a.at.y - b.at.y || a.at.x - b.at.x);
  const found = /^(.*?)(\d+)$/.exec(text);
  const [stem, start] = found ? [found[1]!, Number(found[2])] : [text, 0];
  edit(session, {
    type: 'group',
    edits: parts.map((part, i) => ({
      type: 'changePart',
      sheet: session.state.sheetId,
      id: part.id,
      change: { label: text ? `${stem}${start + i}` : '' },
    })),
  });
}

/**
 * Pulls the one selected wire aside, as far as nothing is in the way: its longest piece that runs across the way of
 * the pull, one between two corners rather than one at a pin.
 * @returns whether one wire is selected and nothing else.
 */
export function pullSelected(session: Session, by: Point): boolean {
  const { lesson, sheetId, selection } = session.state;
  const [id] = selection.wires;
  const wire = session.sheet.wires.get(id ?? '');
  if (!wire || selection.wires.size > 1 || selection.parts.size > 0) return false;
  const points = courseOf(session.sheet, wire);
  const last = points.length - 2;
  const pieces = [...points.keys()]
    .filter((i) => i <= last && isFlat(points, i) === (by.y !== 0))
    .map((i) => ({ i, inner: i > 0 && i < last, length: distance(points[i]!, points[i + 1]!) }))
    .sort((a, b) => Number(b.inner) - Number(a.inner) || b.length - a.length);
  const course = pieces[0] && pulledCourse(session.sheet, wire.id, pieces[0].i, by.x + by.y);
  if (course) session.edit(keepCourse(lesson, sheetId, wire.id, course));
  else if (pieces.length === 0) session.say('No piece of this wire runs across that way.');
  else session.say('The wire cannot go that way: something is beside it.');
  return true;
}

const distance = (a: Point, b: Point) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
