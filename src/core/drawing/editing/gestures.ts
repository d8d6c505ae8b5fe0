import { apply, type Edit, type PartChange } from '../../circuit/edit';
import { isOnSegment, type Point, samePoint, type Turn } from '../../circuit/geometry';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import {
  type End,
  freshId,
  isPinEnd,
  type Params,
  type Part,
  type PinEnd,
  type Sheet,
  type Wire,
} from '../../circuit/sheet';
import { nextRank } from '../../netlist/declared';
import { roleOf } from '../../parts/catalogue';
import { defaultParams, readParams } from '../../parts/params';
import type { PartKind } from '../../parts/part-kind';
import { courseOf, pinOf, pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { findCourse, group, reroute, wiresOnParts, withRerouted } from '../routing/reroute';
import { Obstacles } from '../routing/route';

/*
 * Gestures on a sheet, as edits. Courses of wires are part of the document, so a sheet looks the same
 * wherever it is opened and nothing jumps that was not touched; a gesture that moves parts therefore carries
 * the new courses of their wires.
 */

/** A new part with a label of its own where its kind has one: the typed label, or the next free number. */
export function newPart(sheet: Sheet, kind: PartKind, at: Point, params: Params, label: string): Part {
  const part: Part = {
    id: freshPartId(sheet, kind.kind),
    kind: kind.kind,
    at,
    turn: 0,
    label,
    rank: 0,
    params: { ...defaultParams(kind), ...params },
  };
  return {
    ...part,
    label: label || (kind.labelled ? freeLabel(sheet, kind.labelled) : ''),
    rank: roleOf(part) ? nextRank(sheet) : 0,
  };
}

/** The kind and the next number among its like: `and2` where one AND is there. */
function freshPartId(sheet: Sheet, kind: string): string {
  let n = 1;
  for (const part of sheet.parts.values()) if (part.kind === kind) n++;
  while (sheet.parts.has(kind + n)) n++;
  return kind + n;
}

function freeLabel(sheet: Sheet, start: string): string {
  const taken = new Set([...sheet.parts.values()].map((p) => p.label));
  if (start.length > 1 && !taken.has(start)) return start;
  let n = start.length > 1 ? 2 : 1;
  while (taken.has(start + n)) n++;
  return start + n;
}

/** A wire between two ends, routed around the parts; null if both ends are the same. */
export function connect(sheet: Sheet, from: End, to: End): Edit | null {
  if (isPinEnd(from) && isPinEnd(to) && from.part === to.part && from.port === to.port) return null;
  const wire: Wire = { id: freshId(sheet.wires, 'w'), from, to, course: [] };
  const joined: Sheet = { ...sheet, wires: new Map(sheet.wires).set(wire.id, wire) };
  const nets = wireNets(joined);
  const course = findCourse(
    joined,
    wire,
    new Obstacles(joined, nets, new Set([wire.id]), courseOf(joined, wire)),
    nets,
  );
  const added: Edit = { type: 'addWire', sheet: sheet.id, wire: { ...wire, course: course ?? [] } };
  return course ? added : group([added, ...reroute(joined, [wire.id])]);
}

/** Moves parts by whole grid steps; a wire between two of them goes along unchanged. */
export function move(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>, by: Point): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  if (by.x === 0 && by.y === 0) return group([]);
  const { parts, carried, left } = carriedWith(sheet, ids);
  if (parts.length === 0) return group([]);
  return withRoutes(lesson, sheetId, [{ type: 'shift', sheet: sheetId, by, parts, wires: carried }], left);
}

/** What moves with some parts of a sheet that all move alike. */
interface Carried {
  readonly ids: ReadonlySet<string>;
  readonly parts: string[];
  /** Wires between them, and wires that have an end elsewhere. */
  readonly carried: string[];
  readonly left: string[];
}

/** The last answer for each sheet: a drag asks for it at every step. */
const lastCarried = new WeakMap<Sheet, Carried>();

function carriedWith(sheet: Sheet, ids: ReadonlySet<string>): Carried {
  const last = lastCarried.get(sheet);
  if (last?.ids === ids) return last;
  const parts = [...ids].filter((id) => sheet.parts.has(id));
  const together = { x: 1, y: 0 };
  const by = new Map(parts.map((id) => [id, together]));
  const [carried, left]: [string[], string[]] = [[], []];
  for (const id of wiresOnParts(sheet, new Set(parts))) (carriedBy(sheet, id, by) ? carried : left).push(id);
  const found = { ids, parts, carried, left };
  lastCarried.set(sheet, found);
  return found;
}

/** Edits that move things, and with them the wires that cannot go along. */
function withRoutes(lesson: Lesson, sheetId: string, edits: readonly Edit[], left: readonly string[]): Edit {
  if (left.length === 0) return group(edits);
  const applied = apply(lesson, group(edits));
  const after = sheetOf(applied.ok ? applied.value : lesson, sheetId)!;
  return group([...edits, ...reroute(after, left)]);
}

