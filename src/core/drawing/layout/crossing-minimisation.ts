import {
  isLarge,
  keepsOrder,
  type LayeredGraph,
  type LayoutNode,
  type Link,
  type Neighbours,
  neighboursOf,
  OUTPUT_LINK_WEIGHT,
} from './layout-nodes';

/** How often the columns are gone through, forth and back in turn. */
const SWEEPS = 12;
const LARGE_SWEEPS = 3;

/**
 * Orders the nodes of each column so that few links cross: by the mean of their neighbours (Sugiyama, Tagawa and Toda,
 * 1981), and by swapping neighbours as long as that helps. Inputs and outputs keep their order.
 */
export function minimiseCrossings(graph: LayeredGraph): void {
  const { columns, links } = graph;
  for (const column of columns) {
    const ranked = column.filter(keepsOrder).sort((a, b) => a.part!.rank - b.part!.rank);
    column.sort((a, b) => +keepsOrder(b) - +keepsOrder(a));
    column.splice(0, ranked.length, ...ranked);
    number(column);
  }
  const beside = neighboursOf(graph);
  const sortAll = (forth: boolean) => {
    for (const column of forth ? columns : [...columns].reverse())
      sortByMean(column, forth ? beside.before : beside.after, forth);
  };
  const worth = worthOf(beside);
  let best = columns.map((column) => [...column]);
  let least = crossings(links, worth);
  const sweeps = isLarge(graph) ? LARGE_SWEEPS : SWEEPS;
  for (let sweep = 0; sweep < sweeps && least > 0; sweep++) {
    sortAll(sweep % 2 === 0);
    for (const column of columns) swapNeighbours(column, beside, worth);
    const now = crossings(links, worth);
    if (now >= least) continue;
    least = now;
    best = columns.map((column) => [...column]);
  }
  for (const [i, column] of best.entries()) {
    columns[i]!.splice(0, column.length, ...column);
    number(columns[i]!);
  }
}

/** Puts the rows below each other in every column, and the signal that clocks a row right below its parts. */
export function alongRows({ columns, rows }: LayeredGraph): void {
  for (const column of columns) {
    const places = column.flatMap((node, i) => (node.row === undefined ? [] : [i]));
    const standing = places.map((i) => column[i]!).sort((a, b) => a.row! - b.row!);
    for (const [i, place] of places.entries()) column[place] = standing[i]!;
    for (const node of standing) {
      const { clock } = rows[node.row!]!;
      const line = column.findIndex((other) => clock !== null && other.signal === clock);
      if (line === -1) continue;
      const [signal] = column.splice(line, 1);
      column.splice(column.indexOf(node) + 1, 0, signal!);
    }
    number(column);
  }
}

function number(column: readonly LayoutNode[]): void {
  for (const [at, node] of column.entries()) node.at = at;
}

/** How much each link matters where others cross it. */
type Worth = ReadonlyMap<Link, number>;

function worthOf({ after }: Neighbours): Worth {
  const worth = new Map<Link, number>();
  // The branches of one signal share one vertical line: a crossing signal crosses it once.
  for (const list of after.values()) {
    const branches = new Map<number, number>();
    for (const { fromAt } of list) branches.set(fromAt, (branches.get(fromAt) ?? 0) + 1);
    for (const link of list)
      worth.set(link, (keepsOrder(link.to) ? OUTPUT_LINK_WEIGHT : 1) / branches.get(link.fromAt)!);
  }
  return worth;
}

/** Where a link's end stands in its column: by the node, and within it by the pin. */
const endAt = (node: LayoutNode, at: number) =>
  node.at + (at + node.above + 1) / (node.above + node.below + 2) / 2;
const fromOf = (link: Link) => endAt(link.from, link.fromAt);
const toOf = (link: Link) => endAt(link.to, link.toAt);

function sortByMean(
  column: LayoutNode[],
  near: ReadonlyMap<LayoutNode, readonly Link[]>,
  forth: boolean,
): void {
  const mean = (node: LayoutNode) => {
    const links = near.get(node)!;
    if (links.length === 0) return node.at;
    return links.reduce((sum, link) => sum + (forth ? fromOf(link) : toOf(link)), 0) / links.length;
  };
  const means = new Map(column.map((node) => [node, mean(node)]));
  const ordered = column.filter(keepsOrder);
  column.sort((a, b) => means.get(a)! - means.get(b)! || a.at - b.at);
  // Those with an order of their own fill in that order the places that they have got.
  let next = 0;
  for (const [i, node] of column.entries()) if (keepsOrder(node)) column[i] = ordered[next++]!;
  number(column);
}

