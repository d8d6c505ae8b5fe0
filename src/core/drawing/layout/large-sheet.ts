import type { Box, Point } from '../../circuit/geometry';
import { isPinEnd, type Part, type Sheet, type Wire } from '../../circuit/sheet';
import { roleOf } from '../../parts/catalogue';
import { footprintOf, type LocalPin, localPinOf } from '../geometry/placement';
import { adjacency, assignColumns, type Flow } from './columns';

/** Above this many wires a drawing is unreadable whatever the layout, and a good one would take long. */
const MOST_WIRES = 3000;

export const isLaidOutPlainly = (sheet: Sheet): boolean => sheet.wires.size > MOST_WIRES;

/** How often the columns are ordered, forth and back in turn. */
const SWEEPS = 4;
/** Free grid steps between two parts of a column, and on both sides of the wires between two columns. */
const GAP = 2;
const MARGIN = 2;
/** So many grid steps are left for the wires between two columns, at most. */
const MOST_BETWEEN = 24;

/** The wires between two pins, in the order of the sheet; for each wire the part numbers and the pins of its ends. */
interface Ends {
  readonly wires: readonly Wire[];
  readonly from: Int32Array;
  readonly fromPin: readonly LocalPin[];
  readonly to: Int32Array;
  readonly toPin: readonly LocalPin[];
}

/**
 * Lays out a large sheet: the same columns as for a small one, parts stacked in an order with few crossings, and two corners for
 * each wire. Time and memory grow linearly with parts and wires, apart from sorting; parts are handled by number, in typed arrays.
 */
export function layOutLarge(sheet: Sheet): Sheet {
  const parts = [...sheet.parts.values()].map((part) =>
    part.turn === 0 ? part : { ...part, turn: 0 as const },
  );
  const ends = endsOf(sheet, parts);
  const columnOf = assignColumns(parts, flowOf(parts.length, ends));
  const columns: number[][] = [];
  for (const [part, column] of columnOf.entries()) {
    columns[column] ??= [];
    columns[column].push(part);
  }
  const filled = columns.filter((column) => column !== undefined);
  const boxes = parts.map((part) => footprintOf({ ...part, at: { x: 0, y: 0 } }));
  const above = Int32Array.from(boxes, ({ y0 }) => Math.ceil(-y0));
  const below = Int32Array.from(boxes, ({ y1 }) => Math.ceil(y1));
  orderColumns(filled, parts, linksOf(ends, columnOf, above, below));
  const places = placesOf(filled, boxes, above, below);
  const placed = new Map<string, Part>();
  for (const [i, part] of parts.entries()) placed.set(part.id, { ...part, at: places[i]! });
  return { ...sheet, parts: placed, wires: withCorners(sheet, ends, places) };
}

function endsOf(sheet: Sheet, parts: readonly Part[]): Ends {
  const numbers = new Map<string, number>();
  for (let i = 0; i < parts.length; i++) numbers.set(parts[i]!.id, i);
  const wires: Wire[] = [];
  const from = new Int32Array(sheet.wires.size);
  const to = new Int32Array(sheet.wires.size);
  const [fromPin, toPin]: [LocalPin[], LocalPin[]] = [[], []];
  for (const wire of sheet.wires.values()) {
    if (!isPinEnd(wire.from) || !isPinEnd(wire.to)) continue;
    const [begin, end] = [numbers.get(wire.from.part) ?? -1, numbers.get(wire.to.part) ?? -1];
    const beginPin = begin === -1 ? null : localPinOf(parts[begin]!, wire.from.port);
    const endPin = end === -1 ? null : localPinOf(parts[end]!, wire.to.port);
    if (!beginPin || !endPin) continue;
    from[wires.length] = begin;
    to[wires.length] = end;
    fromPin.push(beginPin);
    toPin.push(endPin);
    wires.push(wire);
  }
  return { wires, from: from.subarray(0, wires.length), fromPin, to: to.subarray(0, wires.length), toPin };
}

/** Which parts drive which: a signal flows from the end of its wire that is an output. */
function flowOf(parts: number, { from, fromPin, to }: Ends): Flow {
  const drivers = from.slice();
  const readers = to.slice();
  for (let i = 0; i < from.length; i++) {
    if (fromPin[i]!.port.direction === 'out') continue;
    drivers[i] = to[i]!;
    readers[i] = from[i]!;
  }
  return { before: adjacency(parts, readers, drivers), after: adjacency(parts, drivers, readers) };
}

/** The neighbours of each part on one side, and where in a neighbour the wire ends: 0 (its top) to 1/2 (its bottom). */
interface Links {
  readonly start: Int32Array;
  readonly other: Int32Array;
  readonly within: Float64Array;
}

