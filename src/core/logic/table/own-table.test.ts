import { findKind, PLACEABLE } from '../../parts/catalogue';
import { defaultParams } from '../../parts/params';
import { alone, ownTable, rowOfOwn } from './own-table';

const tableOf = (kind: string, params = {}) => {
  const entry = findKind(kind)!;
  return ownTable(alone(entry, { ...defaultParams(entry), ...params })!)!;
};

test('a gate by itself has its truth table', () => {
  const { inputs, outputs, rows, states } = tableOf('nand');
  expect([inputs, outputs, states]).toEqual([['A', 'B'], ['Y'], 0]);
  expect(rows.map((r) => r.join(''))).toEqual(['001', '011', '101', '110']);
});

const linesOf = (kind: string, params = {}) => {
  const { rows, words } = tableOf(kind, params);
  return rows.map((row, i) => `${row.join(' ')} ${words[i]}`);
};

test('a flip-flop by itself has a line for each thing that it does, with the edge as an arrow', () => {
  expect(tableOf('jkff').inputs).toEqual(['C', 'J', 'K']);
  expect(linesOf('jkff')).toEqual(['↑ 0 0 Q hold', '↑ 0 1 0 reset', '↑ 1 0 1 set', '↑ 1 1 Q′ toggle']);
  expect(linesOf('tff', { edge: 'falling' })).toEqual(['↓ 0 Q hold', '↓ 1 Q′ toggle']);
  expect(linesOf('srff').at(-1)).toBe('↑ 1 1 X not allowed');
  expect(linesOf('dlatch')).toContain('× 0 Q hold');
});

test('presets and clears come first and need no clock; an enable leaves all else open', () => {
  const { inputs } = tableOf('dff', { clear: 'low', enable: 'yes' });
  const lines = linesOf('dff', { clear: 'low', enable: 'yes' });
  expect(inputs).toEqual(['C', 'D', 'EN', 'CLR']);
  expect(lines).toEqual(['× × × 0 0 reset', '↑ × 0 1 Q hold', '↑ 0 1 1 0 reset', '↑ 1 1 1 1 set']);
});

test('large tables of gates and selectors are told in few lines', () => {
  expect(tableOf('and', { inputs: 8 }).rows).toHaveLength(9);
  expect(tableOf('mux', { inputs: 4 }).rows.length).toBeLessThan(20);
});

test('the row of this moment is the one whose cells fit', () => {
  const table = tableOf('jkff');
  const at = (...values: (0 | 1 | 2)[]) => rowOfOwn(table, (i) => values[i]!);
  expect([at(0, 1, 0), at(1, 1, 1), at(0, 0, 2)]).toEqual([2, 3, -1]);
});

test('every part either has a table that is no longer than one can read, or none', () => {
  for (const kind of PLACEABLE) {
    const own = alone(kind, defaultParams(kind));
    const table = own && ownTable(own);
    if (!table) continue;
    expect(table.rows.length).toBeLessThanOrEqual(64);
    for (const row of table.rows) expect(row).toHaveLength(table.inputs.length + table.outputs.length);
  }
});

test('what only shows or only drives has no table of its own', () => {
  for (const kind of ['lamp', 'switch', 'clock', 'note', 'label'])
    expect(alone(findKind(kind)!, defaultParams(findKind(kind)!))).toBeNull();
});
