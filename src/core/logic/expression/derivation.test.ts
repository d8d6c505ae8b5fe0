import fc from 'fast-check';
import { expressionOf } from '../../testing/expressions';
import { expectDone } from '../../values/result';
import { literalCount } from '../minimise/cube';
import { minimise } from '../minimise/minimise';
import { derivation, flat, type Step } from './derivation';
import { type Expression, evaluate } from './expression';
import { sizeOf } from './forms';
import { written } from './notation';

const NAMES = ['A', 'B', 'C', 'D'];
const leaf: fc.Arbitrary<Expression> = fc.oneof(
  {
    weight: 12,
    arbitrary: fc.constantFrom(...NAMES).map((name): Expression => ({ op: 'name', name, at: 0 })),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom<0 | 1>(0, 1).map((value): Expression => ({ op: 'constant', value })),
  },
);
const expression: fc.Arbitrary<Expression> = fc.letrec<{ e: Expression }>((tie) => ({
  e: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    leaf,
    tie('e').map((of): Expression => ({ op: 'not', of })),
    fc
      .tuple(
        fc.constantFrom('and', 'or', 'xor', 'nand', 'nor', 'xnor' as const),
        fc.array(tie('e'), { minLength: 2, maxLength: 3 }),
      )
      .map(([op, of]) => ({ op, of }) as Expression),
  ),
})).e;

const column = (e: Expression) =>
  Array.from({ length: 16 }, (_, row) =>
    evaluate(e, new Map(NAMES.map((n, i) => [n, ((row >> (3 - i)) & 1) as 0 | 1]))),
  ).join('');

function derived(text: string): readonly Step[] {
  const names = NAMES.filter((n) => text.includes(n));
  return expectDone(derivation(expressionOf(text), names));
}
const said = (text: string) => derived(text).map((s) => `${s.law} → ${written(s.result, 'prime')}`);

test('a random expression of four inputs reaches a smallest sum, each step saying the same', () => {
  let reached = 0;
  fc.assert(
    fc.property(expression, (e) => {
      const made = derivation(e, NAMES);
      if (!made.ok) return;
      reached++;
      const truth = column(e);
      for (const { result } of made.value) expect(column(result)).toBe(truth);
      const last = made.value.at(-1)?.result ?? flat(e);
      const { cubes } = minimise({ inputs: 4, rows: Uint8Array.from([...truth].map(Number)) });
      const size = sizeOf(last);
      const wanted = cubes.some((c) => c.mask === 0) ? 0 : cubes.length;
      expect([size.terms, size.literals]).toEqual([
        wanted,
        cubes.reduce((sum, c) => sum + literalCount(c), 0),
      ]);
    }),
    { numRuns: 150 },
  );
  expect(reached).toBeGreaterThan(100);
});

test('the laws in their places', () => {
  expect(said("AB + AB'")).toEqual(["A B + A B' = A → A"]);
  expect(said('A + AB + ABC')).toEqual(['Absorption: A + A B = A → A']);
  expect(said("A + A'B")).toEqual(["A + A' B = A + B → A + B"]);
  expect(said("(A + B)'")).toEqual(["De Morgan, and a double inverse cancels → A'B'"]);
  expect(said("AB + A'C + BC")).toEqual(["Consensus: A B + A' C + B C = A B + A' C → AB + A'C"]);
  expect(said('A(B + C)')).toEqual(['Distribution: A (B + C) = A B + A C → AB + AC']);
  expect(said("A nand A'")).toEqual([
    "De Morgan, and a double inverse cancels → A' + A''",
    "De Morgan, and a double inverse cancels → A' + A",
    "A B + A B' = A → 1",
  ]);
});

test('a step says where it was taken', () => {
  const [first] = derived("C + (A + B)'");
  expect(first!.places.map((p) => [written(p.before, 'prime'), written(p.after, 'prime')])).toEqual([
    ["(A + B)'", "A'B'"],
  ]);
});

test('what is too much to be read is not derived', () => {
  const names = ['A', 'B', 'C', 'D', 'E', 'F', 'G'];
  expect(derivation({ op: 'name', name: 'A', at: 0 }, names)).toMatchObject({
    ok: false,
    problem: { message: '7 inputs are too many to be derived law by law' },
  });
});
