import type { Edit } from '../../circuit/edit';
import { apply } from '../../circuit/edit';
import {
  eachSegment,
  nearestOnCourse,
  nearestOnSegment,
  type Point,
  samePoint,
  simplified,
} from '../../circuit/geometry';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import { type End, isPinEnd, type Sheet, type Wire } from '../../circuit/sheet';
import { courseOf, endPoint, pinOf } from '../geometry/placement';
import { type WireNets, wireNets } from '../geometry/wire-nets';
import { isFree, Obstacles, type RouteEnd, route } from './route';

/*
 * Routing wires again after a gesture has moved or changed their ends.
 */

export function group(edits: readonly Edit[]): Edit {
  return edits.length === 1 ? edits[0]! : { type: 'group', edits };
}

export function routeEnd(sheet: Sheet, end: End): RouteEnd | null {
  if (!isPinEnd(end)) return { at: end.at };
  const pin = pinOf(sheet, end.part, end.port);
  return pin && { at: pin.at, out: pin.out };
}

/** Null where there is no way. */
export function findCourse(sheet: Sheet, wire: Wire, obstacles: Obstacles, nets: WireNets): Point[] | null {
  const from = routeEnd(sheet, wire.from);
  const to = routeEnd(sheet, wire.to);
  if (!from || !to) return [];
  return route(obstacles, from, to, nets.ofWire(wire.id) ?? -1);
}

/** Wires on any of the parts, and wires that branch from such a wire, hosts first. */
export function wiresOnParts(sheet: Sheet, parts: ReadonlySet<string>): string[] {
  const found = new Set<string>();
  for (const w of sheet.wires.values())
    if ([w.from, w.to].some((end) => isPinEnd(end) && parts.has(end.part))) found.add(w.id);
  return withBranches(sheet, found);
}

/** The wires and all that branch from them, by way of others too. */
export function withBranches(sheet: Sheet, wires: ReadonlySet<string>): string[] {
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
 * The edits that route wires again, each branch put back onto its host's new course at the nearest point. A
 * wire that finds no course is routed first, and those that shut it in after it.
 */
export function reroute(
  sheet: Sheet,
  wires: readonly string[],
  retries = MOST_RETRIES,
  overLabel?: number,
): Edit[] {
  if (wires.length === 0) return [];
  const edits: Edit[] = [];
  const stuck: string[] = [];
  const nets = wireNets(sheet);
  const ends = wires.flatMap((id) => courseOf(sheet, sheet.wires.get(id)!));
  const obstacles = new Obstacles(sheet, nets, new Set(wires), ends);
  if (overLabel !== undefined) obstacles.overLabel = overLabel;
  const laid = new Map(sheet.wires);
  const now = (): Sheet => ({ ...sheet, wires: laid });
  const todo = new Set(wires);
  const onHost = (end: End): End => {
    const host = isPinEnd(end) ? undefined : laid.get(end.wire);
    if (isPinEnd(end) || !host) return end;
    const at = nearestOnCourse(courseOf(now(), host), end.at);
    return samePoint(at, end.at) ? end : { wire: end.wire, at };
  };
  const waits = (w: Wire) => [w.from, w.to].some((end) => !isPinEnd(end) && todo.has(end.wire));
  while (todo.size > 0) {
    const id = [...todo].find((w) => !waits(laid.get(w)!)) ?? [...todo][0]!;
    todo.delete(id);
    const old = laid.get(id)!;
    const wire: Wire = { ...old, from: onHost(old.from), to: onHost(old.to) };
    const kept = old.drawn ? stretched(now(), wire, obstacles, nets) : null;
    const found = kept ?? findCourse(now(), wire, obstacles, nets);
    if (!found) stuck.push(id);
    const course = found ?? [];
    laid.set(id, { ...wire, course });
    obstacles.lay(courseOf(now(), laid.get(id)!), nets.ofWire(id) ?? -1);
    const change = {
      course,
      ...(old.drawn && !kept ? { drawn: undefined } : {}),
      ...(wire.from !== old.from ? { from: wire.from } : {}),
      ...(wire.to !== old.to ? { to: wire.to } : {}),
    };
    edits.push({ type: 'changeWire', sheet: sheet.id, id, change });
  }
  if (stuck.length === 0 || retries === 0) return edits;
  const again = new Set([...stuck, ...wires, ...wiresNear(sheet, stuck)]);
  return reroute(sheet, [...again], retries - 1);
}

/**
 * A course drawn by hand, with its outer corners aligned to ends that have moved; null if it would then run
 * over something or leave a pin the wrong way.
 */
function stretched(sheet: Sheet, wire: Wire, obstacles: Obstacles, nets: WireNets): Point[] | null {
  const from = routeEnd(sheet, wire.from);
  const to = routeEnd(sheet, wire.to);
  const corners = [...wire.course];
  if (!from || !to || corners.length === 0) return null;
  const pieces = corners.length + 1;
  const flatFirst = from.out
    ? from.out.x !== 0
    : to.out
      ? (to.out.x !== 0) === (pieces % 2 === 1)
      : corners.length > 1 && corners[0]!.x === corners[1]!.x;
  const flatLast = flatFirst === (pieces % 2 === 1);
  const first = corners[0]!;
  corners[0] = flatFirst ? { x: first.x, y: from.at.y } : { x: from.at.x, y: first.y };
  const last = corners.at(-1)!;
  corners[corners.length - 1] = flatLast ? { x: last.x, y: to.at.y } : { x: to.at.x, y: last.y };
  const course = simplified([from.at, ...corners, to.at]);
  return isFree(obstacles, course, from, to, nets.ofWire(wire.id) ?? -1) ? course.slice(1, -1) : null;
}

/** Wires that pass close to an end of one of the given ones, with their branches. */
function wiresNear(sheet: Sheet, stuck: readonly string[]): string[] {
  const ends = stuck.flatMap((id) => {
    const { from, to } = sheet.wires.get(id)!;
    return [endPoint(sheet, from), endPoint(sheet, to)].filter((p) => p !== null);
  });
  const near = new Set<string>();
  for (const w of sheet.wires.values())
    eachSegment(courseOf(sheet, w), (a, b) => {
      for (const end of ends) {
        const p = nearestOnSegment(a, b, end);
        if (Math.abs(p.x - end.x) + Math.abs(p.y - end.y) <= NEAR) near.add(w.id);
      }
    });
  return withBranches(sheet, near);
}

/** Follows an edit that moved or changed parts by the new courses of their wires. */
export function withRerouted(
  lesson: Lesson,
  sheetId: string,
  edits: readonly Edit[],
  parts: ReadonlySet<string>,
): Edit {
  const applied = apply(lesson, group(edits));
  const sheet = applied.ok ? sheetOf(applied.value, sheetId) : undefined;
  if (!sheet) return group(edits);
  const inner = wiresOnParts(sheet, parts);
  return group([...edits, ...reroute(sheet, inner)]);
}
