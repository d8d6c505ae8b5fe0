import { apply, type Edit } from '../../circuit/edit';
import {
  boundingBoxOfPoints,
  boxOfPiece,
  contains,
  eachSegment,
  grown,
  overlap,
  type Point,
  samePoint,
} from '../../circuit/geometry';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import { isPinEnd, type Part, type Sheet, type Wire } from '../../circuit/sheet';
import { freePlace, standsClear } from '../geometry/free-place';
import { bodyOf, courseOf, footprintOf, labelBox, pinsOf } from '../geometry/placement';
import { spatialIndexOf } from '../geometry/spatial-index';
import { type WireNets, wireNets } from '../geometry/wire-nets';
import { group, reroute, withBranches } from '../routing/reroute';
import { moveEach } from './gestures';

/*
 * What every gesture leaves behind it: no part stands on another, and no wire runs over a label, or along anything that it
 * is not joined to.
 */

/** Edits that touch more parts and wires than this come from layouts and files, and are left as they are. */
const MOST_SETTLED = 400;

/** The parts and wires of one sheet that an edit has put somewhere. */
interface Put {
  readonly parts: Set<string>;
  readonly wires: Set<string>;
  /** Wires that are gone. */
  readonly gone: Set<string>;
}

function putBy(edit: Edit, found = new Map<string, Put>()): Map<string, Put> {
  const on = (sheet: string): Put => {
    let put = found.get(sheet);
    if (!put) {
      put = { parts: new Set(), wires: new Set(), gone: new Set() };
      found.set(sheet, put);
    }
    return put;
  };
  switch (edit.type) {
    case 'group':
      for (const e of edit.edits) putBy(e, found);
      break;
    case 'shift': {
      const put = on(edit.sheet);
      for (const id of edit.parts) put.parts.add(id);
      for (const id of edit.wires) put.wires.add(id);
      break;
    }
    case 'addPart':
      on(edit.sheet).parts.add(edit.part.id);
      break;
    case 'changePart': {
      const places = ['at', 'turn', 'mirrored', 'params', 'label'];
      if (places.some((key) => key in edit.change)) on(edit.sheet).parts.add(edit.id);
      break;
    }
    case 'addWire':
      on(edit.sheet).wires.add(edit.wire.id);
      break;
    case 'changeWire':
      if (edit.change.course || edit.change.from || edit.change.to) on(edit.sheet).wires.add(edit.id);
      break;
    case 'removeWire':
      on(edit.sheet).wires.delete(edit.id);
      on(edit.sheet).gone.add(edit.id);
      break;
    case 'removePart':
      found.get(edit.sheet)?.parts.delete(edit.id);
      break;
    default:
  }
  return found;
}

/** The edits that settle a lesson after an edit that was applied to the one before. */
export function settle(before: Lesson, after: Lesson, edit: Edit): Edit[] {
  const edits: Edit[] = [];
  let lesson = after;
  const make = (next: Edit) => {
    const applied = apply(lesson, next);
    if (!applied.ok) return;
    lesson = applied.value;
    edits.push(next);
  };
  for (const [sheetId, { parts, wires, gone }] of putBy(edit)) {
    for (const id of parted(before, after, sheetId, gone)) wires.add(id);
    if (parts.size + wires.size > MOST_SETTLED || !sheetOf(lesson, sheetId)) continue;
    for (const id of apart(sheetOf(lesson, sheetId)!, parts)) {
      const sheet = sheetOf(lesson, sheetId)!;
      const part = sheet.parts.get(id)!;
      const at = freePlace(sheet, part, { overWires: true });
      const by = { x: at.x - part.at.x, y: at.y - part.at.y };
      make(moveEach(lesson, sheetId, new Map([[id, by]])));
    }
    const touched = {
      parts,
      gone,
      wires: new Set([...wires, ...edits.flatMap((e) => [...wiresPut(e, sheetId)])]),
    };
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const sheet = sheetOf(lesson, sheetId)!;
      const unclear = unclearWires(sheet, touched, round > 0);
      if (unclear.size === 0) break;
      const again = withBranches(sheet, unclear);
      const laid = group(reroute(sheet, again));
      make(laid);
      // Others may have been laid again to make way.
      for (const id of [...again, ...wiresPut(laid, sheetId)]) touched.wires.add(id);
    }
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const unclear = unclearWires(sheetOf(lesson, sheetId)!, touched, false);
      if (unclear.size === 0) break;
      for (const id of unclear) {
        const edit = wayOut(lesson, sheetId, id, parts);
        if (!edit) continue;
        make(edit);
        for (const wire of wiresPut(edit, sheetId)) touched.wires.add(wire);
      }
    }
    for (const id of overLabels(sheetOf(lesson, sheetId)!, touched)) {
      const edit = roundLabels(lesson, sheetId, id) ?? besideLabels(lesson, sheetId, id, parts);
      if (edit) make(edit);
    }
  }
  return edits;
}

