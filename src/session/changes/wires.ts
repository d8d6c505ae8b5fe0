import type { Point } from '@/core/circuit/geometry';
import type { End, WireColour } from '@/core/circuit/sheet';
import { straighten } from '@/core/drawing/editing/arrange';
import { excerpt } from '@/core/drawing/editing/clipboard';
import { connect, newPart } from '@/core/drawing/editing/gestures';
import { probeEdit } from '@/core/drawing/editing/join-up';
import { courseOf } from '@/core/drawing/geometry/placement';
import {
  isFlat,
  reconnect,
  reshapedCourse,
  routeAfresh,
  segmentAt,
  setCourse,
} from '@/core/drawing/routing/wire-reshape';
import { findKind } from '@/core/parts/catalogue';
import { DONE, type Result, refused } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import type { Session } from '../session';

export function wire(session: Session, from: End, to: End): Result<undefined> {
  return wirePairs(session, [[from, to]]);
}

/** Wires ends pair by pair in one step. */
export function wirePairs(session: Session, pairs: readonly (readonly [End, End])[]): Result<undefined> {
  const name = pairs.length === 1 ? 'draw a wire' : `draw ${pairs.length} wires`;
  const wired = session.transaction(name, (made) => {
    for (const [from, to] of pairs) made.make(connect(made.sheet, from, to));
  });
  return wired.ok ? DONE : wired;
}

/** Puts an end of a wire elsewhere, or says why that cannot be. */
export function moveEnd(session: Session, wireId: string, key: 'from' | 'to', onto: End): Result<undefined> {
  const edit = reconnect(session.state.lesson, session.state.sheetId, wireId, key, onto);
  if (edit) return session.edit('move the end of a wire', edit);
  session.say('A wire cannot end on itself.', 'bad');
  return refused('ends-on-itself', 'a wire cannot end on itself');
}

/** Pins a probe to a wire at a point of it. */
export function pinProbe(session: Session, wireId: string, at: Point): Result<undefined> {
  const { sheet } = session;
  const there = sheet.wires.get(wireId);
  const kind = findKind('probe')!;
  if (!there) return DONE;
  const points = courseOf(sheet, there);
  const piece = segmentAt(points, at);
  const flat = piece === null || isFlat(points, piece);
  const part = newPart(sheet, kind, at, {}, '');
  const pinned = session.edit('pin a probe', probeEdit(sheet, part, wireId, at, flat, true));
  if (pinned.ok) session.select({ parts: new Set([part.id]), wires: new Set() });
  return pinned;
}

/** The selected wires, or those between selected parts. */
function chosenWires(session: Session): ReadonlySet<string> {
  const { parts, wires } = session.state.selection;
  if (wires.size > 0 || parts.size === 0) return wires;
  return new Set(excerpt(session.sheet, parts).wires.keys());
}

export function straightenSelected(session: Session): Result<undefined> {
  const { lesson, sheetId } = session.state;
  return session.edit('straighten wires', straighten(lesson, sheetId, chosenWires(session)));
}

export function rerouteSelected(session: Session): Result<undefined> {
  const { lesson, sheetId } = session.state;
  return session.edit('reroute wires', routeAfresh(lesson, sheetId, chosenWires(session)));
}

export function colourWires(session: Session, colour: WireColour | undefined): Result<undefined> {
  const wires = [...session.state.selection.wires];
  const sheet = session.state.sheetId;
  return session.edit(`colour ${counted(wires.length, 'wire')}`, {
    type: 'group',
    edits: wires.map((id) => ({ type: 'changeWire', sheet, id, change: { colour } })),
  });
}

/**
 * Pulls the one selected wire aside until something is in the way: its longest segment across the direction,
 * an inner one before one at a pin.
 * @returns null if the selection is not one wire.
 */
export function pullSelected(session: Session, by: Point): Result<undefined> | null {
  const { lesson, sheetId, selection } = session.state;
  const [id] = selection.wires;
  const there = session.sheet.wires.get(id ?? '');
  if (!there || selection.wires.size > 1 || selection.parts.size > 0) return null;
  const points = courseOf(session.sheet, there);
  const last = points.length - 2;
  const pieces = [...points.keys()]
    .filter((i) => i <= last && isFlat(points, i) === (by.y !== 0))
    .map((i) => ({ i, inner: i > 0 && i < last, length: distance(points[i]!, points[i + 1]!) }))
    .sort((a, b) => Number(b.inner) - Number(a.inner) || b.length - a.length);
  const course = pieces[0] && reshapedCourse(session.sheet, there.id, pieces[0].i, by.x + by.y);
  if (course)
    return session.edit('move a wire', setCourse(lesson, sheetId, there.id, course), `pull ${there.id}`);
  session.say(
    pieces.length === 0
      ? 'No segment of this wire runs across that direction.'
      : 'The wire cannot go that way: something is beside it.',
  );
  return DONE;
}

const distance = (a: Point, b: Point) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
