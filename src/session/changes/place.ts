import { eachSegment, type Point } from '@/core/circuit/geometry';
import type { End, Params } from '@/core/circuit/sheet';
import { fittingParams, matchingPort, requirementAt } from '@/core/drawing/editing/compatible-parts';
import { connect, newPart } from '@/core/drawing/editing/gestures';
import { joinUp } from '@/core/drawing/editing/join-up';
import { pinPairs } from '@/core/drawing/editing/multi-pin-drag';
import { freePlace } from '@/core/drawing/geometry/free-place';
import { courseOf, extentOf } from '@/core/drawing/geometry/placement';
import type { PartKind } from '@/core/parts/part-kind';
import { type Result, refused } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import type { Session } from '../session';
import type { Transaction } from '../transaction';

const named = (kind: PartKind, count: number) =>
  count === 1 ? `place ${kind.name}` : `place ${count} × ${kind.name}`;

/**
 * Places parts of one kind below each other from a point on, and selects them.
 * @param join whether they are joined to the parts that they touch; false for places that were not pointed at.
 * @returns their ids.
 */
export function place(
  session: Session,
  kind: PartKind,
  params: Params,
  labels: readonly string[],
  at: Point,
  join = true,
): Result<string[]> {
  const placed = session.transaction(named(kind, labels.length), (made) => {
    const ids = placeColumn(
      made,
      labels.map((label) => ({ kind, params, label })),
      at,
      join,
    );
    if (join) made.make(joinUp(made.lesson, made.sheet.id, ids));
    return ids;
  });
  return shown(session, placed);
}

/** Selects what was placed and brings it into sight. */
function shown(session: Session, placed: Result<string[]>): Result<string[]> {
  if (!placed.ok) return placed;
  session.select({ parts: new Set(placed.value), wires: new Set() });
  session.lookAtAll('middles');
  return placed;
}

/** Where a part that a wire can go through is put into the only selected one; null for any other part or selection. */
export function spotOnWire({ sheet, state }: Session, kind: PartKind, params: Params): Point | null {
  const { parts, wires } = state.selection;
  const [id] = wires;
  const wire = wires.size === 1 && parts.size === 0 ? sheet.wires.get(id!) : undefined;
  const goes = (direction: 'in' | 'out') => kind.ports(params).some((p) => p.direction === direction);
  if (!wire || !goes('in') || !goes('out')) return null;
  let spot: Point | null = null;
  let longest = 0;
  eachSegment(courseOf(sheet, wire), (a, b) => {
    const long = Math.abs(b.x - a.x);
    if (long <= longest) return;
    longest = long;
    spot = { x: Math.round((a.x + b.x) / 2), y: a.y };
  });
  return spot;
}

/** A part to be placed. */
export interface NewPart {
  readonly kind: PartKind;
  readonly params: Params;
  readonly label: string;
}

/**
 * Places parts below each other from a point on, clear of other parts.
 * @param overWires whether they may stand on wires, to be joined to them.
 * @returns their ids.
 */
export function placeColumn(
  made: Transaction,
  parts: readonly NewPart[],
  at: Point,
  overWires: boolean,
): string[] {
  let { x, y } = at;
  return parts.map(({ kind, params, label }) => {
    const trial = newPart(made.sheet, kind, { x, y }, params, label);
    const spot = freePlace(made.sheet, trial, { overWires });
    const part = { ...trial, at: spot };
    made.make({ type: 'addPart', sheet: made.sheet.id, part });
    x = spot.x;
    y = spot.y + Math.max(5, Math.ceil(extentOf(part).y1 - extentOf(part).y0) + 2);
    return part.id;
  });
}

/** Places a part with one of its pins at a point, and joins ends of wires to it and the pins below it. */
export function placeFrom(
  session: Session,
  from: readonly End[],
  kind: PartKind,
  params: Params,
  label: string,
  at: Point,
): Result<string[]> {
  const wanted = requirementAt(session.sheet, from[0]!);
  const fit = fittingParams(kind, params, wanted);
  if (!fit) {
    const pin = wanted.direction === 'in' ? 'an input' : 'an output';
    const message = `${kind.name} has no pin for this wire: ${pin} of ${counted(wanted.width, 'bit')} is needed`;
    session.say(`${message}.`, 'bad');
    return refused('no-pin-fits', message);
  }
  const placed = session.transaction(named(kind, 1), (made) => {
    const port = matchingPort(kind, fit, wanted)!;
    const trial = newPart(made.sheet, kind, { x: at.x - port.x, y: at.y - port.y }, fit, label);
    const part = { ...trial, at: freePlace(made.sheet, trial) };
    made.make({ type: 'addPart', sheet: made.sheet.id, part });
    for (const [a, b] of pinPairs(made.sheet, { from, onto: [{ part: part.id, port: port.name }] }))
      made.make(connect(made.sheet, a, b));
    return [part.id];
  });
  return shown(session, placed);
}