/** The price, in grid steps, at which a course that crossed a label goes round it instead. */
const ROUND_LABEL = 60;

/** Wires among those put, and those near parts put, that cross the label of a part; courses drawn by hand are left. */
function overLabels(sheet: Sheet, { parts, wires }: Put): string[] {
  const index = spatialIndexOf(sheet);
  const near = new Set(wires);
  for (const id of parts) {
    const box = sheet.parts.has(id) ? labelBox(sheet.parts.get(id)!) : null;
    for (const { wire } of box ? index.wiresIn(box) : []) if (wire) near.add(wire);
  }
  return [...near].filter((id) => {
    const wire = sheet.wires.get(id);
    return wire && !wire.drawn && labelsCrossed(sheet, [id]) > 0;
  });
}

/** How many labels of parts some wires cross, each as often as there are wires. */
const labelsCrossed = (sheet: Sheet, wires: readonly string[]): number =>
  wires.reduce(
    (sum, id) => sum + (sheet.wires.has(id) ? labelledOn(sheet, sheet.wires.get(id)!).length : 0),
    0,
  );

/**
 * The edit by which a part with more air around it lets a wire pass clear of all labels: one at its end, or one that was put
 * there just now. Null where none does.
 */
function besideLabels(lesson: Lesson, sheetId: string, id: string, put: ReadonlySet<string>): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const wire = sheet.wires.get(id)!;
  const ends = [wire.from, wire.to].flatMap((end) => (isPinEnd(end) ? [end.part] : []));
  const near = [...ends, ...labelledOn(sheet, wire)];
  near.sort((a, b) => Number(put.has(b)) - Number(put.has(a)));
  for (const air of WIDER_AIR)
    for (const one of new Set(near)) {
      const part = sheet.parts.get(one)!;
      const at = freePlace(sheet, part, { overWires: true, air });
      if (samePoint(at, part.at)) continue;
      const moved = moveEach(lesson, sheetId, new Map([[one, { x: at.x - part.at.x, y: at.y - part.at.y }]]));
      const applied = apply(lesson, moved);
      if (!applied.ok) continue;
      const round = roundLabels(applied.value, sheetId, id);
      const edit = round ? group([moved, round]) : moved;
      const done = round ? apply(applied.value, round) : applied;
      const after = done.ok ? sheetOf(done.value, sheetId) : undefined;
      const changed = putBy(edit).get(sheetId)!;
      if (after && unclearWires(after, changed, false).size === 0 && overLabels(after, changed).length === 0)
        return edit;
    }
  return null;
}

/** The parts whose labels a wire crosses. */
function labelledOn(sheet: Sheet, wire: Wire): string[] {
  const points = courseOf(sheet, wire);
  const bounds = boundingBoxOfPoints(points);
  return bounds
    ? spatialIndexOf(sheet)
        .partsIn(bounds)
        .filter((part) => crosses(points, part))
        .map((part) => part.id)
    : [];
}

/** Whether a course crosses the label of a part. */
function crosses(points: readonly Point[], part: Part): boolean {
  const label = labelBox(part);
  let isOver = false;
  if (label)
    eachSegment(points, (a, b) => {
      isOver ||= overlap(boxOfPiece(a, b), grown(label, -0.3));
    });
  return isOver;
}

