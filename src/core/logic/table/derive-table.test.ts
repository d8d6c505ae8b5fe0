import fc from 'fast-check';
import { compile } from '../../netlist/compile';
import { randomSheet } from '../../testing/random-circuit';
import { sheetAround } from '../../testing/rig';
import { deriveTable, tablePieces } from './derive-table';
import { hasWideWords, tableMachine } from './table-machine';
import { isBinary, needed } from './table-pieces';
import { firstDifference, truthTable } from './truth-table';

const plain = (column: Uint32Array | null, words: number) =>
  column ? [...column] : Array<number>(words).fill(0);

/** The whole table as plain numbers, whichever columns can be left out. */
function rows(table: ReturnType<typeof truthTable>) {
  const words = table.ones[0]!.length;
  return {
    ones: table.ones.map((c) => [...c]),
    unknown: table.unknown.map((c) => plain(c, words)),
    floating: table.floating.map((c) => plain(c, words)),
  };
}

test('this machine has the wide words that the tests are to use', () => {
  expect(hasWideWords()).toBe(true);
});

test('both ways of deriving a table give the same rows, loose inputs and constants too', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 9, gates: 40 }), fc.nat(), (sheet, cut) => {
      const wires = new Map(sheet.wires);
      wires.delete(`w${1 + (cut % (sheet.wires.size + 5))}`);
      const n = compile({ ...sheet, wires });
      expect(rows(deriveTable(n, { by: 'wasm' }))).toEqual(rows(truthTable(n)));
    }),
    { numRuns: 150 },
  );
});

test.each([
  ['tri', { width: 2 }],
  ['mux', { select: 2, width: 2 }],
  ['adder', { width: 4 }],
  ['comparator', { width: 4, numbers: 'signed' }],
  ['encoder', { select: 3 }],
  ['decoder', { select: 3, enable: 'yes' }],
  ['rom', { address: 8, width: 4, content: Array.from({ length: 256 }, (_, i) => (i * 7) % 16) }],
  ['xor', { inputs: 5, inverted: [2] }],
])('both ways agree on a %s', (kind, params) => {
  const n = compile(sheetAround(kind, params));
  expect(rows(deriveTable(n, { by: 'wasm' }))).toEqual(rows(truthTable(n)));
});

test('a circuit of many gates is cut into functions that hand on through memory', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 8, gates: 60 }), (sheet) => {
      // The same gates again and again, each copy reading the one before.
      const parts = new Map(sheet.parts);
      const wires = new Map(sheet.wires);
      const gates = [...sheet.parts.values()].filter(
        (p) => p.kind !== 'switch' && p.kind !== 'lamp' && p.kind !== 'constant',
      );
      const last = gates.at(-1)!.id;
      for (let i = 0; i < 4100; i++) {
        const id = `z${i}`;
        parts.set(id, {
          ...gates[0]!,
          id,
          kind: i % 3 ? 'not' : 'xor',
          params: { inputs: 2, width: 1, inverted: [] },
        });
        const join = (from: string, port: string) =>
          wires.set(`${id}${port}`, {
            id: `${id}${port}`,
            from: { part: from, port: 'Y' },
            to: { part: id, port },
            course: [],
          });
        join(i === 0 ? last : `z${i - 1}`, 'A');
        if (i % 3 === 0) join(gates[i % gates.length]!.id, 'B');
      }
      parts.set('l9', { ...[...parts.values()].find((p) => p.kind === 'lamp')!, id: 'l9', rank: 9999 });
      wires.set('wl9', {
        id: 'wl9',
        from: { part: 'z4099', port: 'Y' },
        to: { part: 'l9', port: 'A' },
        course: [],
      });
      const n = compile({ ...sheet, parts, wires });
      expect(rows(deriveTable(n, { by: 'wasm' }))).toEqual(rows(truthTable(n)));
    }),
    { numRuns: 10 },
  );
});

test('a circuit in which nothing can be unknown takes one word a net', () => {
  expect(tableMachine(compile(sheetAround('adder', { width: 2 })), 'any').binary).toBe(true);
  expect(tableMachine(compile(sheetAround('tri')), 'any').binary).toBe(false);
});

test('large tables tell how far they are, and can be stopped', () => {
  const n = compile(sheetAround('adder', { width: 10 }));
  const shares: number[] = [];
  const table = deriveTable(n, { progress: (s) => shares.push(s) });
  expect(table.rows).toBe(2 ** 21);
  expect(shares.length).toBeGreaterThan(1);
  expect(() =>
    deriveTable(n, {
      progress: () => {
        throw new Error('stopped');
      },
    }),
  ).toThrow('stopped');
});

test('the first row in which two columns differ', () => {
  const column = (...rowsAt: number[]) => {
    const c = new Uint32Array(4);
    for (const r of rowsAt) c[r >> 5] = c[r >> 5]! | (1 << (r & 31));
    return c;
  };
  expect(firstDifference(column(3, 95), column(3, 70, 95))).toBe(70);
  expect(firstDifference(column(31), column())).toBe(31);
  expect(firstDifference(column(5), column(5))).toBe(-1);
});

test('all rows are where they belong, whichever order they are derived in, in one piece and in several', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 15, gates: 60 }), fc.nat({ max: 7 }), (sheet, fewer) => {
      const n = compile(sheet);
      fc.pre(n.inputColumns.length >= 14 && isBinary(n, needed(n)));
      const right = truthTable(n);
      const blocks = right.rows / 128;
      const span = blocks / 2 ** fewer;
      let next = 0;
      for (const { first, rows, ones } of tablePieces(n, { span })) {
        expect([first, rows]).toEqual([next, 128 * span]);
        for (const [o, column] of right.ones.entries())
          expect(firstDifference(ones[o]!, column.subarray(first >>> 5, (first + rows) >>> 5))).toBe(-1);
        next += rows;
      }
      expect(next).toBe(right.rows);
    }),
    { numRuns: 40 },
  );
});

test('a table whose rows are derived in another order than they follow one another is the same', () => {
  const apart: number[] = [];
  fc.assert(
    fc.property(randomSheet({ inputs: 18, gates: 60 }), fc.nat({ max: 5 }), (sheet, fewer) => {
      const n = compile(sheet);
      const inputs = n.inputColumns.length;
      fc.pre(inputs >= 16 && isBinary(n, needed(n)));
      const span = 2 ** (inputs - 7 - fewer);
      apart.push(tableMachine(n, 'any', span).run(0).length);
      const [right, table] = [truthTable(n), deriveTable(n, { span })];
      for (const [o, column] of right.ones.entries())
        expect(firstDifference(table.ones[o]!, column)).toBe(-1);
    }),
    { numRuns: 40 },
  );
  expect(Math.max(...apart)).toBeGreaterThan(1);
});

test('a table takes the memory of one that nobody looks at any longer, where it fits', () => {
  const n = compile(sheetAround('adder', { width: 6 }));
  const right = deriveTable(n);
  const given = [...right.ones.map((c) => new Uint32Array(c.length).fill(7)), new Uint32Array(3)];
  const table = deriveTable(n, {}, given);
  expect(rows(table)).toEqual(rows(right));
  for (const column of table.ones) expect(given).toContain(column);
});
