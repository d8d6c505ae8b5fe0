import { type Logic, letterOf, ONE, resolve, X, Z, ZERO } from './logic';

const ALL: Logic[] = [ZERO, ONE, X, Z];

test('two drivers resolve as the table of IEEE Std 1364 has it', () => {
  const table = ALL.map((a) => ALL.map((b) => letterOf(resolve(a, b))).join(''));
  expect(table).toEqual(['0XX0', 'X1X1', 'XXXX', '01XZ']);
});

test('the order of drivers does not matter', () => {
  for (const a of ALL)
    for (const b of ALL)
      for (const c of ALL) {
        expect(resolve(a, b)).toBe(resolve(b, a));
        expect(resolve(resolve(a, b), c)).toBe(resolve(a, resolve(b, c)));
      }
});