/** Moves parts each by its own whole grid steps; a wire between parts that move alike goes along unchanged. */
export function moveEach(lesson: Lesson, sheetId: string, by: ReadonlyMap<string, Point>): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  /** Parts and wires that go along, by the distance. */
  const shifts = new Map<string, { by: Point; parts: string[]; wires: string[] }>();
  const shiftBy = (d: Point) => {
    const key = `${d.x} ${d.y}`;
    const known = shifts.get(key);
    if (known) return known;
    const shift = { by: d, parts: [], wires: [] };
    shifts.set(key, shift);
    return shift;
  };
  const moved = new Set<string>();
  for (const [id, d] of by) {
    if (!sheet.parts.has(id) || (d.x === 0 && d.y === 0)) continue;
    moved.add(id);
    shiftBy(d).parts.push(id);
  }
  const all = wiresOnParts(sheet, moved);
  const left: string[] = [];
  for (const id of all) {
    const d = carriedBy(sheet, id, by);
    if (d) shiftBy(d).wires.push(id);
    else left.push(id);
  }
  const edits = [...shifts.values()].map((shift): Edit => ({ type: 'shift', sheet: sheetId, ...shift }));
  return withRoutes(lesson, sheetId, edits, left);
}

/**
 * The distance by which both ends of a wire move, possibly through the wires on which it branches; null if
 * they differ.
 */
function carriedBy(
  sheet: Sheet,
  id: string,
  by: ReadonlyMap<string, Point>,
  seen = new Set<string>(),
): Point | null {
  const wire = sheet.wires.get(id);
  if (!wire || seen.has(id)) return null;
  seen.add(id);
  const moved = (e: End) => (isPinEnd(e) ? (by.get(e.part) ?? null) : carriedBy(sheet, e.wire, by, seen));
  const [a, b] = [moved(wire.from), moved(wire.to)];
  return a && b && samePoint(a, b) ? a : null;
}

/** Turns parts by quarter turns clockwise, each about its own middle. */
export function turn(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>, quarters = 1): Edit {
  return reorient(lesson, sheetId, ids, (part) => ({
    turn: ((((part.turn + quarters) % 4) + 4) % 4) as Turn,
  }));
}

/** Mirrors parts left to right, or top to bottom, each in its own place. */
export function mirror(
  lesson: Lesson,
  sheetId: string,
  ids: ReadonlySet<string>,
  axis: 'across' | 'down' = 'across',
): Edit {
  // Mirrored after a quarter turn, left and right have become top and bottom.
  return reorient(lesson, sheetId, ids, (part) => ({
    mirrored: !part.mirrored,
    turn: ((part.turn % 2 === 0) === (axis === 'across') ? part.turn : (part.turn + 2) % 4) as Turn,
  }));
}

function reorient(
  lesson: Lesson,
  sheetId: string,
  ids: ReadonlySet<string>,
  change: (part: Part) => PartChange,
): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const edits: Edit[] = [...ids].flatMap((id) => {
    const part = sheet.parts.get(id);
    return part ? { type: 'changePart', sheet: sheetId, id, change: change(part) } : [];
  });
  return withRerouted(lesson, sheetId, edits, ids);
}

/**
 * Changes a part's parameters; wires on ports that it no longer has are removed.
 * @param renamed ports that go on under another name, their wires with them.
 * @param kind the new kind of the part; without one it keeps its own.
 */
export function setParams(
  lesson: Lesson,
  sheetId: string,
  id: string,
  params: Params,
  renamed: ReadonlyMap<string, string> = new Map(),
  kind: string = sheetOf(lesson, sheetId)!.parts.get(id)!.kind,
): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const was = sheet.parts.get(id)!;
  const change: PartChange = kind === was.kind ? { params } : { params, kind };
  const changed: Edit = { type: 'changePart', sheet: sheetId, id, change };
  const part = { ...was, ...change };
  const after: Sheet = { ...sheet, parts: new Map(sheet.parts).set(id, part) };
  const isHere = (e: End): e is PinEnd => isPinEnd(e) && e.part === id;
  const named = (e: End): End => (isHere(e) ? { ...e, port: renamed.get(e.port) ?? e.port } : e);
  const lost: string[] = [];
  const moved: Edit[] = [];
  for (const w of sheet.wires.values()) {
    const [from, to] = [named(w.from), named(w.to)];
    if ([from, to].some((e) => isHere(e) && !pinOf(after, id, e.port))) lost.push(w.id);
    else if ([w.from, w.to].some((e) => isHere(e) && renamed.has(e.port)))
      moved.push({ type: 'changeWire', sheet: sheetId, id: w.id, change: { from, to } });
  }
  const removed = lost.length ? [remove(sheet, new Set(), new Set(lost))] : [];
  return withRerouted(lesson, sheetId, [...removed, changed, ...moved], new Set([id]));
}

/**
 * Makes a part one of another kind: it keeps its label, the settings that both have, and its wires on the pins that come
 * first, second and so on among the inputs, and among the outputs.
 */
