import fc from 'fast-check';
import { graphOf } from '../../testing/layered-graphs';
import { assignCoordinates } from './coordinate-assignment';
import type { LayoutNode } from './layout-nodes';

const passes = (count: number) =>
  Array.from({ length: count }, (_, at): LayoutNode => ({ part: null, above: 1, below: 1, at, y: 0 }));

test('a signal runs straight where nothing is in its way', () => {
  const graph = graphOf([3, 2, 3].map(passes), [
    [0, 0, 0],
    [1, 0, 0],
    [0, 2, 1],
    [1, 1, 2],
  ]);
  assignCoordinates(graph, 0);
  const [first, middle, last] = graph.columns;
  expect(first![0]!.y).toBe(middle![0]!.y);
  expect(middle![0]!.y).toBe(last![0]!.y);
  expect(first![2]!.y).toBe(middle![1]!.y);
  expect(middle![1]!.y).toBe(last![2]!.y);
});

test('the order of each column is kept, and so is the room between its nodes', () => {
  const joins = fc.array(fc.tuple(fc.nat(1), fc.nat(3), fc.nat(3)), { maxLength: 12 });
  fc.assert(
    fc.property(joins, fc.nat(3), (given, wider) => {
      const graph = graphOf([4, 4, 4].map(passes), given);
      assignCoordinates(graph, wider);
      for (const column of graph.columns)
        for (const [i, node] of column.entries()) {
          expect(Number.isInteger(node.y)).toBe(true);
          if (i > 0) expect(node.y - column[i - 1]!.y).toBeGreaterThan(node.above + column[i - 1]!.below);
        }
    }),
  );
});
