import type { LayeredGraph, LayoutNode, Link } from '../drawing/layout/layout-nodes';

/** Columns of nodes with links between them, each by its column and its places in that and in the next one. */
export function graphOf(
  columns: LayoutNode[][],
  joins: readonly (readonly [column: number, from: number, to: number])[],
): LayeredGraph {
  const links: Link[][] = columns.map(() => []);
  for (const [column, from, to] of joins)
    links[column]!.push({
      from: columns[column]![from]!,
      fromAt: 0,
      to: columns[column + 1]![to]!,
      toAt: 0,
      weight: 1,
    });
  return { columns, links, ways: new Map(), rows: [] };
}