/** The edit that routes a wire round the labels that it crosses; null if it would cross as many. */
function roundLabels(lesson: Lesson, sheetId: string, id: string): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const wires = withBranches(sheet, new Set([id]));
  const edit = group(reroute(sheet, wires, 0, ROUND_LABEL));
  const applied = apply(lesson, edit);
  const after = applied.ok ? sheetOf(applied.value, sheetId) : undefined;
  if (!after || unclearWires(after, putBy(edit).get(sheetId)!, false).size > 0) return null;
  return labelsCrossed(after, wires) < labelsCrossed(sheet, wires) ? edit : null;
}

const MOST_ROUNDS = 3;

/** Wires whose joining wires are gone: they may now carry different nets. */
function parted(before: Lesson, after: Lesson, sheetId: string, gone: ReadonlySet<string>): string[] {
  const [was, is] = [sheetOf(before, sheetId), sheetOf(after, sheetId)];
  if (gone.size === 0 || !was || !is) return [];
  const nets = wireNets(was);
  const cut = new Set([...gone].map((id) => nets.ofWire(id)));
  return [...is.wires.keys()].filter((id) => was.wires.has(id) && cut.has(nets.ofWire(id)));
}

/** How many other places are tried for a branch, or for a part, whose wire finds no way. */
const MOST_PLACES = 40;
/** A wire that passes an end of another within so many grid steps may shut it in. */
const NEAR_END = 2;
/** How many parts that were put just now are tried elsewhere. */
const MOST_GIVING_WAY = 4;
/** So much more air a part is given whose pins are shut in, in grid steps. */
const WIDER_AIR = [1, 3, 6, 12];

/**
 * The edit that finds a course for a blocked wire. Tried in turn: the wire alone; the wire before another that shuts it in;
 * its branch at another point of its host; more air around a part at its end, or around a part just placed. Null if nothing
 * helps.
 */
function wayOut(lesson: Lesson, sheetId: string, id: string, put: ReadonlySet<string>): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const wire = sheet.wires.get(id)!;
  const isLaid = (edit: Edit) => {
    const applied = apply(lesson, edit);
    const after = applied.ok ? sheetOf(applied.value, sheetId) : undefined;
    return after !== undefined && unclearWires(after, putBy(edit).get(sheetId)!, false).size === 0;
  };
  const alone = group(reroute(sheet, withBranches(sheet, new Set([id])), 0));
  if (isLaid(alone)) return alone;
  // Another wire that shuts in one of its ends is laid after it.
  for (const end of [courseOf(sheet, wire)[0]!, courseOf(sheet, wire).at(-1)!])
    for (const { wire: other } of spatialIndexOf(sheet).wiresIn(
      grown({ x0: end.x, y0: end.y, x1: end.x, y1: end.y }, NEAR_END),
    )) {
      if (!other || other === id) continue;
      const after = group(reroute(sheet, withBranches(sheet, new Set([id, other])), 0));
      if (isLaid(after)) return after;
    }
  for (const key of ['from', 'to'] as const) {
    const end = wire[key];
    const host = isPinEnd(end) ? undefined : sheet.wires.get(end.wire);
    if (isPinEnd(end) || !host) continue;
    const far = (p: Point) => Math.abs(p.x - end.at.x) + Math.abs(p.y - end.at.y);
    const places = pointsOn(courseOf(sheet, host)).sort((a, b) => far(a) - far(b));
    for (const at of places.slice(1, MOST_PLACES)) {
      const moved: Wire = { ...wire, [key]: { wire: end.wire, at }, course: [] };
      const there: Sheet = { ...sheet, wires: new Map(sheet.wires).set(id, moved) };
      const change = { from: moved.from, to: moved.to, course: [], drawn: undefined };
      const edit = group([
        { type: 'changeWire', sheet: sheetId, id, change },
        ...reroute(there, withBranches(there, new Set([id])), 0),
      ]);
      if (isLaid(edit)) return edit;
    }
  }
  const ends = [wire.from, wire.to].flatMap((end) => (isPinEnd(end) ? [end.part] : []));
  ends.sort((a, b) => Number(put.has(b)) - Number(put.has(a)));
  // What was put in the way just now may give way as well.
  ends.push(
    ...[...put].filter((part) => !ends.includes(part) && sheet.parts.has(part)).slice(0, MOST_GIVING_WAY),
  );
  for (const air of WIDER_AIR)
    for (const end of ends) {
      const part = sheet.parts.get(end)!;
      const at = freePlace(sheet, part, { overWires: true, air });
      if (samePoint(at, part.at)) continue;
      const edit = moveEach(lesson, sheetId, new Map([[end, { x: at.x - part.at.x, y: at.y - part.at.y }]]));
      if (isLaid(edit)) return edit;
    }
  return null;
}

