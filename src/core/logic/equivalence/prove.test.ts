import fc from 'fast-check';
import { readVerilog } from '../../formats/verilog/read';
import { compile } from '../../netlist/compile';
import type { Netlist } from '../../netlist/netlist';
import { randomSheet } from '../../testing/random-circuit';
import { adder, counter, parityOf, product } from '../../testing/verilog-circuits';
import { cell, inputAt, truthTable } from '../table/truth-table';
import { Bdd, FALSE, TooLarge, TRUE } from './bdd';
import { type Proof, variableOrder } from './prove';
import { prove } from './prove-sequences';

const verilog = (text: string): Netlist => {
  const read = readVerilog(text, 'test');
  if (!read.ok) throw new Error(read.problem.message);
  return compile(read.value.sheets[0]!, read.value.sheets);
};
const proof = (a: Netlist, b: Netlist): Proof => {
  const made = prove(a, b);
  if (!made.ok) throw new Error(made.problem.message);
  return made.value;
};

test('two circuits are the same exactly where their tables are, and a difference is one', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 3, gates: 6 }), randomSheet({ inputs: 3, gates: 6 }), (one, two) => {
      const [a, b] = [compile(one), compile(two)];
      const made = prove(a, b);
      if (!made.ok) return;
      const [p, q] = [truthTable(a), truthTable(b)];
      const same = p.outputs.every((name, o) => {
        const other = q.outputs.indexOf(name);
        return Array.from({ length: p.rows }, (_, r) => cell(p, o, r) === cell(q, other, r)).every(Boolean);
      });
      expect(made.value.verdict).toBe(same ? 'equivalent' : 'different');
      if (made.value.verdict !== 'different') return;
      const { inputs, outputs } = made.value;
      const row = p.inputs.reduce((sum, name) => sum * 2 + inputs[0]![name]!, 0);
      for (const [o, name] of p.outputs.entries()) {
        expect(outputs.a[name]).toBe('01XZ'[cell(p, o, row)]);
        expect(outputs.b[name]).toBe('01XZ'[cell(q, q.outputs.indexOf(name), row)]);
      }
    }),
    { numRuns: 150 },
  );
});

test('the first row in which two circuits differ is found in whichever piece of the table it is', () => {
  const all = Array.from({ length: 18 }, (_, i) => `i${i}`);
  const allOf = (of: readonly string[]) =>
    verilog(
      `module m(${all.map((i) => `input ${i}, `).join('')}output y); assign y = ${of.join(' & ')}; endmodule`,
    );
  // They differ where all are 1 but the fifth; and where all are 1.
  const made = proof(allOf(all), allOf(all.map((i, at) => (at === 4 ? `~${i}` : i))));
  expect(made).toMatchObject({
    verdict: 'different',
    method: 'all rows',
    inputs: [Object.fromEntries(all.map((i, at) => [i, at === 4 ? 0 : 1]))],
    outputs: { a: { y: '0' }, b: { y: '1' } },
  });
});

const JOINING = 'comparing gate by gate, with a search for a row';

test.each([4, 16, 32, 100])('adders of %d bits: ripple against NAND only', (bits) => {
  expect(proof(verilog(adder(bits, 'gates')), verilog(adder(bits, 'nand')))).toEqual({
    verdict: 'equivalent',
    method: bits > 8 ? 'algebraic rewriting' : 'all rows',
  });
});

test.each([16, 100])('the parity of the sum in adders of %d bits', (bits) => {
  const [gates, nands] = [adder(bits, 'gates'), adder(bits, 'nand')].map((text) =>
    parityOf(text, 's', bits + 1),
  );
  expect(proof(verilog(gates!), verilog(nands!))).toEqual({
    verdict: 'equivalent',
    method: 'decision diagrams',
  });
});

test('the parity of a product that is too large for diagrams, built of other gates', () => {
  const [gates, nands] = [product(16, 'a'), product(16, 'a', 'nand')].map((text) => parityOf(text, 'p', 32));
  expect(proof(verilog(gates!), verilog(nands!))).toEqual({ verdict: 'equivalent', method: JOINING });
});

test('a fault in a multiplier built of other gates is found', () => {
  const [gates, nands] = [product(16, 'a'), product(16, 'a', 'nand')];
  const wrong = nands.replace('assign c9_9 = ~(m9_9 & n9_9)', 'assign c9_9 = ~(m9_9 & m9_9)');
  const made = proof(verilog(gates), verilog(wrong));
  if (made.verdict !== 'different') throw new Error(made.verdict);
  const number = (of: Readonly<Record<string, unknown>>, name: string, bits: number) =>
    Array.from({ length: bits }, (_, i) => Number(of[`${name}[${i}]`]) * 2 ** i).reduce((x, y) => x + y);
  const [row] = made.inputs;
  const right = number(row!, 'a', 16) * number(row!, 'b', 16);
  expect(number(made.outputs.a, 'p', 32)).toBe(right);
  expect(number(made.outputs.b, 'p', 32)).not.toBe(right);
});

