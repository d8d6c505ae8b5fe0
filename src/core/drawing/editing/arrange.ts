import { apply, type Edit } from '../../circuit/edit';
import { type Box, boundingBox, contains, grown, overlap, type Point } from '../../circuit/geometry';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import { type End, isPinEnd, type Part, type Sheet, type Wire } from '../../circuit/sheet';
import { freeShift } from '../geometry/free-place';
import { bodyOf, courseOf, extentOf, footprintOf, pinOf, pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { layOut } from '../layout/lay-out';
import { group, reroute, wiresOnParts } from '../routing/reroute';
import { moveEach } from './gestures';

/*
 * Order on a sheet: lining up, spacing out, making room, and tidying the whole of it.
 */

export type Edge = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

const AT: Record<Edge, (b: Box) => number> = {
  left: (b) => b.x0,
  centre: (b) => (b.x0 + b.x1) / 2,
  right: (b) => b.x1,
  top: (b) => b.y0,
  middle: (b) => (b.y0 + b.y1) / 2,
  bottom: (b) => b.y1,
};
const ACROSS: ReadonlySet<Edge> = new Set(['left', 'centre', 'right']);

function chosenParts(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>): Part[] {
  const sheet = sheetOf(lesson, sheetId)!;
  return [...ids].map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
}

/** Lines parts up by an edge or the middle of their bodies, to the nearest grid step. */
export function align(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>, edge: Edge): Edit {
  const parts = chosenParts(lesson, sheetId, ids);
  const places = parts.map((p) => AT[edge](bodyOf(p)));
  const [least, most] = [Math.min(...places), Math.max(...places)];
  const line =
    edge === 'left' || edge === 'top'
      ? least
      : edge === 'right' || edge === 'bottom'
        ? most
        : (least + most) / 2;
  const by = parts.map((p, i) => {
    const d = Math.round(line - places[i]!);
    return [p.id, ACROSS.has(edge) ? { x: d, y: 0 } : { x: 0, y: d }] as const;
  });
  return moveEach(lesson, sheetId, new Map(by));
}

/** Spaces parts so that the gaps between their bodies are equal; the outermost two stay. */
export function distribute(
  lesson: Lesson,
  sheetId: string,
  ids: ReadonlySet<string>,
  axis: 'across' | 'down',
): Edit {
  const span = (b: Box) => (axis === 'across' ? [b.x0, b.x1] : [b.y0, b.y1]) as [number, number];
  const parts = chosenParts(lesson, sheetId, ids)
    .map((part) => ({ part, span: span(bodyOf(part)) }))
    .sort((a, b) => a.span[0] - b.span[0]);
  const first = parts[0];
  const last = parts.at(-1);
  if (!first || !last || parts.length < 3) return group([]);
  const filled = parts.reduce((sum, p) => sum + p.span[1] - p.span[0], 0);
  const gap = (last.span[1] - first.span[0] - filled) / (parts.length - 1);
  let at = first.span[0];
  const by = parts.map(({ part, span: [from, to] }) => {
    const d = Math.round(at - from);
    at += to - from + gap;
    return [part.id, axis === 'across' ? { x: d, y: 0 } : { x: 0, y: d }] as const;
  });
  return moveEach(lesson, sheetId, new Map(by));
}

/** Bends that are no longer than this many steps are taken out by moving a part. */
const SMALL_JOG = 4;

/**
 * Takes small jogs out of wires from pin to pin by moving the part at one end, where there is room for it: the one
 * with fewer wires.
 */
export function straighten(lesson: Lesson, sheetId: string, wires: ReadonlySet<string>): Edit {
  const edits: Edit[] = [];
  let now = lesson;
  for (const id of wires) {
    const sheet = sheetOf(now, sheetId)!;
    const wire = sheet.wires.get(id);
    const by = wire && jog(sheet, wire);
    if (!by) continue;
    const edit = moveEach(now, sheetId, new Map([[by.part, by.by]]));
    const applied = apply(now, edit);
    if (!applied.ok) continue;
    now = applied.value;
    edits.push(edit);
  }
  return group(edits);
}

/** The part to move, and the distance, so that a wire becomes straight. */
function jog(sheet: Sheet, wire: Wire): { part: string; by: Point } | null {
  if (!isPinEnd(wire.from) || !isPinEnd(wire.to)) return null;
  const a = pinOf(sheet, wire.from.part, wire.from.port);
  const b = pinOf(sheet, wire.to.part, wire.to.port);
  if (!a || !b || a.part === b.part || a.out.x !== -b.out.x || a.out.y !== -b.out.y) return null;
  const off = a.out.x !== 0 ? { x: 0, y: b.at.y - a.at.y } : { x: b.at.x - a.at.x, y: 0 };
  const far = Math.abs(off.x + off.y);
  if (far === 0 || far > SMALL_JOG) return null;
  const tied = (part: string) => wiresOnParts(sheet, new Set([part])).length;
  const moves = [
    { part: a.part, by: off },
    { part: b.part, by: { x: -off.x, y: -off.y } },
  ];
  if (tied(b.part) < tied(a.part)) moves.reverse();
  return moves.find(({ part, by }) => hasRoom(sheet, sheet.parts.get(part)!, by)) ?? null;
}

function hasRoom(sheet: Sheet, part: Part, by: Point): boolean {
  const box = extentOf({ ...part, at: { x: part.at.x + by.x, y: part.at.y + by.y } });
  return [...sheet.parts.values()].every((p) => p.id === part.id || !overlap(extentOf(p), box));
}

/**
 * Makes room: all that lies beyond a line is moved away from it, wires across it grow longer. Moved towards the
 * line instead, everything comes only as near as nothing stands in between.
 * @param from where the line stands, in grid steps.
 * @param by grid steps, negative to close a gap.
 */
export function spread(
  lesson: Lesson,
  sheetId: string,
  axis: 'across' | 'down',
  from: number,
  by: number,
): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const along = (p: Point) => (axis === 'across' ? p.x : p.y);
  const beyond = (part: Part) => along(part.at) >= from;
  const d = by < 0 ? -Math.min(-by, gapAt(sheet, axis, beyond)) : by;
  if (d === 0) return group([]);
  const far = new Set([...sheet.parts.values()].filter(beyond).map((p) => p.id));
  const shift = (p: Point): Point => (axis === 'across' ? { x: p.x + d, y: p.y } : { x: p.x, y: p.y + d });
  const edits: Edit[] = [];
  const torn: string[] = [];
  for (const id of far)
    edits.push({
      type: 'changePart',
      sheet: sheetId,
      id,
      change: { at: shift(sheet.parts.get(id)!.at) },
    });
  for (const wire of sheet.wires.values()) {
    const whole = (end: End): boolean => (isPinEnd(end) ? far.has(end.part) : along(end.at) >= from);
    const [a, b] = [whole(wire.from), whole(wire.to)];
    const points = courseOf(sheet, wire);
    if (!a && !b && points.every((p) => along(p) < from)) continue;
    const moved = (p: Point) => (along(p) >= from ? shift(p) : p);
    const end = (e: End): End => (isPinEnd(e) ? e : { wire: e.wire, at: moved(e.at) });
    edits.push({
      type: 'changeWire',
      sheet: sheetId,
      id: wire.id,
      change: { course: wire.course.map(moved), from: end(wire.from), to: end(wire.to) },
    });
    // A pin may stand on the other side of the line than its part.
    const straddles = [wire.from, wire.to].some((e) => {
      const pin = isPinEnd(e) && pinOf(sheet, e.part, e.port);
      return pin && isPinEnd(e) && along(pin.at) >= from !== far.has(e.part);
    });
    if (straddles || (d < 0 && a !== b)) torn.push(wire.id);
  }
  const applied = apply(lesson, group(edits));
  if (!applied.ok || torn.length === 0) return group(edits);
  return group([...edits, ...reroute(sheetOf(applied.value, sheetId)!, torn)]);
}

