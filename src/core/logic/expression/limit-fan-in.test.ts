import { limitFanIn } from './limit-fan-in';

test('a wide gate becomes a tree of gates of its own kind', () => {
  const name = (n: string) => ({ op: 'name' as const, name: n, at: 0 });
  const wide = { op: 'nand' as const, of: ['A', 'B', 'C'].map(name) };
  expect(limitFanIn(wide, 2)).toEqual({
    op: 'nand',
    of: [
      {
        op: 'nand',
        of: [
          { op: 'nand', of: [name('A'), name('B')] },
          { op: 'nand', of: [name('A'), name('B')] },
        ],
      },
      name('C'),
    ],
  });
});
