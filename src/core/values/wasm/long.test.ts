import fc from 'fast-check';
import {
  addLong,
  andLong,
  ctzLong,
  type Long,
  LongLocal,
  loadLong,
  lowOf,
  notLong,
  onesLong,
  orLong,
  setLong,
  shlLong,
  shrLong,
  signed,
  storeLong,
  subLong,
  xorLong,
} from './long';
import { Code, moduleOf } from './module';
import { Local, steps } from './scalar';

/** What an expression of two numbers at addresses 0 and 8 gives, and a third of 32 bits. */
function resultOf(of: (a: Long, b: Long, n: Local) => Long, x: bigint, y: bigint, n = 0): bigint {
  const code = new Code();
  const held = new LongLocal(1);
  steps(setLong(held, loadLong(0)), storeLong(16, of(held, loadLong(4, 4), new Local(0))))(code);
  const memory = new WebAssembly.Memory({ initial: 1 });
  const longs = new BigInt64Array(memory.buffer);
  longs.set([x, y]);
  const bytes = moduleOf([{ parameters: 1, i32Locals: 0, i64Locals: 1, v128Locals: 0, code }], 1);
  const { exports } = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory } });
  (exports.run as (n: number) => void)(n);
  return longs[2]!;
}

const number = fc.oneof(fc.bigInt(-(2n ** 63n), 2n ** 63n - 1n), fc.bigInt(-70n, 70n));
const as64 = (n: bigint) => BigInt.asIntN(64, n);
const bitsOf = (n: bigint) => BigInt.asUintN(64, n).toString(2).padStart(64, '0');

test.each<[string, (a: Long, b: Long, n: Local) => Long, (x: bigint, y: bigint, n: number) => bigint]>([
  ['addLong', addLong, (x, y) => x + y],
  ['subLong', subLong, (x, y) => x - y],
  ['andLong', andLong, (x, y) => x & y],
  ['orLong', orLong, (x, y) => x | y],
  ['xorLong', xorLong, (x, y) => x ^ y],
  ['shlLong', (a, _, n) => shlLong(a, n), (x, _, n) => x << BigInt(n)],
  ['shrLong', (a, _, n) => shrLong(a, n), (x, _, n) => x >> BigInt(n)],
  ['onesLong', (a) => signed(onesLong(a)), (x) => BigInt(bitsOf(x).replaceAll('0', '').length)],
  ['ctzLong', (a) => signed(ctzLong(a)), (x) => BigInt(63 - bitsOf(x).lastIndexOf('1'))],
  ['lowOf', (a) => signed(lowOf(a)), (x) => BigInt.asIntN(32, x)],
  ['notLong', (a) => signed(notLong(a)), (x) => (x === 0n ? 1n : 0n)],
  ['signed', (_, _b, n) => addLong(signed(n), signed(-3)), (_, _y, n) => BigInt(n - 3)],
])('%s does what it says', (_, expression, right) => {
  fc.assert(
    fc.property(number, number, fc.integer({ min: 0, max: 63 }), (x, y, n) => {
      expect(resultOf(expression, x, y, n)).toBe(as64(right(x, y, n)));
    }),
    { numRuns: 60 },
  );
});
