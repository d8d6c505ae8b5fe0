import type { SpecTable } from '@/core/circuit/spec-table';
import { rowOrder, specFromNames, withLetters } from '@/core/logic/specification/spec-edits';
import { truthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';
import { interlock } from '@/core/testing/sketch';
import { circuitColumns, differing, differs, type SeenLetters } from './circuit-columns';

const table = truthTable(compile(interlock().sheet));

function plan(line: string, ...columns: string[]): SpecTable {
  const made = specFromNames(line);
  if (!made.ok) throw new Error(made.problem.message);
  return columns.reduce(
    (all, letters, o) => withLetters(all, o, new Map([...letters].map((c, row) => [row, c]))),
    made.value,
  );
}
const besideOf = (p: SpecTable, seen: SeenLetters = new Map()) =>
  circuitColumns(p, table, rowOrder(p, table.inputs)!, seen);

test('a circuit agrees with the table that says what it does', () => {
  const p = plan('Key, Bars, Clear = Drive, Warn', '00000001', '00001100');
  expect(differing(p, besideOf(p))).toEqual([]);
  expect(besideOf(p).isWhole).toBe(true);
});

test('rows are held against each other whatever the order of the inputs', () => {
  // Clear first: Drive is 1 in the last row, Warn where Key is 1 and Bars is 0.
  const p = plan('Clear, bars, Key = Warn, drive', '01000100', '00000001');
  const circuit = besideOf(p);
  expect(differing(p, circuit)).toEqual([]);
  expect(circuit.letter(0, 1)).toBe('1');
  expect(circuit.letter(1, 7)).toBe('1');
  // Row 1 here, Key alone, is row 4 of the circuit, and counts where that was tried.
  expect(circuit.rowOf(1)).toBe(4);
  const wrong = withLetters(p, 0, new Map([[1, '0']]));
  expect(differing(wrong, besideOf(wrong, new Map([[4, '01']])), true)).toEqual([1]);
  expect(differing(wrong, besideOf(wrong, new Map([[1, '00']])), true)).toEqual([]);
});

test('a wrong cell is found; open and either cells differ from nothing', () => {
  const p = plan('Key, Bars, Clear = Drive', '0x.00011');
  const circuit = besideOf(p);
  expect(differing(p, circuit)).toEqual([6]);
  // Where only rows that were tried count, the others are left out.
  expect(
    differing(
      p,
      besideOf(
        p,
        new Map([
          [0, '00'],
          [7, '10'],
        ]),
      ),
      true,
    ),
  ).toEqual([]);
  expect(differing(p, besideOf(p, new Map([[6, '00']])), true)).toEqual([6]);
  expect([differs('x', '1'), differs('.', '0'), differs('1', 'X'), differs('1', null)]).toEqual([
    false,
    false,
    true,
    false,
  ]);
});

test('an output that the circuit does not have is not compared', () => {
  const p = plan('Key, Bars, Clear = Drive, Bell', '00000001', '11111111');
  const circuit = besideOf(p);
  expect(circuit.isWhole).toBe(false);
  expect(circuit.letter(1, 0)).toBeNull();
  expect(differing(p, circuit)).toEqual([]);
});

test('what was seen is written down, and told from what the circuit does', () => {
  const p = plan('Key, Bars, Clear = Drive, Warn', '00000001', '00001100');
  // Seen while the signal was still under way: Drive 0 in the last row.
  const circuit = besideOf(
    p,
    new Map([
      [7, '00'],
      [4, '01'],
    ]),
  );
  expect([circuit.seen(0, 7), circuit.letter(0, 7), circuit.seen(0, 3)]).toEqual(['0', '1', null]);
  expect(differing(p, circuit)).toEqual([7]);
});