export function changeKind(lesson: Lesson, sheetId: string, id: string, kind: PartKind, given: Params): Edit {
  const was = sheetOf(lesson, sheetId)!.parts.get(id)!;
  const shared = Object.keys(given).filter((key) => key in was.params && key !== 'label');
  const kept = readParams(kind, { ...given, ...Object.fromEntries(shared.map((k) => [k, was.params[k]])) });
  const params = kept.ok ? kept.value : given;
  const ports = kind.ports(params);
  const renamed = new Map<string, string>();
  for (const direction of ['in', 'out', 'both'] as const) {
    const next = ports.filter((p) => p.direction === direction);
    const before = pinsOf(was).filter((p) => p.port.direction === direction);
    for (const [i, { port }] of before.entries()) renamed.set(port.name, next[i]?.name ?? '');
  }
  const edit = setParams(lesson, sheetId, id, params, renamed, kind.kind);
  const isNew = kind.role?.(params) && !roleOf(was);
  const rank = nextRank(sheetOf(lesson, sheetId)!);
  return isNew ? group([edit, { type: 'changePart', sheet: sheetId, id, change: { rank } }]) : edit;
}

/**
 * Removes parts and wires, and the wires connected to them. If a removed wire carried branches, the piece
 * that they need stays: it becomes part of the branch that leaves it last.
 */
export function remove(sheet: Sheet, parts: ReadonlySet<string>, wires: ReadonlySet<string>): Edit {
  const kept = new Map(sheet.wires);
  const lost = (end: End) => (isPinEnd(end) ? parts.has(end.part) : !kept.has(end.wire));
  const going = [...sheet.wires.values()]
    .filter((w) => wires.has(w.id) || [w.from, w.to].some((end) => isPinEnd(end) && parts.has(end.part)))
    .map((w) => w.id);
  for (const id of going) kept.delete(id);
  for (const id of going) bequeath(sheet, sheet.wires.get(id)!, kept, lost, going);
  const edits: Edit[] = [];
  for (const [id, was] of sheet.wires) {
    const now = kept.get(id);
    if (!now) edits.push({ type: 'removeWire', sheet: sheet.id, id });
    else if (now !== was) {
      const { from, to, course } = now;
      edits.push({ type: 'changeWire', sheet: sheet.id, id, change: { from, to, course } });
    }
  }
  for (const id of parts) if (sheet.parts.has(id)) edits.push({ type: 'removePart', sheet: sheet.id, id });
  return group(edits);
}

/** Passes the rest of a removed wire on to its branches, or adds the wires after it to `going`. */
function bequeath(
  sheet: Sheet,
  host: Wire,
  kept: Map<string, Wire>,
  lost: (end: End) => boolean,
  going: string[],
): void {
  const course = courseOf(sheet, host);
  const ends = [
    { end: host.from, points: course },
    { end: host.to, points: [...course].reverse() },
  ].filter(({ end }) => !lost(end));
  const drives = ({ end }: { end: End }) =>
    isPinEnd(end) && pinOf(sheet, end.part, end.port)?.port.direction === 'out';
  const left = ends.find(drives) ?? ends[0];
  const branches = [...kept.values()]
    .flatMap((wire) => (['from', 'to'] as const).map((key) => ({ wire, key, end: wire[key] })))
    .flatMap(({ wire, key, end }) =>
      !isPinEnd(end) && end.wire === host.id ? [{ wire, key, at: end.at }] : [],
    )
    .map((b) => ({ ...b, far: left ? distanceAlong(left.points, b.at) : 0 }))
    .sort((a, b) => b.far - a.far);
  const last = branches[0];
  if (!last) return;
  if (!left) {
    for (const { wire } of branches) {
      kept.delete(wire.id);
      going.push(wire.id);
    }
    return;
  }
  const before = [...upTo(left.points, last.at), last.at].slice(1);
  const taken = kept.get(last.wire.id)!;
  const corners = last.key === 'from' ? [...before, ...taken.course] : [...taken.course, ...before.reverse()];
  kept.set(taken.id, { ...taken, [last.key]: left.end, course: corners });
  for (const { wire, key, at } of branches.slice(1))
    kept.set(wire.id, { ...kept.get(wire.id)!, [key]: { wire: taken.id, at } });
}

/** How far along a course a point on it lies. */
function distanceAlong(points: readonly Point[], at: Point): number {
  let sum = 0;
  for (const p of [...upTo(points, at), at].map((p, i, all) => [all[i - 1] ?? p, p] as const))
    sum += Math.abs(p[0].x - p[1].x) + Math.abs(p[0].y - p[1].y);
  return sum;
}

/** The corners of a course before it reaches a point. */
function upTo(points: readonly Point[], at: Point): Point[] {
  for (let i = 1; i < points.length; i++)
    if (isOnSegment(points[i - 1]!, points[i]!, at)) return points.slice(0, i);
  return [...points];
}