test('a fault deep in a wide adder is found, with a row that shows it', () => {
  const made = proof(verilog(adder(24, 'gates')), verilog(adder(24, 'nand', 17)));
  if (made.verdict !== 'different') throw new Error(made.verdict);
  const bits = (name: string) =>
    Array.from({ length: 24 }, (_, i) => made.inputs[0]![`${name}[${i}]`]! * 2 ** i).reduce((x, y) => x + y);
  const sum = (shown: Readonly<Record<string, string>>) =>
    Array.from({ length: 25 }, (_, i) => Number(shown[`s[${i}]`]) * 2 ** i).reduce((x, y) => x + y);
  expect(sum(made.outputs.a)).toBe(bits('a') + bits('b'));
  expect(sum(made.outputs.b)).not.toBe(bits('a') + bits('b'));
});

test('two counters built in two ways are the same from power-up', () => {
  expect(proof(verilog(counter(4, 'add')), verilog(counter(4, 'toggle')))).toEqual({
    verdict: 'equivalent',
    method: 'all states from power-up (16)',
  });
});

test('a counter that goes wrong at its tenth state is told by the shortest sequence', () => {
  const right = counter(4, 'toggle');
  const wrong = right.replace('q[0] <= q[0] ^ (on)', 'q[0] <= q[0] ^ (on & ~(q[3] & q[1] & ~q[0]))');
  const made = proof(verilog(right), verilog(wrong));
  if (made.verdict !== 'different') throw new Error(made.verdict);
  // Ten clocks lead to state 10, and the eleventh shows that it does not go on.
  expect(made.inputs).toHaveLength(12);
  expect(made.inputs.slice(0, 11).every((row) => row.on === 1)).toBe(true);
  expect(made.outputs.a).not.toEqual(made.outputs.b);
});

test('ports that do not match are named', () => {
  const and = verilog('module m(input a, b, output y); assign y = a & b; endmodule');
  const other = verilog('module m(input a, c, output y); assign y = a & c; endmodule');
  expect(prove(and, other)).toMatchObject({
    ok: false,
    problem: { message: 'the input b is only in one of them: a, b here, a, c there' },
  });
});

test('multipliers that add up the rows of the one number or of the other are the same', () => {
  const [a, b] = [verilog(product(6, 'a')), verilog(product(6, 'b'))];
  expect(proof(a, b)).toEqual({ verdict: 'equivalent', method: 'all rows' });
  const [c, d] = [verilog(product(9, 'a')), verilog(product(9, 'b'))];
  expect(proof(c, d)).toEqual({ verdict: 'equivalent', method: 'all rows' });
});

test('what is too large for diagrams and for rows is said to be undecided', () => {
  const [a, b] = (['a', 'b'] as const).map((rows) => verilog(parityOf(product(14, rows), 'p', 28)));
  const made = prove(a!, b!, {
    mostNodes: 20_000,
    mostWork: 2_000_000,
  });
  expect(made.ok && made.value).toEqual({
    verdict: 'undecided',
    method: 'decision diagrams and a search for a row',
    reason:
      'the decision diagrams grew too large, the search for a row that differs did not finish, and 28 inputs are too many to try every row',
  });
});

test('diagrams compute what the operations say', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ op: fc.nat(3), a: fc.nat(), b: fc.nat() }), { minLength: 1, maxLength: 20 }),
      (steps) => {
        const bdd = new Bdd();
        const made = [0, 1, 2, 3].map((v) => bdd.of(v));
        const values = [0, 1, 2, 3].map((v) =>
          Array.from({ length: 16 }, (_, row) => inputAt(4, v, row) as number),
        );
        for (const { op, a, b } of steps) {
          const [i, k] = [a % made.length, b % made.length];
          const [x, y] = [made[i]!, made[k]!];
          made.push(
            op === 0 ? bdd.and(x, y) : op === 1 ? bdd.or(x, y) : op === 2 ? bdd.xor(x, y) : bdd.not(x),
          );
          values.push(
            values[i]!.map((v, r) => {
              const w = values[k]![r]!;
              return op === 0 ? v & w : op === 1 ? v | w : op === 2 ? v ^ w : 1 - v;
            }),
          );
        }
        // The same function is the same node, and only that.
        for (const [i, x] of made.entries())
          for (const [k, y] of made.entries()) expect(x === y).toBe(values[i]!.join() === values[k]!.join());
        const last = made.at(-1)!;
        const found = bdd.satisfied(last);
        if (last === FALSE) expect(found).toBeNull();
        else {
          const row = [0, 1, 2, 3].reduce((sum, v) => sum * 2 + (found!.get(v) ?? 0), 0);
          expect(values.at(-1)![row]).toBe(1);
        }
        expect(last === TRUE).toBe(values.at(-1)!.every((v) => v === 1));
      },
    ),
  );
  const small = new Bdd(8);
  expect(() => [0, 1, 2, 3, 4, 5, 6].map((v) => small.of(v))).toThrow(TooLarge);
});

test('the bits of two numbers are tested together', () => {
  const order = variableOrder(verilog(adder(8, 'gates'))).map((i) => i % 8);
  for (let i = 0; i < 16; i += 2) expect(order[i]).toBe(order[i + 1]);
});
