import { eachSegment, type Point } from '../../circuit/geometry';
import type { Sheet } from '../../circuit/sheet';
import { courseOf } from './placement';
import { wireNets } from './wire-nets';

/** Pieces of wires that are looked at; on a sheet that asks for more, the crossings found so far are drawn. */
const MOST_STEPS = 4_000_000;

const cached = new WeakMap<Sheet, ReadonlyMap<string, readonly Point[]>>();

/**
 * Crossings of wires that are not joined: for each horizontal wire, the points where a vertical wire of another net passes
 * through it. Found once for each version of a sheet.
 */
export function crossingsOf(sheet: Sheet): ReadonlyMap<string, readonly Point[]> {
  let all = cached.get(sheet);
  if (!all) {
    all = findCrossings(sheet);
    cached.set(sheet, all);
  }
  return all;
}

function findCrossings(sheet: Sheet): Map<string, Point[]> {
  const nets = wireNets(sheet);
  const upright = new Map<number, { y0: number; y1: number; net: number }[]>();
  const flat: { wire: string; net: number; y: number; x0: number; x1: number }[] = [];
  for (const wire of sheet.wires.values()) {
    const net = nets.ofWire(wire.id)!;
    eachSegment(courseOf(sheet, wire), (a, b) => {
      if (a.y === b.y)
        flat.push({ wire: wire.id, net, y: a.y, x0: Math.min(a.x, b.x), x1: Math.max(a.x, b.x) });
      else {
        const column = upright.get(a.x);
        const piece = { y0: Math.min(a.y, b.y), y1: Math.max(a.y, b.y), net };
        if (column) column.push(piece);
        else upright.set(a.x, [piece]);
      }
    });
  }
  const columns = [...upright].sort(([a], [b]) => a - b);
  const found = new Map<string, Point[]>();
  let steps = 0;
  for (const { wire, net, y, x0, x1 } of flat) {
    const points: Point[] = [];
    for (let c = firstAfter(columns, x0); c < columns.length && columns[c]![0] < x1; c++) {
      const [x, pieces] = columns[c]!;
      const at = pieces.findIndex((p) => p.net !== net && p.y0 < y && y < p.y1);
      steps += at === -1 ? pieces.length : at + 1;
      if (at !== -1) points.push({ x, y });
      if (steps > MOST_STEPS) return found;
    }
    if (points.length) found.set(wire, [...(found.get(wire) ?? []), ...points]);
  }
  return found;
}

/** The place of the first column to the right of an x. */
function firstAfter(columns: readonly (readonly [x: number, unknown])[], x: number): number {
  let [low, high] = [0, columns.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (columns[middle]![0] <= x) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * For each net of some wires its longest piece that runs from left to right, where its value can be written.
 * @param wires all those of the nets that are asked for.
 */
export function longestSegments(
  sheet: Sheet,
  wires: readonly string[],
): { readonly wire: string; readonly a: Point; readonly b: Point }[] {
  const nets = wireNets(sheet);
  const best = new Map<number, { wire: string; a: Point; b: Point }>();
  for (const id of wires) {
    const wire = sheet.wires.get(id);
    if (!wire) continue;
    const net = nets.ofWire(id)!;
    eachSegment(courseOf(sheet, wire), (a, b) => {
      const old = best.get(net);
      if (a.y === b.y && (!old || Math.abs(b.x - a.x) > Math.abs(old.b.x - old.a.x)))
        best.set(net, { wire: id, a, b });
    });
  }
  return [...best.values()];
}

/** Half the length in grid steps of the stretch in which a wire leaves way for one that crosses it. */
export const HOP = 0.5;

/** A piece of a course to draw: a line to a point, or a bridge over a crossing. */
export type Step = { readonly to: Point; readonly over?: boolean };

/** A course as steps, its crossings as hops of their own. */
export function stepsOf(points: readonly Point[], crossings: readonly Point[]): Step[] {
  const steps: Step[] = points.length ? [{ to: points[0]! }] : [];
  eachSegment(points, (a, b) => {
    if (a.y === b.y && a.x !== b.x) {
      const way = Math.sign(b.x - a.x);
      const on = crossings
        .filter((p) => p.y === a.y && (p.x - a.x) * way > 0 && (b.x - p.x) * way > 0)
        .sort((p, q) => (p.x - q.x) * way);
      for (const p of on) {
        steps.push({ to: { x: p.x - way * HOP, y: p.y } });
        steps.push({ to: { x: p.x + way * HOP, y: p.y }, over: true });
      }
    }
    steps.push({ to: b });
  });
  return steps;
}
