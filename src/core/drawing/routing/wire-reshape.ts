import { apply, type Edit } from '../../circuit/edit';
import { type Point, simplified } from '../../circuit/geometry';
import { type Lesson, sheetOf } from '../../circuit/lesson';
import { type End, isPinEnd, type Sheet, type Wire } from '../../circuit/sheet';
import { courseOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { group, reroute, routeEnd, withBranches } from './reroute';
import { isFree, Obstacles } from './route';

/*
 * A wire taken in hand: one of its straight pieces is pulled aside, or one of its ends put elsewhere.
 */

/** The straight piece of a course on which a point lies, by the number of its first corner; null off the course. */
export function segmentAt(points: readonly Point[], at: Point): number | null {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const on =
      at.x >= Math.min(a.x, b.x) &&
      at.x <= Math.max(a.x, b.x) &&
      at.y >= Math.min(a.y, b.y) &&
      at.y <= Math.max(a.y, b.y);
    if (on) return i - 1;
  }
  return null;
}

/** Whether a piece of a course runs from left to right. */
export function isFlat(points: readonly Point[], piece: number): boolean {
  return points[piece]!.y === points[piece + 1]!.y;
}

/**
 * The course of a wire with one segment pulled aside, as far as possible: it stops before a body, a pin or a
 * foreign wire. The ends stay where they are.
 * @param by grid steps, to the right or downwards.
 * @returns all points from end to end, or null if it cannot move at all.
 */
export function reshapedCourse(sheet: Sheet, wireId: string, piece: number, by: number): Point[] | null {
  const wire = sheet.wires.get(wireId)!;
  const from = routeEnd(sheet, wire.from);
  const to = routeEnd(sheet, wire.to);
  const points = courseOf(sheet, wire);
  if (!from || !to || !points[piece + 1]) return null;
  const nets = wireNets(sheet);
  const again = new Set(withBranches(sheet, new Set([wireId])));
  const aside = isFlat(points, piece) ? { x: 0, y: by } : { x: by, y: 0 };
  const reach = points.map((p) => ({ x: p.x + aside.x, y: p.y + aside.y }));
  const obstacles = new Obstacles(sheet, nets, again, [...points, ...reach]);
  const net = nets.ofWire(wireId) ?? -1;
  for (let d = by; d !== 0; d -= Math.sign(by)) {
    const course = shifted(points, piece, d, from.out, to.out);
    if (isFree(obstacles, course, from, to, net)) return course;
  }
  return null;
}

function shifted(
  points: readonly Point[],
  piece: number,
  by: number,
  out: Point | undefined,
  into: Point | undefined,
): Point[] {
  const aside = isFlat(points, piece) ? { x: 0, y: by } : { x: by, y: 0 };
  const move = (p: Point) => ({ x: p.x + aside.x, y: p.y + aside.y });
  const [a, b] = [points[piece]!, points[piece + 1]!];
  const before = points.slice(0, piece);
  const after = points.slice(piece + 2);
  // A piece that begins at a pin leaves a short stub there.
  const start = piece === 0 ? stub(a, out, move) : [move(a)];
  const end = piece === points.length - 2 ? stub(b, into, move).reverse() : [move(b)];
  return simplified([...before, ...start, ...end, ...after]);
}

function stub(at: Point, out: Point | undefined, move: (p: Point) => Point): Point[] {
  const foot = out ? { x: at.x + out.x, y: at.y + out.y } : at;
  return [at, foot, move(foot)];
}

/** The edit that gives a wire a course drawn by hand; its branches follow. */
export function setCourse(lesson: Lesson, sheetId: string, wire: string, points: readonly Point[]): Edit {
  const changed: Edit = {
    type: 'changeWire',
    sheet: sheetId,
    id: wire,
    change: { course: points.slice(1, -1), drawn: true },
  };
  return withBranchesRelaid(lesson, sheetId, changed, wire);
}

/** Puts one end of a wire elsewhere; null where that would hang the wire on itself. */
export function reconnect(
  lesson: Lesson,
  sheetId: string,
  wireId: string,
  key: 'from' | 'to',
  onto: End,
): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const wire = sheet.wires.get(wireId)!;
  const other = wire[key === 'from' ? 'to' : 'from'];
  if (!isPinEnd(onto) && withBranches(sheet, new Set([wireId])).includes(onto.wire)) return null;
  if (isPinEnd(onto) && isPinEnd(other) && onto.part === other.part && onto.port === other.port) return null;
  const changed: Edit = {
    type: 'changeWire',
    sheet: sheetId,
    id: wireId,
    change: { [key]: onto, course: [], drawn: undefined },
  };
  return withBranchesRelaid(lesson, sheetId, changed, wireId, true);
}

function withBranchesRelaid(
  lesson: Lesson,
  sheetId: string,
  changed: Edit,
  wire: string,
  itself = false,
): Edit {
  const applied = apply(lesson, changed);
  if (!applied.ok) return changed;
  const sheet = sheetOf(applied.value, sheetId)!;
  const all = withBranches(sheet, new Set([wire]));
  return group([changed, ...reroute(sheet, itself ? all : all.filter((w) => w !== wire))]);
}

/** Routes wires again by the shortest course. */
export function routeAfresh(lesson: Lesson, sheetId: string, wires: ReadonlySet<string>): Edit | null {
  const sheet = sheetOf(lesson, sheetId)!;
  const chosen = [...wires].map((id) => sheet.wires.get(id)).filter((w): w is Wire => w !== undefined);
  if (chosen.length === 0) return null;
  const plain = chosen
    .filter((w) => w.drawn)
    .map(
      (w): Edit => ({
        type: 'changeWire',
        sheet: sheetId,
        id: w.id,
        change: { drawn: undefined },
      }),
    );
  const applied = apply(lesson, group(plain));
  const after = applied.ok ? sheetOf(applied.value, sheetId)! : sheet;
  return group([...plain, ...reroute(after, withBranches(after, new Set(chosen.map((w) => w.id))))]);
}