/** How far the parts beyond a line can come towards those before it. */
function gapAt(sheet: Sheet, axis: 'across' | 'down', beyond: (part: Part) => boolean): number {
  const parts = [...sheet.parts.values()];
  const near = parts.filter((p) => !beyond(p)).map(footprintOf);
  const far = parts.filter(beyond).map(footprintOf);
  if (near.length === 0 || far.length === 0) return 0;
  const end = Math.max(...near.map((b) => (axis === 'across' ? b.x1 : b.y1)));
  const begin = Math.min(...far.map((b) => (axis === 'across' ? b.x0 : b.y0)));
  // Each net that leads across keeps a lane to turn in.
  const nets = wireNets(sheet);
  const across = new Set<number>();
  for (const wire of sheet.wires.values()) {
    const sides = [wire.from, wire.to].map((e) => isPinEnd(e) && beyond(sheet.parts.get(e.part)!));
    if (sides[0] !== sides[1]) across.add(nets.ofWire(wire.id)!);
  }
  return Math.max(0, Math.floor(begin - end - 3 - across.size));
}

/** Where parts being moved stand in line with others: thin lines to show, and where to snap. */
export interface Guide {
  readonly axis: 'across' | 'down';
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** How near in grid steps a pin must come to the line of another to be drawn to it. */
const MAGNET = 0.8;
/** Parts farther away than this are no help in lining up. */
const SIGHT = 60;

/**
 * Where a moved set of parts snaps to: whole grid steps, and rather those at which one of their pins stands in line
 * with a pin of a part nearby.
 * @param by how far they were taken, in grid steps and parts of one.
 */
export function snap(
  sheet: Sheet,
  ids: ReadonlySet<string>,
  by: Point,
): { by: Point; guides: readonly Guide[] } {
  const own = [...ids].flatMap((id) => {
    const part = sheet.parts.get(id);
    return part ? [...pinsOf(part)] : [];
  });
  if (own.length === 0 || own.length > 64)
    return { by: { x: Math.round(by.x), y: Math.round(by.y) }, guides: [] };
  const start = own[0]!.at;
  const near = grown(
    { x0: start.x + by.x, y0: start.y + by.y, x1: start.x + by.x, y1: start.y + by.y },
    SIGHT,
  );
  const around = [...sheet.parts.values()].filter((p) => !ids.has(p.id) && contains(near, p.at));
  const others = around.flatMap((p) => [...pinsOf(p)]);
  const parts = [...ids].map((id) => sheet.parts.get(id)).filter((p): p is Part => p !== undefined);
  const mates = (part: Part) => around.filter((p) => p.kind === part.kind && p.turn === part.turn);
  const best = (axis: 'x' | 'y'): number => {
    // Only pins that look towards each other make a straight wire.
    const looks = axis === 'x' ? 'y' : 'x';
    let found = Math.round(by[axis]);
    let least = MAGNET;
    for (const pin of own)
      for (const other of others) {
        if (pin.out[looks] * other.out[looks] >= 0) continue;
        const d = other.at[axis] - pin.at[axis];
        if (Math.abs(d - by[axis]) < least) {
          least = Math.abs(d - by[axis]);
          found = d;
        }
      }
    // Parts of one kind stand in a column.
    if (axis === 'x')
      for (const part of parts)
        for (const mate of mates(part)) {
          const d = mate.at.x - part.at.x;
          if (Math.abs(d - by.x) < least) {
            least = Math.abs(d - by.x);
            found = d;
          }
        }
    return found;
  };
  const to = { x: best('x'), y: best('y') };
  const guides: Guide[] = [];
  const line = (axis: 'across' | 'down', at: number, from: number, until: number) => {
    const known = guides.findIndex((g) => g.axis === axis && g.at === at);
    const old = guides[known];
    const guide = {
      axis,
      at,
      from: Math.min(from, until, old?.from ?? from),
      to: Math.max(from, until, old?.to ?? until),
    };
    if (old) guides[known] = guide;
    else guides.push(guide);
  };
  for (const pin of own)
    for (const other of others) {
      const at = { x: pin.at.x + to.x, y: pin.at.y + to.y };
      if (pin.out.x * other.out.x < 0 && other.at.y === at.y) line('across', at.y, at.x, other.at.x);
      else if (pin.out.y * other.out.y < 0 && other.at.x === at.x) line('down', at.x, at.y, other.at.y);
    }
  for (const part of parts)
    for (const mate of mates(part))
      if (mate.at.x === part.at.x + to.x) line('down', mate.at.x, part.at.y + to.y, mate.at.y);
  return { by: to, guides };
}

/**
 * Lays out a whole sheet again: left to right, inputs in order, wires short and straight. Connections stay;
 * wires are drawn from the driver of a net to each of its readers. Notes keep their places.
 */
export function tidy(lesson: Lesson, sheetId: string): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const still = [...sheet.parts.values()].filter((p) => pinsOf(p).length === 0);
  const parts = new Map([...sheet.parts].filter(([, p]) => pinsOf(p).length > 0));
  const laid = layOut({ ...sheet, parts, wires: starred(sheet) });
  const edits: Edit[] = [...sheet.wires.keys()].map((id) => ({ type: 'removeWire', sheet: sheetId, id }));
  const corner = cornerOf(parts.values());
  const moved = cornerOf(laid.parts.values());
  const by = { x: Math.round(corner.x - moved.x), y: Math.round(corner.y - moved.y) };
  const shift = (p: Point) => ({ x: p.x + by.x, y: p.y + by.y });
  for (const part of laid.parts.values())
    edits.push({
      type: 'changePart',
      sheet: sheetId,
      id: part.id,
      change: { at: shift(part.at), turn: part.turn, mirrored: undefined },
    });
  for (const wire of laid.wires.values())
    edits.push({ type: 'addWire', sheet: sheetId, wire: { ...wire, course: wire.course.map(shift) } });
  // A note that would now lie under the circuit goes below it.
  const low = Math.max(...[...laid.parts.values()].map((p) => footprintOf(p).y1 + by.y));
  let y = Math.ceil(low) + 3;
  const boxes = [...laid.parts.values()].map((p) => footprintOf({ ...p, at: shift(p.at) }));
  for (const note of still) {
    const box = footprintOf(note);
    if (!boxes.some((b) => overlap(b, box))) continue;
    edits.push({
      type: 'changePart',
      sheet: sheetId,
      id: note.id,
      change: { at: { x: Math.round(corner.x + note.at.x - box.x0), y: Math.round(y + note.at.y - box.y0) } },
    });
    y += Math.ceil(box.y1 - box.y0) + 2;
  }
  return group(edits);
}

