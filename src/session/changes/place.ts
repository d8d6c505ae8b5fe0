import { overlap, type Point } from '@/core/circuit/geometry';
import type { End, Params, Sheet } from '@/core/circuit/lesson';
import { fittingParams, matchingPort, requirementAt } from '@/core/drawing/editing/compatible-parts';
import { connect, newPart } from '@/core/drawing/editing/gestures';
import { joinUp } from '@/core/drawing/editing/join-up';
import { pinPairs } from '@/core/drawing/editing/multi-pin-drag';
import { extentOf, footprintOf } from '@/core/drawing/geometry/placement';
import type { PartKind } from '@/core/parts/part-kind';
import { type Result, refused } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import type { Session } from '../session';
import type { Transaction } from '../transaction';

const named = (kind: PartKind, count: number) =>
  count === 1 ? `place ${kind.name}` : `place ${count} × ${kind.name}`;

/**
 * Places parts of one kind below each other from a point on, and selects them.
 * @param join whether they are joined to the parts that they touch: not if nobody has pointed.
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
    );
    if (join) made.make(joinUp(made.lesson, made.sheet.id, ids));
    return ids;
  });
  if (placed.ok) session.select({ parts: new Set(placed.value), wires: new Set() });
  return placed;
}

/** A part to be placed. */
export interface NewPart {
  readonly kind: PartKind;
  readonly params: Params;
  readonly label: string;
}

/** Places parts below each other from a point on, clear of other parts. @returns their ids. */
export function placeColumn(made: Transaction, parts: readonly NewPart[], at: Point): string[] {
  let y = at.y;
  return parts.map(({ kind, params, label }) => {
    const spot = freeSpot(made.sheet, kind, params, { x: at.x, y });
    const part = newPart(made.sheet, kind, spot, params, label);
    made.make({ type: 'addPart', sheet: made.sheet.id, part });
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
    const spot = freeSpot(made.sheet, kind, fit, { x: at.x - port.x, y: at.y - port.y });
    const part = newPart(made.sheet, kind, spot, fit, label);
    made.make({ type: 'addPart', sheet: made.sheet.id, part });
    for (const [a, b] of pinPairs(made.sheet, { from, onto: [{ part: part.id, port: port.name }] }))
      made.make(connect(made.sheet, a, b));
    return [part.id];
  });
  if (placed.ok) session.select({ parts: new Set(placed.value), wires: new Set() });
  return placed;
}

/** The preferred point, or the nearest below it where the part covers no other. */
function freeSpot(sheet: Sheet, kind: PartKind, params: Params, preferred: Point): Point {
  const taken = [...sheet.parts.values()].map(footprintOf);
  for (let down = 0; down < 200; down++) {
    const at = { x: preferred.x, y: preferred.y + down };
    const extent = footprintOf(newPart(sheet, kind, at, params, ''));
    if (!taken.some((t) => overlap(t, extent))) return at;
  }
  return preferred;
}
