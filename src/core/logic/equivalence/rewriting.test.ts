import fc from 'fast-check';
import { readVerilog } from '../../formats/verilog/read';
import { compile } from '../../netlist/compile';
import { adder, carrySave, prefixAdder, product } from '../../testing/verilog-circuits';
import { addersOf } from './adders';
import { Aig, type AigEdge, intoAig, negated } from './aig';
import { prove } from './prove-sequences';
import { rewriteWords } from './rewriting';

const INPUTS = 6;
const ROWS = Array.from({ length: 2 ** INPUTS }, (_, row) => row);

const netlistOf = (text: string) => {
  const read = readVerilog(text, 'test');
  if (!read.ok) throw new Error(read.problem.message);
  return compile(read.value.sheets[0]!, read.value.sheets);
};
const proof = (a: string, b: string) => {
  const made = prove(netlistOf(a), netlistOf(b));
  if (!made.ok) throw new Error(made.problem.message);
  return made.value;
};

/** A signal with its value in each row. */
interface Signal {
  readonly edge: AigEdge;
  readonly in: readonly boolean[];
}

/** Graphs grown of adders built in several ways, and of other gates. */
const grown = fc
  .array(
    fc.tuple(fc.constantFrom('full', 'full', 'nand', 'half', 'and', 'xor'), fc.nat(), fc.nat(), fc.nat()),
    {
      minLength: 10,
      maxLength: 18,
    },
  )
  .map((steps) => {
    const aig = new Aig();
    const pool: Signal[] = Array.from({ length: INPUTS }, (_, i) => ({
      edge: aig.input(),
      in: ROWS.map((row) => ((row >> i) & 1) === 1),
    }));
    const pick = (n: number): Signal => {
      const { edge, in: rows } = pool[(n >> 1) % pool.length]!;
      return n & 1 ? { edge: negated(edge), in: rows.map((v) => !v) } : { edge, in: rows };
    };
    for (const [kind, ...picks] of steps) {
      const [a, b, c] = picks.map(pick) as [Signal, Signal, Signal];
      const put = (edge: AigEdge, of: (...ones: boolean[]) => boolean) =>
        pool.push({ edge, in: ROWS.map((row) => of(a.in[row]!, b.in[row]!, c.in[row]!)) });
      const ab = aig.xor(a.edge, b.edge);
      const nand = (x: AigEdge, y: AigEdge) => negated(aig.and(x, y));
      if (kind === 'full' || kind === 'nand') {
        put(aig.xor(ab, c.edge), (x, y, z) => (x !== y) !== z);
        const both = aig.and(a.edge, b.edge);
        put(
          kind === 'nand'
            ? nand(negated(both), nand(ab, c.edge))
            : aig.or(both, aig.and(c.edge, aig.or(a.edge, b.edge))),
          (x, y, z) => (x && y) || (z && (x || y)),
        );
      } else if (kind === 'half' || kind === 'xor') put(ab, (x, y) => x !== y);
      if (kind === 'half' || kind === 'and') put(aig.and(a.edge, b.edge), (x, y) => x && y);
    }
    return { aig, pick };
  });

test('words are the same numbers exactly where they are in all rows, and a row that tells them apart does', () => {
  const decided = { same: 0, different: 0, undecided: 0 };
  fc.assert(
    fc.property(
      grown,
      fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 4 }),
      ({ aig, pick }, bits) => {
        const word = bits.map(([m, n]) => [pick(m), n % 3 === 0 ? pick(m) : pick(n)] as const);
        const found = rewriteWords(aig, [word.map(([a, b]) => [a.edge, b.edge] as const)], () => {});
        decided[found.verdict]++;
        const differsIn = (row: number) => word.some(([a, b]) => a.in[row] !== b.in[row]);
        if (found.verdict === 'same') expect(ROWS.filter(differsIn)).toEqual([]);
        if (found.verdict === 'different')
          expect(differsIn(found.ones.reduce((row, node) => row | (1 << (node - 1)), 0))).toBe(true);
      },
    ),
    { numRuns: 400 },
  );
  expect(Math.min(decided.same, decided.different)).toBeGreaterThan(10);
});

test.each([
  ['ripple', adder(16, 'gates'), 15],
  ['ripple of NAND gates', adder(16, 'nand'), 15],
  ['rows one after the other', product(8, 'a'), 48],
  ['rows of NAND gates', product(8, 'a', 'nand'), 48],
  ['carries kept', carrySave(8), 48],
])('the full adders of a circuit are found, however they are built: %s', (_, text, count) => {
  const netlist = netlistOf(text);
  const aig = new Aig();
  intoAig(
    aig,
    netlist,
    netlist.inputColumns.map(() => aig.input()),
  );
  const full = [...new Set(addersOf(aig).values())].filter(({ leaves }) => leaves.length === 3);
  expect(full.length).toBeGreaterThanOrEqual(count - 1);
  expect(full.length).toBeLessThanOrEqual(count + 1);
});

test.each([16, 32])(
  'multipliers of %d bits, rows one after the other against carries kept to the end',
  (bits) => {
    expect(proof(product(bits, 'a'), carrySave(bits))).toEqual({
      verdict: 'equivalent',
      method: 'algebraic rewriting',
    });
  },
);

test('a product of the wrong bits is told by the fewest ones that show it', () => {
  const made = proof(product(16, 'a'), carrySave(16).replace('a[3] & b[7]', 'a[3] & b[6]'));
  if (made.verdict !== 'different') throw new Error(made.verdict);
  expect(Object.entries(made.inputs[0]!).filter(([, value]) => value === 1)).toEqual([
    ['a[3]', 1],
    ['b[7]', 1],
  ]);
});

test.each(['first', 'second'])('adders of 128 bits, ripple against prefix, which is the %s', (which) => {
  const both = [prefixAdder(128), adder(128, 'gates')] as [string, string];
  if (which === 'second') both.reverse();
  expect(proof(...both)).toEqual({ verdict: 'equivalent', method: 'decision diagrams' });
});