/** All grid points of a course. */
function pointsOn(course: readonly Point[]): Point[] {
  const found: Point[] = [];
  eachSegment(course, (a, b) => {
    const steps = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
    const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
    for (let i = 0; i <= steps; i++) found.push({ x: a.x + dx * i, y: a.y + dy * i });
  });
  return found;
}

const wiresPut = (edit: Edit, sheetId: string): Iterable<string> => putBy(edit).get(sheetId)?.wires ?? [];

/** The placed parts that overlap others; of two placed parts that overlap, the later one. */
function apart(sheet: Sheet, put: ReadonlySet<string>): string[] {
  const settled = new Set(put);
  return [...put].filter((id) => {
    const part = sheet.parts.get(id);
    if (!part) return false;
    settled.delete(id);
    return !standsClear(sheet, part, settled);
  });
}

/**
 * Wires among those put, and those near parts put, that run over what they are not joined to.
 * @param both whether the earlier of two meeting wires is reported as well.
 */
function unclearWires(sheet: Sheet, { parts, wires }: Put, both: boolean): Set<string> {
  const nets = wireNets(sheet);
  const index = spatialIndexOf(sheet);
  const found = new Set<string>();
  for (const id of wires) {
    const wire = sheet.wires.get(id);
    if (!wire) continue;
    const points = courseOf(sheet, wire);
    const bounds = boundingBoxOfPoints(points);
    if (!bounds) continue;
    // A corner that its course does not have was put in where no way was found.
    if (points.length !== wire.course.length + 2) found.add(id);
    if (index.partsIn(grown(bounds, 1)).some((part) => runsOver(sheet, nets, wire, part))) found.add(id);
    const net = nets.ofWire(id);
    for (const { wire: other } of index.wiresIn(bounds)) {
      if (!other || other === id || nets.ofWire(other) === net) continue;
      if (!looksJoined(points, courseOf(sheet, sheet.wires.get(other)!))) continue;
      found.add(id);
      if (both) found.add(other);
    }
  }
  for (const id of parts) {
    const part = sheet.parts.get(id);
    if (!part) continue;
    for (const { wire } of index.wiresIn(grown(footprintOf(part), 1)))
      if (wire && runsOver(sheet, nets, sheet.wires.get(wire)!, part)) found.add(wire);
  }
  return found;
}

/** Whether a wire runs through the body of a part, or over a pin that it is not joined to. */
function runsOver(sheet: Sheet, nets: WireNets, wire: Wire, part: Part): boolean {
  const body = grown(bodyOf(part), -0.3);
  const net = nets.ofWire(wire.id);
  const foreign = pinsOf(part).filter((p) => nets.ofEnd({ part: part.id, port: p.port.name }) !== net);
  let over = false;
  eachSegment(courseOf(sheet, wire), (a, b) => {
    const piece = boxOfPiece(a, b);
    over ||= overlap(piece, body) || foreign.some((p) => contains(piece, p.at));
  });
  return over;
}

/** Whether two courses look joined: they share a stretch, or one turns or ends on the other. */
function looksJoined(one: readonly Point[], other: readonly Point[]): boolean {
  let joined = false;
  eachSegment(one, (a, b) =>
    eachSegment(other, (c, d) => {
      if (joined) return;
      const [p, q] = [boxOfPiece(a, b), boxOfPiece(c, d)];
      const [x0, x1] = [Math.max(p.x0, q.x0), Math.min(p.x1, q.x1)];
      const [y0, y1] = [Math.max(p.y0, q.y0), Math.min(p.y1, q.y1)];
      if (x0 > x1 || y0 > y1) return;
      const isFlat = (s: typeof p) => s.y0 === s.y1;
      if (isFlat(p) === isFlat(q)) joined = true;
      else {
        const at = { x: x0, y: y0 };
        joined = [a, b, c, d].some((end) => end.x === at.x && end.y === at.y);
      }
    }),
  );
  return joined;
}
