import { isLarge, type LayeredGraph, type LayoutNode, type Link, neighboursOf } from './layout-nodes';

/** Free grid steps between two parts of a column, and beside a signal that passes. */
const GAP = 2;
const BESIDE_SIGNAL = 1;

/** How often heights are found from one side, and then from both. */
const ROUNDS = 4;
const ROUNDS_BOTH = 8;
const LARGE_ROUNDS = 1;
const LARGE_ROUNDS_BOTH = 2;
/** The cost of a bend, in grid steps of a detour. */
const BEND = 4;

/** A height that a node would have if one of its links ran straight, and how much that counts. */
interface PreferredHeight {
  readonly y: number;
  readonly weight: number;
}

/**
 * Gives each node a height so that signals run as straight as possible: each column in turn takes the heights
 * that its neighbours ask for, keeping its order and the gaps between its nodes (isotonic regression by
 * pooling adjacent blocks, Ayer and others, 1955, here by medians, so that a signal gets exactly the height
 * of another).
 * @param wider extra grid steps between parts.
 */
export function assignCoordinates(graph: LayeredGraph, wider: number): void {
  const { columns, links } = graph;
  for (const column of columns) stack(column, wider);
  const { before, after } = neighboursOf(graph);
  const heights = heightsOfRows(graph, wider);
  const inRow = (find: (node: LayoutNode) => PreferredHeight[]) => (node: LayoutNode) =>
    node.row === undefined ? find(node) : [{ y: heights[node.row]!, weight: FIXED }];
  const byBefore = inRow((node) => before.get(node)!.map(asBefore));
  const byAfter = inRow((node) => after.get(node)!.map(asAfter));
  const byBoth = inRow((node) => [...before.get(node)!.map(asBefore), ...after.get(node)!.map(asAfter)]);
  let best: number[][] = [];
  let least = Number.POSITIVE_INFINITY;
  const keep = () => {
    const cost = detours(links);
    if (cost >= least) return;
    least = cost;
    best = columns.map((column) => column.map((node) => node.y));
  };
  const back = [...columns].reverse();
  const [rounds, roundsBoth] = isLarge(graph) ? [LARGE_ROUNDS, LARGE_ROUNDS_BOTH] : [ROUNDS, ROUNDS_BOTH];
  for (let round = 0; round < rounds; round++) {
    for (const column of columns) settle(column, byBefore, wider);
    keep();
    for (const column of back) settle(column, byAfter, wider);
    keep();
  }
  for (let round = 0; round < roundsBoth; round++) {
    for (const column of round % 2 ? columns : back) settle(column, byBoth, wider);
    keep();
  }
  for (const [c, column] of columns.entries())
    for (const [i, node] of column.entries()) node.y = best[c]![i]!;
}

/** So much a part counts in its row that nothing moves it out of it. */
const FIXED = 1e6;

/** The height of each row: below the one before it as far as what stands between them in any column asks for. */
function heightsOfRows({ columns, rows }: LayeredGraph, wider: number): number[] {
  const heights: number[] = [];
  for (const row of rows.keys()) {
    let height = row === 0 ? 0 : heights[row - 1]! + LEAST_BETWEEN_ROWS;
    for (const column of columns) {
      const own = column.findIndex((node) => node.row === row);
      for (let i = own - 1, below = 0; own !== -1 && i >= 0; i--) {
        below += distance(column[i]!, column[i + 1]!, wider);
        const other = column[i]!.row;
        if (other !== undefined && other < row) height = Math.max(height, heights[other]! + below);
      }
    }
    heights.push(height);
  }
  return heights;
}

/** Grid steps between two rows that share no column. */
const LEAST_BETWEEN_ROWS = 14;

const asBefore = ({ from, fromAt, toAt, weight }: Link): PreferredHeight => ({
  y: from.y + fromAt - toAt,
  weight,
});
const asAfter = ({ to, toAt, fromAt, weight }: Link): PreferredHeight => ({
  y: to.y + toAt - fromAt,
  weight,
});

/** The least distance between the heights of two nodes that follow each other. */
function distance(a: LayoutNode, b: LayoutNode, wider: number): number {
  return a.below + b.above + (a.part && b.part ? GAP + wider : BESIDE_SIGNAL);
}

/** One node below the other, the whole column around height 0. */
function stack(column: readonly LayoutNode[], wider: number): void {
  let y = 0;
  for (const [i, node] of column.entries()) {
    if (i > 0) y += distance(column[i - 1]!, node, wider);
    node.y = y;
  }
  const middle = Math.round(y / 2);
  for (const node of column) node.y -= middle;
}

/** Nodes that stand as close as they may, one behind the other. */
interface Block {
  from: number;
  to: number;
  y: number;
  /** In the order of their heights. */
  preferred: readonly PreferredHeight[];
}

function settle(
  column: readonly LayoutNode[],
  preferencesOf: (node: LayoutNode) => PreferredHeight[],
  wider: number,
): void {
  const shift: number[] = [];
  for (const [i, node] of column.entries())
    shift.push(i === 0 ? 0 : shift[i - 1]! + distance(column[i - 1]!, node, wider));
  const blocks: Block[] = [];
  for (const [i, node] of column.entries()) {
    const asked = preferencesOf(node);
    // A node without a preferred height keeps its place unless a neighbour pushes it.
    const preferred = asked.length > 0 ? asked : [{ y: node.y, weight: 0.01 }];
    const moved = preferred.map(({ y, weight }) => ({ y: y - shift[i]!, weight })).sort((p, q) => p.y - q.y);
    blocks.push({ from: i, to: i, y: median(moved), preferred: moved });
    for (let last = blocks.at(-1)!, prior = blocks.at(-2); prior && prior.y > last.y; prior = blocks.at(-2)) {
      prior.preferred = merged(prior.preferred, last.preferred);
      prior.to = last.to;
      prior.y = median(prior.preferred);
      blocks.pop();
      last = prior;
    }
  }
  for (const { from, to, y } of blocks) for (let i = from; i <= to; i++) column[i]!.y = y + shift[i]!;
}

/** Two lists in the order of heights as one. */
function merged(a: readonly PreferredHeight[], b: readonly PreferredHeight[]): PreferredHeight[] {
  const all: PreferredHeight[] = [];
  for (let i = 0, k = 0; i < a.length || k < b.length; )
    if (k === b.length || (i < a.length && a[i]!.y <= b[k]!.y)) all.push(a[i++]!);
    else all.push(b[k++]!);
  return all;
}

/** The lower weighted median. @param preferred in the order of heights. */
function median(preferred: readonly PreferredHeight[]): number {
  let left = 0;
  for (const { weight } of preferred) left += weight;
  left /= 2;
  for (const { y, weight } of preferred) {
    left -= weight;
    if (left <= 1e-9) return y;
  }
  return preferred.at(-1)!.y;
}

function detours(links: LayeredGraph['links']): number {
  let cost = 0;
  for (const gap of links)
    for (const { from, fromAt, to, toAt, weight } of gap) {
      const off = Math.abs(from.y + fromAt - to.y - toAt);
      if (off > 0) cost += weight * (off + BEND);
    }
  return cost;
}