/** The ends of a node's links in the next column, in order, and how much each counts. */
interface Ends {
  readonly at: Float64Array;
  readonly worth: Float64Array;
}

function endsOf(links: readonly Link[], endOf: (link: Link) => number, worth: Worth): Ends {
  const ends = links.map((link) => [endOf(link), worth.get(link)!] as const).sort((a, b) => a[0] - b[0]);
  return { at: Float64Array.from(ends, ([at]) => at), worth: Float64Array.from(ends, (end) => end[1]) };
}

function swapNeighbours(column: LayoutNode[], { before, after }: Neighbours, worth: Worth): void {
  // The other columns stand still meanwhile.
  const ends = new Map(
    column.map((node) => [
      node,
      [endsOf(before.get(node)!, fromOf, worth), endsOf(after.get(node)!, toOf, worth)] as const,
    ]),
  );
  /** For a node the one that is known to stand well below it. */
  const settled = new Map<LayoutNode, LayoutNode>();
  for (let isBetter = true, round = 0; isBetter && round < column.length; round++) {
    isBetter = false;
    for (let i = 0; i + 1 < column.length; i++) {
      const [a, b] = [column[i]!, column[i + 1]!];
      if (settled.get(a) === b) continue;
      settled.set(a, b);
      if (keepsOrder(a) && keepsOrder(b)) continue;
      const [left, right] = ends.get(a)!;
      const [otherLeft, otherRight] = ends.get(b)!;
      if (saving(left, otherLeft) + saving(right, otherRight) < 1e-9) continue;
      column[i] = b;
      column[i + 1] = a;
      b.at = i;
      a.at = i + 1;
      isBetter = true;
    }
  }
}

/** How many crossings fewer the links of two neighbours make on one side where the two are swapped. */
function saving(upper: Ends, lower: Ends): number {
  let saved = 0;
  // Those of the lower one that end above, and at or above, each end of the upper one: of them by their sums.
  let [above, upTo, sumAbove, sumUpTo] = [0, 0, 0, 0];
  const sum = lower.worth.reduce((total, one) => total + one, 0);
  for (let i = 0; i < upper.at.length; i++) {
    const at = upper.at[i]!;
    while (above < lower.at.length && lower.at[above]! < at) sumAbove += lower.worth[above++]!;
    while (upTo < lower.at.length && lower.at[upTo]! <= at) sumUpTo += lower.worth[upTo++]!;
    saved += upper.worth[i]! * (sumAbove - (sum - sumUpTo));
  }
  return saved;
}

/**
 * The number of crossing pairs of links, weighted by both links; links from one pin do not cross. Counted by a tree of partial
 * sums over the lower ends (Barth, Mutzel and Jünger, 2004, "Simple and efficient bilayer cross counting").
 */
function crossings(links: LayeredGraph['links'], worth: Worth): number {
  let count = 0;
  for (const gap of links) {
    const ends = gap
      .map((link) => ({ from: fromOf(link), to: toOf(link), worth: worth.get(link)! }))
      .sort((a, b) => a.from - b.from || a.to - b.to);
    const heights = [...new Set(ends.map(({ to }) => to))].sort((a, b) => a - b);
    const rank = new Map(heights.map((to, i) => [to, i + 1]));
    const sums = new Float64Array(heights.length + 1);
    let all = 0;
    for (let i = 0; i < ends.length; ) {
      let end = i;
      for (; end < ends.length && ends[end]!.from === ends[i]!.from; end++) {
        // What began above and ends below it.
        const own = ends[end]!;
        let upTo = 0;
        for (let at = rank.get(own.to)!; at > 0; at -= at & -at) upTo += sums[at]!;
        count += own.worth * (all - upTo);
      }
      for (; i < end; i++) {
        const own = ends[i]!;
        all += own.worth;
        for (let at = rank.get(own.to)!; at < sums.length; at += at & -at) sums[at]! += own.worth;
      }
    }
  }
  return count;
}
