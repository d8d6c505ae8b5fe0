import type { Edit } from '../circuit/edit';
import { apply } from '../circuit/edit';
import { eachPiece, nearestOnPiece, onPiece, type Point, type Turn } from '../circuit/geometry';
import {
  type End,
  freshId,
  isPinEnd,
  type Lesson,
  type Params,
  type Part,
  type PinEnd,
  type Sheet,
  sheetOf,
  type Wire,
} from '../circuit/lesson';
import { nextRank } from '../netlist/declared';
import { defaultParams, roleOf } from '../parts/catalogue';
import type { PartKind } from '../parts/part-kind';
import { courseOf, endPoint, pinOf } from './placement';
import { Obstacles, type RouteEnd, route } from './route';
import { type WireNets, wireNets } from './wire-nets';

/*
 * What a hand does on a sheet, as edits. Courses of wires are part of the document, so that a sheet looks the
 * same wherever it is opened and nothing jumps that was not touched; a gesture that moves parts therefore
 * brings the new courses of their wires along.
 */

function group(edits: readonly Edit[]): Edit {
  return edits.length === 1 ? edits[0]! : { type: 'group', edits };
}

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

/** A wire between two ends, laid around what stands there; null where both ends are one and the same. */
export function connect(sheet: Sheet, from: End, to: End): Edit | null {
  if (isPinEnd(from) && isPinEnd(to) && from.part === to.part && from.port === to.port) return null;
  const wire: Wire = { id: freshId(sheet.wires, 'w'), from, to, course: [] };
  const joined: Sheet = { ...sheet, wires: new Map(sheet.wires).set(wire.id, wire) };
  const nets = wireNets(joined);
  const course = findCourse(joined, wire, new Obstacles(joined, nets, new Set([wire.id])), nets);
  const added: Edit = { type: 'addWire', sheet: sheet.id, wire: { ...wire, course: course ?? [] } };
  return course ? added : group([added, ...relay(joined, [wire.id])]);
}

function routeEnd(sheet: Sheet, end: End): RouteEnd | null {
  if (!isPinEnd(end)) return { at: end.at };
  const pin = pinOf(sheet, end.part, end.port);
  return pin && { at: pin.at, out: pin.out };
}

/** Null where there is no way. */
function findCourse(sheet: Sheet, wire: Wire, obstacles: Obstacles, nets: WireNets): Point[] | null {
  const from = routeEnd(sheet, wire.from);
  const to = routeEnd(sheet, wire.to);
  if (!from || !to) return [];
  return route(obstacles, from, to, nets.ofWire(wire.id) ?? -1);
}

/** Wires that hang on any of the parts, and those that branch from such a wire, hosts first. */
export function wiresOf(sheet: Sheet, parts: ReadonlySet<string>): string[] {
  const found = new Set<string>();
  for (const w of sheet.wires.values())
    if ([w.from, w.to].some((end) => isPinEnd(end) && parts.has(end.part))) found.add(w.id);
  return withBranches(sheet, found);
}

/** The wires and all that branch from them, by way of others too. */
function withBranches(sheet: Sheet, wires: ReadonlySet<string>): string[] {
  const found = new Set(wires);
  for (let grew = true; grew; ) {
    grew = false;
    for (const w of sheet.wires.values())
      if (!found.has(w.id) && [w.from, w.to].some((end) => !isPinEnd(end) && found.has(end.wire))) {
        found.add(w.id);
        grew = true;
      }
  }
  return [...found];
}

/** Wires that pass within this many steps of an end may stand in its way. */
const NEAR = 2;
const MOST_RETRIES = 2;

/**
 * The edits that lay wires anew, each branch put back onto its host's new course where that passes nearest. Where
 * one finds no way, it is laid first and those that shut it in are laid anew after it.
 */
function relay(sheet: Sheet, wires: readonly string[], retries = MOST_RETRIES): Edit[] {
  const edits: Edit[] = [];
  const stuck: string[] = [];
  const nets = wireNets(sheet);
  const obstacles = new Obstacles(sheet, nets, new Set(wires));
  const laid = new Map(sheet.wires);
  const now = (): Sheet => ({ ...sheet, wires: laid });
  const todo = new Set(wires);
  const onHost = (end: End): End => {
    const host = isPinEnd(end) ? undefined : laid.get(end.wire);
    if (isPinEnd(end) || !host) return end;
    let best = end.at;
    let least = Number.POSITIVE_INFINITY;
    eachPiece(courseOf(now(), host), (a, b) => {
      const p = nearestOnPiece(a, b, end.at);
      const distance = Math.abs(p.x - end.at.x) + Math.abs(p.y - end.at.y);
      if (distance < least) [best, least] = [p, distance];
    });
    return least === 0 ? end : { wire: end.wire, at: best };
  };
  const waits = (w: Wire) => [w.from, w.to].some((end) => !isPinEnd(end) && todo.has(end.wire));
  while (todo.size > 0) {
    const id = [...todo].find((w) => !waits(laid.get(w)!)) ?? [...todo][0]!;
    todo.delete(id);
    const old = laid.get(id)!;
    const wire: Wire = { ...old, from: onHost(old.from), to: onHost(old.to) };
    const found = findCourse(now(), wire, obstacles, nets);
    if (!found) stuck.push(id);
    const course = found ?? [];
    laid.set(id, { ...wire, course });
    obstacles.lay(courseOf(now(), laid.get(id)!), nets.ofWire(id) ?? -1);
    const change = {
      course,
      ...(wire.from !== old.from ? { from: wire.from } : {}),
      ...(wire.to !== old.to ? { to: wire.to } : {}),
    };
    edits.push({ type: 'changeWire', sheet: sheet.id, id, change });
  }
  if (stuck.length === 0 || retries === 0) return edits;
  const again = new Set([...stuck, ...wires, ...wiresNear(sheet, stuck)]);
  return relay(sheet, [...again], retries - 1);
}

