import { loopPath } from './loop-path';
import type { LoopPiece } from './map';

const piece = (open: Partial<LoopPiece['open']>): LoopPiece => ({
  layer: 0,
  down: [1, 2],
  across: [0, 0],
  open: { top: false, bottom: false, left: false, right: false, ...open },
});
const size = { down: 4, across: 4 };

test('a loop within the map is closed, with four round corners', () => {
  const path = loopPath(piece({}), 50, 5, size);
  expect(path.match(/Q/g)).toHaveLength(4);
  expect(path.match(/M/g)).toHaveLength(1);
  const [, start] = /^M([\d.]+ [\d.]+)/.exec(path)!;
  expect(path.endsWith(start!)).toBe(true);
});

test('a loop that goes on over an edge is open there, and reaches over it', () => {
  const left = loopPath(piece({ left: true }), 50, 5, size);
  expect(left.match(/Q/g)).toHaveLength(2);
  expect(left).toContain('M-7 55');
  expect(left.endsWith('L-7 145')).toBe(true);
  const corner = loopPath(piece({ left: true, top: true }), 50, 5, size);
  expect(corner.match(/Q/g)).toHaveLength(1);
  // Open on two sides that face each other: two lines.
  const band = loopPath(piece({ left: true, right: true }), 50, 5, size);
  expect(band.match(/M/g)).toHaveLength(2);
  expect(band).not.toContain('Q');
});
