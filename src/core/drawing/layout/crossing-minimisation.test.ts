import fc from 'fast-check';
import { graphOf } from '../../testing/layered-graphs';
import { partOf } from '../../testing/rig';
import { minimiseCrossings } from './crossing-minimisation';
import { keepsOrder, type LayeredGraph, type LayoutNode, OUTPUT_LINK_WEIGHT } from './layout-nodes';

/** Columns of parts of some kinds. */
const partsOf = (kinds: readonly (readonly string[])[]) =>
  kinds.map((column, c) =>
    column.map(
      (kind, at): LayoutNode => ({
        part: partOf(kind, `${kind}${c}${at}`, {}, at),
        above: 1,
        below: 1,
        at,
        y: 0,
      }),
    ),
  );

/** Pairs of links of different nodes that cross, those on the way to outputs counted as often as they matter. */
function crossed({ links }: LayeredGraph): number {
  let count = 0;
  for (const a of links.flat())
    for (const b of links.find((gap) => gap.includes(a))!)
      if (a.from.at < b.from.at && a.to.at > b.to.at) count += keepsOrder(a.to) ? OUTPUT_LINK_WEIGHT ** 2 : 1;
  return count;
}

test('gates are ordered by the inputs that they read, so that nothing crosses that need not', () => {
  const graph = graphOf(partsOf([['switch', 'switch', 'switch'], ['not', 'not', 'not'], ['or']]), [
    [0, 0, 2],
    [0, 1, 0],
    [0, 2, 1],
    [1, 0, 0],
    [1, 1, 0],
    [1, 2, 0],
  ]);
  minimiseCrossings(graph);
  expect(crossed(graph)).toBe(0);
  expect(graph.columns[1]!.map((s) => s.part!.id)).toEqual(['not12', 'not10', 'not11']);
});

test('inputs and outputs keep their declared order, whatever crosses; all stay where they belong', () => {
  const joins = fc.array(fc.tuple(fc.nat(1), fc.nat(3), fc.nat(3)), { maxLength: 16 });
  fc.assert(
    fc.property(joins, (given) => {
      const graph = graphOf(partsOf(['switch', 'not', 'lamp'].map((kind) => Array(4).fill(kind))), given);
      const before = crossed(graph);
      minimiseCrossings(graph);
      expect(graph.columns[0]!.map((s) => s.part!.rank)).toEqual([0, 1, 2, 3]);
      expect(graph.columns[2]!.map((s) => s.part!.rank)).toEqual([0, 1, 2, 3]);
      expect(graph.columns[1]!.map((s) => s.part!.rank).sort()).toEqual([0, 1, 2, 3]);
      for (const column of graph.columns) expect(column.map((s) => s.at)).toEqual([0, 1, 2, 3]);
      // Each link counts whole where no node has two.
      const isSimple = new Set(given.map(([c, from]) => `${c} ${from}`)).size === given.length;
      if (isSimple) expect(crossed(graph)).toBeLessThanOrEqual(before);
    }),
    { numRuns: 300 },
  );
});
