import fc from 'fast-check';
import { readVerilog } from '../../formats/verilog/read';
import { compile } from '../../netlist/compile';
import type { Netlist } from '../../netlist/netlist';
import { randomSheet } from '../../testing/random-circuit';
import { partOf, sheetOfParts } from '../../testing/rig';
import { adder } from '../../testing/verilog-circuits';
import { expectDone } from '../../values/result';
import { countByWasm, countPlan } from './count-machine';
import { isBinary, needed } from './table-pieces';
import { countOnes, truthTable } from './truth-table';

const netlistOf = (text: string): Netlist => {
  const { sheets } = expectDone(readVerilog(text, 'Circuit'));
  return compile(sheets[0]!, sheets);
};
const onesOf = (netlist: Netlist) => truthTable(netlist).ones.map(countOnes);

test('ones of random circuits are those of their tables', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 8, max: 13 }).chain((inputs) => randomSheet({ inputs, gates: 30 })),
      (sheet) => {
        const netlist = compile(sheet);
        fc.pre(netlist.inputColumns.length > 7 && isBinary(netlist, needed(netlist)));
        expect(countByWasm(netlist)).toEqual(onesOf(netlist));
      },
    ),
    { numRuns: 120 },
  );
});

test('an output that is an input, a constant, or read twice is counted as well', () => {
  const inputs = Array.from({ length: 9 }, (_, i) => `i${i}`);
  const sheet = sheetOfParts(
    [
      ...inputs.map((id, rank) => partOf('switch', id, {}, rank)),
      partOf('constant', 'one', { value: 1 }),
      partOf('not', 'n'),
      ...['a', 'b', 'c', 'd'].map((id, i) => partOf('lamp', id, {}, 20 + i)),
    ],
    ['i3.Y-a.A', 'one.Y-b.A', 'i8.Y-n.A', 'n.Y-c.A', 'n.Y-d.A'],
  );
  expect(countByWasm(compile(sheet))).toEqual([256, 512, 256, 256]);
});

test('few gates are evaluated for a word of an adder, whichever inputs it has', () => {
  const netlist = netlistOf(adder(10, 'gates'));
  const gates = needed(netlist);
  const { evaluated, counting, within } = countPlan(netlist, gates);
  expect(new Set([...counting, ...within]).size).toBe(netlist.inputColumns.length);
  expect(within).toHaveLength(7);
  expect(evaluated).toBeLessThan(gates.length / 3);
  expect(countByWasm(netlist)).toEqual(onesOf(netlist));
});

test('too few inputs, and nets that can be unknown, are left to the table', () => {
  const tri = sheetOfParts(
    [
      ...Array.from({ length: 8 }, (_, i) => partOf('switch', `i${i}`, {}, i)),
      partOf('tri', 't'),
      partOf('lamp', 'y', {}, 20),
    ],
    ['i0.Y-t.A', 'i1.Y-t.EN', 't.Y-y.A'],
  );
  expect(countByWasm(compile(tri))).toBeNull();
  expect(countByWasm(netlistOf(adder(3, 'gates')))).toBeNull();
});

test('the work tells how far it is, and stops where that throws', () => {
  const netlist = netlistOf(adder(12, 'gates'));
  const shares: number[] = [];
  countByWasm(netlist, (share) => shares.push(share));
  expect(shares[0]).toBe(0);
  expect(() =>
    countByWasm(netlist, () => {
      throw new Error('stopped');
    }),
  ).toThrow('stopped');
});
