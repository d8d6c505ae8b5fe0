import fc from 'fast-check';
import { Code, moduleOf } from './module';
import {
  add,
  and,
  choose,
  ctz,
  type Expression,
  eq,
  geU,
  growMemory,
  gtU,
  Local,
  Locals,
  load8,
  load32,
  ltU,
  memoryPages,
  ne,
  not,
  or,
  repeat,
  type Step,
  set,
  shl,
  shrU,
  steps,
  store8,
  store32,
  sub,
  trap,
  when,
  whilst,
  xor,
} from './scalar';

const [a, b] = [new Local(0), new Local(1)];

/** Runs steps of two numbers, and gives the first words of the memory then. */
function ran(step: Step, x: number, y: number, locals = new Locals(2)): Int32Array {
  const code = new Code();
  step(code);
  const memory = new WebAssembly.Memory({ initial: 1 });
  const bytes = moduleOf([{ parameters: 2, i32Locals: locals.added, v128Locals: 0, code }], 1);
  const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory } });
  (exports.run as (x: number, y: number) => void)(x, y);
  return new Int32Array(memory.buffer);
}
const valueOfExpression = (of: Expression, x: number, y: number) => ran(store32(0, of), x, y)[0]!;

const number = fc.oneof(fc.integer(), fc.integer({ min: -40, max: 40 }));

test.each<[string, Expression, (x: number, y: number) => number]>([
  ['eq', eq(a, b), (x, y) => Number(x === y)],
  ['ne', ne(a, b), (x, y) => Number(x !== y)],
  ['ltU', ltU(a, b), (x, y) => Number(x >>> 0 < y >>> 0)],
  ['gtU', gtU(a, b), (x, y) => Number(x >>> 0 > y >>> 0)],
  ['geU', geU(a, b), (x, y) => Number(x >>> 0 >= y >>> 0)],
  ['add', add(a, b), (x, y) => (x + y) | 0],
  ['sub', sub(a, b), (x, y) => (x - y) | 0],
  ['and', and(a, b), (x, y) => x & y],
  ['or', or(a, b), (x, y) => x | y],
  ['xor', xor(a, b), (x, y) => x ^ y],
  ['shl', shl(a, b), (x, y) => x << y],
  ['shrU', shrU(a, b), (x, y) => (x >>> y) | 0],
  ['not', not(a), (x) => Number(x === 0)],
  ['ctz', ctz(a), (x) => (x === 0 ? 32 : 31 - Math.clz32(x & -x))],
  ['choose', choose(and(a, 1), b, -7), (x, y) => (x & 1 ? y : -7)],
])('%s does what it says', (_, expression, right) => {
  fc.assert(
    fc.property(number, number, (x, y) => {
      expect(valueOfExpression(expression, x, y)).toBe(right(x, y));
    }),
    { numRuns: 60 },
  );
});

test('constants of any size', () => {
  for (const value of [0, 1, 63, 64, -1, -64, -65, 8191, 8192, 2 ** 30, -(2 ** 31)])
    expect(ran(store32(0, value), 0, 0)[0]).toBe(value);
});

test('memory is read and written as words and as bytes, at an offset', () => {
  const memory = ran(
    steps(store32(8, a), store8(3, b, 1), store32(12, add(load32(4, 4), 1)), store32(16, load8(8, 1))),
    0x1234_5678,
    0xabc,
  );
  expect([...memory.subarray(1, 5)]).toEqual([0xbc, 0x1234_5678, 0x1234_5679, 0x56]);
});

test('a loop that looks before, one that looks behind, and what is done or not', () => {
  const locals = new Locals(2);
  const sum = locals.next();
  const rounds = locals.next();
  const program = steps(
    whilst(ne(a, 0), steps(set(sum, add(sum, a)), set(a, sub(a, 1)))),
    repeat(steps(set(rounds, add(rounds, 1)), set(b, shrU(b, 1))), b),
    when(gtU(sum, 9), store32(8, 1), store32(8, 2)),
    when(eq(sum, 10), store32(12, 5)),
    store32(0, sum),
    store32(4, rounds),
  );
  expect([...ran(program, 4, 9, locals).subarray(0, 4)]).toEqual([10, 4, 1, 5]);
  expect([...ran(program, 0, 0, locals).subarray(0, 4)]).toEqual([0, 1, 2, 0]);
});

test('the memory grows by pages and says how long it was; a trap ends all', () => {
  const grown = ran(steps(store32(0, growMemory(2)), store32(4, memoryPages)), 0, 0);
  expect(grown.length).toBe((3 * 65_536) / 4);
  expect([grown[0], grown[1]]).toEqual([1, 3]);
  expect(() => ran(trap, 0, 0)).toThrow(WebAssembly.RuntimeError);
});