/**
 * Lays out some parts of a sheet again, in their place or as near to it as there is room. Wires to other parts are routed
 * again.
 */
export function tidySome(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const parts = new Map([...sheet.parts].filter(([id, p]) => ids.has(id) && pinsOf(p).length > 0));
  const nets = wireNets(sheet);
  const outer = new Set<number | undefined>();
  for (const part of sheet.parts.values())
    if (!parts.has(part.id))
      for (const { port } of pinsOf(part)) outer.add(nets.ofEnd({ part: part.id, port: port.name }));
  const onParts = wiresOnParts(sheet, new Set(parts.keys()));
  const inner = new Map(
    [...sheet.wires].filter(([id]) => onParts.includes(id) && !outer.has(nets.ofWire(id))),
  );
  const own: Sheet = { ...sheet, parts, wires: inner };
  const laid = layOut({ ...own, wires: starred(own) });
  const rest: Sheet = {
    ...sheet,
    parts: new Map([...sheet.parts].filter(([id]) => !parts.has(id))),
    wires: new Map([...sheet.wires].filter(([id]) => !onParts.includes(id))),
  };
  const [corner, moved] = [cornerOf(parts.values()), cornerOf(laid.parts.values())];
  const by = { x: Math.round(corner.x - moved.x), y: Math.round(corner.y - moved.y) };
  const shift = (p: Point) => ({ x: p.x + by.x, y: p.y + by.y });
  const there = [...laid.parts.values()].map((part) => ({ ...part, at: shift(part.at) }));
  const clear = freeShift(rest, boundingBox(there.map(footprintOf))!);
  const put = (p: Point) => ({ x: p.x + clear.x, y: p.y + clear.y });
  const edits: Edit[] = [...inner.keys()].map((id) => ({ type: 'removeWire', sheet: sheetId, id }));
  for (const { id, at, turn } of there)
    edits.push({
      type: 'changePart',
      sheet: sheetId,
      id,
      change: { at: put(at), turn, mirrored: undefined },
    });
  for (const wire of laid.wires.values())
    edits.push({
      type: 'addWire',
      sheet: sheetId,
      wire: { ...wire, course: wire.course.map((p) => put(shift(p))) },
    });
  const applied = apply(lesson, group(edits));
  if (!applied.ok) return group(edits);
  const after = sheetOf(applied.value, sheetId)!;
  return group([
    ...edits,
    ...reroute(
      after,
      onParts.filter((id) => !inner.has(id)),
    ),
  ]);
}

