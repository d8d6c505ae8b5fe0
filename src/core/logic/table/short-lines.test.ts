import { dice } from '../../testing/dice';
import { shortLines } from './short-lines';

const said = (count: number, resultOf: (row: number) => string) =>
  shortLines(count, resultOf).map(({ inputs, result }) => `${inputs.join('')} ${result}`);

test('inputs that do not matter are left open', () => {
  expect(said(2, (row) => (row === 3 ? '1' : '0'))).toEqual(['0× 0', '10 0', '11 1']);
  // A selector: the last input chooses one of the others.
  expect(said(3, (row) => String((row & 1 ? row >> 1 : row >> 2) & 1))).toEqual([
    '0×0 0',
    '1×0 1',
    '×01 0',
    '×11 1',
  ]);
  expect(said(1, () => '1')).toEqual(['× 1']);
  expect(said(0, () => 'X')).toEqual([' X']);
  expect(said(8, (row) => (row === 0 ? '0' : '1'))).toHaveLength(9);
});

test('the lines of random tables cover each row once, with its result', () => {
  const roll = dice(5);
  for (let n = 0; n < 60; n++) {
    const count = 1 + Math.floor(roll() * 6);
    const rows = Array.from({ length: 2 ** count }, () => (roll() < 0.7 ? '0' : roll() < 0.9 ? '1' : 'X'));
    const lines = shortLines(count, (row) => rows[row]!);
    for (const [row, result] of rows.entries()) {
      const bits = row.toString(2).padStart(count, '0');
      const fitting = lines.filter((l) => l.inputs.every((c, i) => c === '×' || c === bits[i]));
      expect(fitting.map((l) => l.result)).toEqual([result]);
    }
  }
});
