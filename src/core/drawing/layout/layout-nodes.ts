import { isPinEnd, type Part, type Sheet } from '../../circuit/sheet';
import { roleOf } from '../../parts/catalogue';
import { footprintOf, localPinOf } from '../geometry/placement';
import type { PartRow } from './rows';

/** A place in a column: for a part, or for a signal that passes the column on its way. Lengths are in grid steps. */
export interface LayoutNode {
  readonly part: Part | null;
  /** How far it reaches above and below its own height. */
  readonly above: number;
  readonly below: number;
  /** Its place in the column, from 0. */
  at: number;
  /** Its height on the sheet. */
  y: number;
  /** The row that it stands in, counted from the top. */
  readonly row?: number | undefined;
  /** For a signal the pin that drives it, as `part port`. */
  readonly signal?: string;
}

/** A stretch of a signal from one column to the next; `fromAt` and `toAt` are heights of its ends within the nodes. */
export interface Link {
  readonly from: LayoutNode;
  readonly fromAt: number;
  readonly to: LayoutNode;
  readonly toAt: number;
  /** How much it counts that it runs straight. */
  readonly weight: number;
}

/** Columns of nodes, and the links from each column to the next. */
export interface LayeredGraph {
  /**
   * For each wire whose pins face each other across the columns between them, the links from its left to its
   * right end.
   */
  readonly ways: ReadonlyMap<string, readonly Link[]>;
  readonly columns: LayoutNode[][];
  readonly links: readonly (readonly Link[])[];
  readonly rows: readonly PartRow[];
}

/** With more links than this it is not worth while to look long for a better order, or better heights. */
const MANY_LINKS = 2000;

export const isLarge = ({ links }: LayeredGraph): boolean =>
  links.reduce((sum, gap) => sum + gap.length, 0) > MANY_LINKS;

/** A signal that runs past many parts matters more than one between two neighbours. */
const PASSING = 4;
const BEGINNING = 2;
/**
 * A signal that leaves the sheet should run straight from its driver with few crossings: it counts as much.
 */
export const OUTPUT_LINK_WEIGHT = 3;

/**
 * Nodes for the parts of each column, and for the signals that pass through a column.
 */
export function layeredGraphOf(
  sheet: Sheet,
  parts: readonly (readonly Part[])[],
  rows: readonly PartRow[] = [],
): LayeredGraph {
  const rowOf = new Map(rows.flatMap((row, i) => row.parts.map((id) => [id, i] as const)));
  const columns = parts.map((column) =>
    column.map((part, at): LayoutNode => {
      const box = footprintOf({ ...part, at: { x: 0, y: 0 }, turn: 0 });
      return {
        part,
        above: Math.ceil(-box.y0),
        below: Math.ceil(box.y1),
        at,
        y: 0,
        row: rowOf.get(part.id),
      };
    }),
  );
  const links: Link[][] = columns.map(() => []);
  const nodeOf = new Map<string, { node: LayoutNode; column: number }>();
  for (const [column, nodes] of columns.entries())
    for (const node of nodes) nodeOf.set(node.part!.id, { node, column });
  const passes = new Map<string, { readonly node: LayoutNode; readonly link: Link }>();
  const ways = new Map<string, Link[]>();
  for (const wire of sheet.wires.values()) {
    if (!isPinEnd(wire.from) || !isPinEnd(wire.to)) continue;
    const ends = [wire.from, wire.to].map((end) => {
      const part = sheet.parts.get(end.part)!;
      const pin = localPinOf(part, end.port);
      const { node, column } = nodeOf.get(end.part)!;
      return pin && { key: `${end.part} ${end.port}`, node, column, y: pin.at.y, facing: pin.out.x };
    });
    const [a, b] = ends;
    if (!a || !b || a.column === b.column) continue;
    const [from, to] = a.column < b.column ? [a, b] : [b, a];
    let [node, y] = [from.node, from.y];
    const way: Link[] = [];
    for (let column = from.column + 1; column < to.column; column++) {
      const key = `${from.key} ${column}`;
      let pass = passes.get(key);
      if (!pass) {
        const at = columns[column]!.length;
        const next: LayoutNode = { part: null, above: 0, below: 0, at, y: 0, signal: from.key };
        const weight = node.part ? BEGINNING : PASSING;
        pass = { node: next, link: { from: node, fromAt: y, to: next, toAt: 0, weight } };
        passes.set(key, pass);
        columns[column]!.push(next);
        links[column - 1]!.push(pass.link);
      }
      way.push(pass.link);
      [node, y] = [pass.node, 0];
    }
    const last: Link = {
      from: node,
      fromAt: y,
      to: to.node,
      toAt: to.y,
      weight: keepsOrder(to.node) ? OUTPUT_LINK_WEIGHT : node.part ? 1 : BEGINNING,
    };
    links[to.column - 1]!.push(last);
    if (from.facing === 1 && to.facing === -1) ways.set(wire.id, [...way, last]);
  }
  return { columns, links, ways, rows };
}

/** The links that lead to each node, and those that lead on from it. */
export interface Neighbours {
  readonly before: ReadonlyMap<LayoutNode, readonly Link[]>;
  readonly after: ReadonlyMap<LayoutNode, readonly Link[]>;
}

export function neighboursOf({ columns, links }: LayeredGraph): Neighbours {
  const before = new Map<LayoutNode, Link[]>();
  const after = new Map<LayoutNode, Link[]>();
  for (const node of columns.flat()) {
    before.set(node, []);
    after.set(node, []);
  }
  for (const link of links.flat()) {
    before.get(link.to)!.push(link);
    after.get(link.from)!.push(link);
  }
  return { before, after };
}

/** Inputs and outputs keep their declared order. */
export const keepsOrder = ({ part }: LayoutNode): boolean => {
  const role = part && roleOf(part)?.role;
  return role === 'input' || role === 'output';
};
