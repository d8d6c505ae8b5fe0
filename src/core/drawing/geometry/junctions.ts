import { nearestOnSegment, type Point, samePoint } from '../../circuit/geometry';
import { isPinEnd, type Sheet, type Wire } from '../../circuit/sheet';
import { courseOf, pinOf } from './placement';

/** A dot: a point where three or more ways of one net meet. */
export interface Junction {
  readonly at: Point;
  /** A wire of the net, whose value the dot shows. */
  readonly wire: string;
}

const WAYS = { right: 1, down: 2, left: 4, up: 8 };

function way(from: Point, to: Point): number {
  if (to.x !== from.x) return to.x > from.x ? WAYS.right : WAYS.left;
  return to.y > from.y ? WAYS.down : WAYS.up;
}

/** The dots of one net's wires: exactly where three or more ways meet, and nowhere else. */
export function junctionsOfNet(sheet: Pick<Sheet, 'parts' | 'wires'>, wires: readonly Wire[]): Junction[] {
  const courses = wires.map((wire) => courseOf(sheet, wire));
  const leads = new Map<string, number>();
  for (const wire of wires)
    for (const end of [wire.from, wire.to]) {
      const pin = isPinEnd(end) ? pinOf(sheet, end.part, end.port) : null;
      if (pin)
        leads.set(
          `${pin.at.x},${pin.at.y}`,
          way(pin.at, { x: pin.at.x - pin.out.x, y: pin.at.y - pin.out.y }),
        );
    }
  const junctions: Junction[] = [];
  const seen = new Set<string>();
  const pieces = new Pieces(courses);
  for (const [i, points] of courses.entries())
    for (const at of points) {
      const key = `${at.x},${at.y}`;
      if (seen.has(key)) continue;
      seen.add(key);
      if (bits((leads.get(key) ?? 0) | pieces.waysAt(at)) > 2) junctions.push({ at, wire: wires[i]!.id });
    }
  return junctions;
}

/** Stretches of one line of the grid, apart from each other and in order. */
type Stretches = (readonly [from: number, to: number])[];

/** The pieces of a net's wires by the lines of the grid on which they lie; those that overlap or touch as one. */
class Pieces {
  private readonly rows = new Map<number, Stretches>();
  private readonly columns = new Map<number, Stretches>();
  /** Wires that are not laid yet may run aslant. */
  private readonly aslant: (readonly [Point, Point])[] = [];

  constructor(courses: readonly (readonly Point[])[]) {
    for (const points of courses)
      for (let i = 1; i < points.length; i++) {
        const [a, b] = [points[i - 1]!, points[i]!];
        if (a.y === b.y) add(this.rows, a.y, a.x, b.x);
        else if (a.x === b.x) add(this.columns, a.x, a.y, b.y);
        else this.aslant.push([a, b]);
      }
    for (const line of [...this.rows.values(), ...this.columns.values()]) unite(line);
  }

  /** The ways in which pieces leave a point. */
  waysAt(at: Point): number {
    const { x, y } = at;
    let ways = 0;
    const row = stretchAt(this.rows.get(y), x);
    if (row && row[0] < x) ways |= way(at, { x: row[0], y });
    if (row && row[1] > x) ways |= way(at, { x: row[1], y });
    const column = stretchAt(this.columns.get(x), y);
    if (column && column[0] < y) ways |= way(at, { x, y: column[0] });
    if (column && column[1] > y) ways |= way(at, { x, y: column[1] });
    for (const [a, b] of this.aslant) {
      if (!samePoint(nearestOnSegment(a, b, at), at)) continue;
      if (!samePoint(a, at)) ways |= way(at, a);
      if (!samePoint(b, at)) ways |= way(at, b);
    }
    return ways;
  }
}

function add(lines: Map<number, Stretches>, line: number, a: number, b: number): void {
  const stretch = [Math.min(a, b), Math.max(a, b)] as const;
  const there = lines.get(line);
  if (there) there.push(stretch);
  else lines.set(line, [stretch]);
}

function unite(line: Stretches): void {
  line.sort((a, b) => a[0] - b[0]);
  let last = 0;
  for (const [from, to] of line.slice(1)) {
    const [begun, ended] = line[last]!;
    if (from <= ended) line[last] = [begun, Math.max(ended, to)];
    else line[++last] = [from, to];
  }
  line.length = last + 1;
}

/** The stretch that holds a place, its ends among it. */
function stretchAt(line: Stretches | undefined, at: number): readonly [number, number] | null {
  if (!line) return null;
  let [low, high] = [0, line.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (line[middle]![0] <= at) low = middle + 1;
    else high = middle;
  }
  const stretch = line[low - 1];
  return stretch && stretch[1] >= at ? stretch : null;
}

function bits(mask: number): number {
  return (mask & 1) + ((mask >> 1) & 1) + ((mask >> 2) & 1) + ((mask >> 3) & 1);
}
