import fc from 'fast-check';
import { tableLines } from '@/core/logic/table/table-text';
import { truthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';
import { randomDesign } from '@/core/testing/random-design';
import { interlock, Sketch } from '@/core/testing/sketch';
import { letterOf } from '@/core/values/logic';
import { matchingRows, placeOf, shownColumns, textAt, valueAt } from './columns';

/** Two children's queues of two bits each, one of them shown turned over. */
function turned() {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Left', { width: 2 });
  s.place('not', 10, 0, '', { width: 2 });
  s.place('lamp', 20, 0, 'Over', { width: 2 });
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  return compile(s.sheet, s.lesson.sheets);
}

test('a bus is a column a bit, or one number in the radix that is asked for', () => {
  const netlist = turned();
  const table = truthTable(netlist);
  expect(shownColumns(netlist, false).map((c) => c.name)).toEqual([
    'Left[1]',
    'Left[0]',
    'Over[1]',
    'Over[0]',
  ]);
  const [left, over] = shownColumns(netlist, true);
  expect([left!.name, left!.isOutput, over!.name, over!.isOutput]).toEqual(['Left', false, 'Over', true]);
  expect([0, 1, 2, 3].map((row) => textAt(table, over!, row, 'unsigned'))).toEqual(['3', '2', '1', '0']);
  expect([0, 1, 2, 3].map((row) => textAt(table, left!, row, 'signed'))).toEqual(['0', '1', '-2', '-1']);
});

test('rows are those in which a column has a value, or two differ, and are copied so', () => {
  const s = interlock();
  const table = truthTable(compile(s.sheet));
  // Key, Bars, Clear, Drive, Warn
  expect([...matchingRows(table, { is: 'value', column: 4, letter: '1' })]).toEqual([4, 5]);
  expect([...matchingRows(table, { is: 'value', column: 3, letter: 'X' })]).toEqual([]);
  const differ = matchingRows(table, { is: 'differ', column: 0, other: 4 });
  expect([...differ]).toEqual([6, 7]);
  expect([...tableLines(table, 'tsv', differ)]).toEqual([
    'Key\tBars\tClear\tDrive\tWarn',
    '1\t1\t0\t0\t0',
    '1\t1\t1\t1\t0',
  ]);
});

test('the place of a row among others is where it stands, or would stand', () => {
  const rows = Uint32Array.of(2, 5, 6, 20);
  expect([0, 2, 3, 5, 6, 7, 20, 21].map((row) => placeOf(rows, row))).toEqual([0, 0, 1, 1, 2, 3, 3, 4]);
  expect(placeOf(new Uint32Array(), 3)).toBe(0);
});

test('rows that are wanted are those that one finds row by row, unknown values too', () => {
  const options = { storage: false, loops: false, blocks: false };
  fc.assert(
    fc.property(randomDesign(options), fc.nat(), fc.nat(), (lesson, first, second) => {
      const table = truthTable(compile(lesson.sheets[0]!, lesson.sheets));
      const columns = table.inputs.length + table.outputs.length;
      const [column, other] = [first % columns, second % columns];
      const rows = Array.from({ length: table.rows }, (_, row) => row);
      for (const letter of ['0', '1', 'X', 'Z'] as const)
        expect([...matchingRows(table, { is: 'value', column, letter })]).toEqual(
          rows.filter((row) => letterOf(valueAt(table, column, row)) === letter),
        );
      expect([...matchingRows(table, { is: 'differ', column, other })]).toEqual(
        rows.filter((row) => valueAt(table, column, row) !== valueAt(table, other, row)),
      );
    }),
  );
});
