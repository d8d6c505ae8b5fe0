import { sameBits } from './same-bits';

const found = (...lines: [name: string, needs: number][]) =>
  sameBits(
    lines,
    ([name]) => name,
    ([, needs]) => `${needs}`,
  ).map(({ name, all }) => [name, all.length]);

test('equal findings of the bits of one number are one; others stay apart, each where its first one stood', () => {
  expect(found(['Count[2]', 5], ['Bell', 5], ['Count[0]', 5], ['Count[1]', 5], ['Count[3]', 4])).toEqual([
    ['Count[2:0]', 3],
    ['Bell', 1],
    ['Count[3]', 1],
  ]);
  expect(found(['R[0]', 1], ['R[2]', 1], ['R0', 1], ['Key', 1], ['Q0', 1], ['Q2', 1], ['Q1', 1])).toEqual([
    ['R[2, 0]', 2],
    ['R0', 1],
    ['Key', 1],
    ['Q0 to Q2', 3],
  ]);
  expect(found(['Q0', 1], ['Q2', 1])).toEqual([['Q0, Q2', 2]]);
});
