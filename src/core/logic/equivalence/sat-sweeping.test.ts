import fc from 'fast-check';
import { compile } from '../../netlist/compile';
import { randomSheet } from '../../testing/random-circuit';
import { cell, truthTable } from '../table/truth-table';
import { AIG_FALSE, AIG_TRUE, Aig, type AigEdge, intoAig, negated } from './aig';
import { satSweep } from './sat-sweeping';

const INPUTS = 6;

/** A graph of random ANDs, with the value of each node in a row. */
const graphs = fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 60 }).map((steps) => {
  const aig = new Aig();
  const edges: AigEdge[] = Array.from({ length: INPUTS }, () => aig.input());
  const valueIn: ((row: number) => boolean)[] = edges.map((_, i) => (row) => ((row >> i) & 1) === 1);
  const pick = (n: number) => {
    const at = (n >> 1) % edges.length;
    const isTurned = (n & 1) === 1;
    const value = valueIn[at]!;
    return {
      edge: isTurned ? negated(edges[at]!) : edges[at]!,
      value: (row: number) => value(row) !== isTurned,
    };
  };
  for (const [m, n] of steps) {
    const [a, b] = [pick(m), pick(n)];
    edges.push(aig.and(a.edge, b.edge));
    valueIn.push((row) => a.value(row) && b.value(row));
  }
  return { aig, pick };
});

test('edges are the same exactly where they are in all rows, and a row that tells them apart does', () => {
  fc.assert(
    fc.property(
      graphs,
      fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 3 }),
      ({ aig, pick }, picked) => {
        const pairs = picked.map(([m, n]) => [pick(m), pick(n)] as const);
        const differsIn = (row: number) => pairs.some(([a, b]) => a.value(row) !== b.value(row));
        const rows = Array.from({ length: 2 ** INPUTS }, (_, row) => row);
        const found = satSweep(
          aig,
          pairs.map(([a, b]) => [a.edge, b.edge] as const),
        );
        expect(found.verdict).toBe(rows.some(differsIn) ? 'different' : 'same');
        if (found.verdict === 'different')
          expect(differsIn(found.inputs.reduce<number>((row, bit, i) => row | (bit << i), 0))).toBe(true);
      },
    ),
    { numRuns: 500 },
  );
});

test('what differs in a single row of a million is found by the search', () => {
  const aig = new Aig();
  const inputs = Array.from({ length: 20 }, () => aig.input());
  const all = inputs.reduce((a, b) => aig.and(a, b));
  // The same built from the other end, but for the last of them.
  const others = [...inputs].reverse().reduce((a, b) => aig.and(a, b));
  expect(satSweep(aig, [[all, others]])).toEqual({ verdict: 'same' });
  expect(satSweep(aig, [[all, AIG_FALSE]])).toEqual({ verdict: 'different', inputs: Array(20).fill(1) });
  expect(satSweep(aig, [[all, others]], undefined, 0)).toEqual({ verdict: 'undecided' });
});

test('a circuit in a graph does what it did', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 12 }), (sheet) => {
      const netlist = compile(sheet);
      const table = truthTable(netlist);
      const width = netlist.inputColumns.length;
      for (let row = 0; row < table.rows; row++) {
        const values = netlist.inputColumns.map((_, i) =>
          (row >> (width - 1 - i)) & 1 ? AIG_TRUE : AIG_FALSE,
        );
        const edges = intoAig(new Aig(), netlist, values);
        expect(edges.map((e) => (e === AIG_TRUE ? 1 : 0))).toEqual(edges.map((_, o) => cell(table, o, row)));
      }
    }),
  );
});

test('two ANDs that read the same are one node, however many there are', () => {
  const aig = new Aig();
  const inputs = Array.from({ length: 60 }, () => aig.input());
  const made = inputs.flatMap((a, i) => inputs.slice(i + 1).map((b) => aig.and(a, b)));
  const again = inputs.flatMap((a, i) => inputs.slice(i + 1).map((b) => aig.and(b, a)));
  expect(again).toEqual(made);
  expect(new Set(made).size).toBe(made.length);
  const [a, b] = inputs as [AigEdge, AigEdge];
  expect([aig.and(a, a), aig.and(a, negated(a)), aig.and(a, AIG_TRUE), aig.and(AIG_FALSE, b)]).toEqual([
    a,
    AIG_FALSE,
    a,
    AIG_FALSE,
  ]);
  expect(() => aig.input()).toThrow('inputs come before ANDs');
});