/** Wires that pass close by an end of one of the given ones, with what branches from them. */
function wiresNear(sheet: Sheet, stuck: readonly string[]): string[] {
  const ends = stuck.flatMap((id) => {
    const { from, to } = sheet.wires.get(id)!;
    return [endPoint(sheet, from), endPoint(sheet, to)].filter((p) => p !== null);
  });
  const near = new Set<string>();
  for (const w of sheet.wires.values())
    eachPiece(courseOf(sheet, w), (a, b) => {
      for (const end of ends) {
        const p = nearestOnPiece(a, b, end);
        if (Math.abs(p.x - end.x) + Math.abs(p.y - end.y) <= NEAR) near.add(w.id);
      }
    });
  return withBranches(sheet, near);
}

/** Follows an edit that moved or changed parts by the new courses of their wires. */
function withWires(
  lesson: Lesson,
  sheetId: string,
  edits: readonly Edit[],
  parts: ReadonlySet<string>,
): Edit {
  const applied = apply(lesson, group(edits));
  const sheet = applied.ok ? sheetOf(applied.lesson, sheetId) : undefined;
  if (!sheet) return group(edits);
  const inner = wiresOf(sheet, parts);
  return group([...edits, ...relay(sheet, inner)]);
}

/** Moves parts by whole grid steps; a wire between two of them goes along unchanged. */
export function move(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>, by: Point): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const edits: Edit[] = [];
  for (const id of ids) {
    const part = sheet.parts.get(id);
    if (part)
      edits.push({
        type: 'changePart',
        sheet: sheetId,
        id,
        change: { at: { x: part.at.x + by.x, y: part.at.y + by.y } },
      });
  }
  const all = wiresOf(sheet, ids);
  const carried = new Set(all.filter((w) => movesWhole(sheet, w, ids)));
  const shift = (p: Point) => ({ x: p.x + by.x, y: p.y + by.y });
  for (const id of carried) {
    const wire = sheet.wires.get(id)!;
    const end = (e: End): End => (isPinEnd(e) ? e : { wire: e.wire, at: shift(e.at) });
    edits.push({
      type: 'changeWire',
      sheet: sheetId,
      id,
      change: { course: wire.course.map(shift), from: end(wire.from), to: end(wire.to) },
    });
  }
  const applied = apply(lesson, group(edits));
  const after = applied.ok ? sheetOf(applied.lesson, sheetId)! : sheet;
  return group([
    ...edits,
    ...relay(
      after,
      all.filter((w) => !carried.has(w)),
    ),
  ]);
}

/** Whether both ends of a wire move with the parts, be it through the wires on which it branches. */
function movesWhole(sheet: Sheet, id: string, parts: ReadonlySet<string>, seen = new Set<string>()): boolean {
  if (seen.has(id)) return false;
  seen.add(id);
  const wire = sheet.wires.get(id);
  return (
    !!wire &&
    [wire.from, wire.to].every((e) =>
      isPinEnd(e) ? parts.has(e.part) : movesWhole(sheet, e.wire, parts, seen),
    )
  );
}

export function turn(lesson: Lesson, sheetId: string, ids: ReadonlySet<string>): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const edits: Edit[] = [...ids].flatMap((id) => {
    const part = sheet.parts.get(id);
    if (!part) return [];
    return {
      type: 'changePart',
      sheet: sheetId,
      id,
      change: { turn: ((part.turn + 1) % 4) as Turn },
    } as const;
  });
  return withWires(lesson, sheetId, edits, ids);
}

/**
 * Changes a part's parameters; wires on ports that it no longer has are removed.
 * @param renamed ports that go on under another name, their wires with them.
 */
export function setParams(
  lesson: Lesson,
  sheetId: string,
  id: string,
  params: Params,
  renamed: ReadonlyMap<string, string> = new Map(),
): Edit {
  const sheet = sheetOf(lesson, sheetId)!;
  const changed: Edit = { type: 'changePart', sheet: sheetId, id, change: { params } };
  const part = { ...sheet.parts.get(id)!, params };
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
  return withWires(lesson, sheetId, [...removed, changed, ...moved], new Set([id]));
}

/**
 * Removes parts and wires, and the wires that hang on them. Where a removed wire carried branches, the piece of
 * it that they need stays: it becomes part of the branch that leaves it last.
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

/** Hands what is left of a removed wire to its branches, or sends those after it into `going`. */
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
    if (onPiece(points[i - 1]!, points[i]!, at)) return points.slice(0, i);
  return [...points];
}