function cornerOf(parts: Iterable<Part>): Point {
  const boxes = [...parts].map(footprintOf);
  return { x: Math.min(...boxes.map((b) => b.x0)), y: Math.min(...boxes.map((b) => b.y0)) };
}

/** The wires of a sheet from the driver of each net to its readers, under the ids that they had. */
function starred(sheet: Sheet): Map<string, Wire> {
  const nets = wireNets(sheet);
  const pins = new Map<number, { end: End; drives: boolean }[]>();
  for (const part of sheet.parts.values())
    for (const { port } of pinsOf(part)) {
      const end = { part: part.id, port: port.name };
      const net = nets.ofEnd(end);
      if (net === undefined) continue;
      const pin = { end, drives: port.direction === 'out' };
      const list = pins.get(net);
      if (list) list.push(pin);
      else pins.set(net, [pin]);
    }
  const ids = new Map<number, Wire[]>();
  for (const wire of sheet.wires.values()) {
    const net = nets.ofWire(wire.id)!;
    const list = ids.get(net);
    if (list) list.push(wire);
    else ids.set(net, [wire]);
  }
  const wires = new Map<string, Wire>();
  for (const [net, list] of pins) {
    const hub = list.find((p) => p.drives) ?? list[0]!;
    const olds = ids.get(net)!;
    for (const [i, pin] of list.filter((p) => p !== hub).entries()) {
      // A net of n pins has at least n - 1 wires.
      const old = olds[i]!;
      wires.set(old.id, { id: old.id, from: hub.end, to: pin.end, course: [], colour: old.colour });
    }
  }
  return wires;
}