/** The links from each part to earlier columns, and those to later ones. */
function linksOf(
  { from, fromPin, to, toPin }: Ends,
  columnOf: Int32Array,
  above: Int32Array,
  below: Int32Array,
): { before: Links; after: Links } {
  const [left, right] = [new Int32Array(from.length), new Int32Array(from.length)];
  const [leftAt, rightAt] = [new Float64Array(from.length), new Float64Array(from.length)];
  const within = (part: number, y: number) => (y + above[part]! + 1) / (above[part]! + below[part]! + 2) / 2;
  let count = 0;
  for (let i = 0; i < from.length; i++) {
    const [begin, end] = [from[i]!, to[i]!];
    if (columnOf[begin] === columnOf[end]) continue;
    const isForth = columnOf[begin]! < columnOf[end]!;
    const [beginAt, endAt] = [within(begin, fromPin[i]!.at.y), within(end, toPin[i]!.at.y)];
    left[count] = isForth ? begin : end;
    right[count] = isForth ? end : begin;
    leftAt[count] = isForth ? beginAt : endAt;
    rightAt[count++] = isForth ? endAt : beginAt;
  }
  const numbers = new Int32Array(count).map((_, i) => i);
  const linksTo = (owner: Int32Array, other: Int32Array, otherAt: Float64Array): Links => {
    const { start, list } = adjacency(columnOf.length, owner.subarray(0, count), numbers);
    const at = new Float64Array(count);
    for (let i = 0; i < count; i++) {
      at[i] = otherAt[list[i]!]!;
      list[i] = other[list[i]!]!;
    }
    return { start, other: list, within: at };
  };
  return { before: linksTo(right, left, leftAt), after: linksTo(left, right, rightAt) };
}

/**
 * Orders the parts of each column by the mean of their neighbours (Sugiyama, Tagawa and Toda, 1981, "Methods for visual understanding
 * of hierarchical system structures"); inputs and outputs keep their declared order.
 */
function orderColumns(
  columns: number[][],
  parts: readonly Part[],
  { before, after }: { before: Links; after: Links },
): void {
  const keeps = parts.map((part) => {
    const role = roleOf(part)?.role;
    return role === 'input' || role === 'output';
  });
  const at = new Float64Array(parts.length);
  const means = new Float64Array(parts.length);
  for (const column of columns) {
    const ranked = column.filter((part) => keeps[part]).sort((a, b) => parts[a]!.rank - parts[b]!.rank);
    column.splice(0, column.length, ...ranked, ...column.filter((part) => !keeps[part]));
    for (let i = 0; i < column.length; i++) at[column[i]!] = i;
  }
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    const isForth = sweep % 2 === 0;
    const { start, other, within } = isForth ? before : after;
    for (const column of isForth ? columns : [...columns].reverse()) {
      for (const part of column) {
        const [first, end] = [start[part]!, start[part + 1]!];
        let sum = first === end ? at[part]! : 0;
        for (let i = first; i < end; i++) sum += at[other[i]!]! + within[i]!;
        means[part] = sum / Math.max(1, end - first);
      }
      const declared = column.filter((part) => keeps[part]);
      column.sort((a, b) => means[a]! - means[b]! || at[a]! - at[b]!);
      // Inputs and outputs fill the places that they got in their declared order.
      let next = 0;
      for (let i = 0; i < column.length; i++) {
        if (keeps[column[i]!]) column[i] = declared[next++]!;
        at[column[i]!] = i;
      }
    }
  }
}

/** Stacks each column around a common middle, with room for wires between the columns. */
function placesOf(
  columns: readonly (readonly number[])[],
  boxes: readonly Box[],
  above: Int32Array,
  below: Int32Array,
): Point[] {
  const heights = new Int32Array(boxes.length);
  let top = Number.POSITIVE_INFINITY;
  for (const column of columns) {
    let y = 0;
    for (let i = 0; i < column.length; i++) {
      if (i > 0) y += below[column[i - 1]!]! + above[column[i]!]! + GAP;
      heights[column[i]!] = y;
    }
    const middle = Math.round(y / 2);
    for (const part of column) heights[part]! -= middle;
    top = Math.min(top, heights[column[0]!]! - above[column[0]!]!);
  }
  const places = new Array<Point>(boxes.length);
  let x = 0;
  for (const column of columns) {
    let [left, right] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const part of column) {
      left = Math.max(left, -boxes[part]!.x0);
      right = Math.max(right, boxes[part]!.x1);
    }
    for (const part of column) places[part] = { x: x + Math.ceil(left), y: heights[part]! - top };
    const between = Math.ceil(Math.min(MOST_BETWEEN, column.length / 2));
    x += Math.ceil(left) + Math.ceil(right) + between + 2 * MARGIN;
  }
  return places;
}

/** Gives each wire two corners right of its start, spread so that neighbouring wires do not coincide. */
function withCorners(sheet: Sheet, ends: Ends, places: readonly Point[]): Map<string, Wire> {
  const { from, fromPin, to, toPin } = ends;
  const wires = new Map<string, Wire>();
  let i = 0;
  for (const wire of sheet.wires.values()) {
    if (wire !== ends.wires[i]) {
      wires.set(wire.id, wire);
      continue;
    }
    const [begin, end] = [places[from[i]!]!, places[to[i]!]!];
    const beginAt = begin.x + fromPin[i]!.at.x;
    const x = Math.min(beginAt + 1 + (i % (2 * MARGIN)), Math.max(beginAt, end.x + toPin[i]!.at.x));
    const course = [
      { x, y: begin.y + fromPin[i]!.at.y },
      { x, y: end.y + toPin[i]!.at.y },
    ];
    wires.set(wire.id, { ...wire, course });
    i++;
  }
  return wires;
}
