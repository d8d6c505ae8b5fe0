import { findKind, PLACEABLE } from '../../parts/catalogue';
import { defaultParams } from '../../parts/params';
import { alone, ownTable } from './own-table';

const tableOf = (kind: string, params = {}) => {
  const entry = findKind(kind)!;
  return ownTable(alone(entry, { ...defaultParams(entry), ...params })!)!;
};

test('a gate by itself has its truth table', () => {
  const { inputs, outputs, rows, states } = tableOf('nand');
  expect([inputs, outputs, states]).toEqual([['A', 'B'], ['Y'], 0]);
  expect(rows.map((r) => r.join(''))).toEqual(['001', '011', '101', '110']);
});

test('a flip-flop by itself has its characteristic table, the clock left out', () => {
  const { inputs, outputs, rows, states } = tableOf('tff');
  expect(states).toBe(1);
  expect(inputs).toHaveLength(2);
  expect(outputs[0]).toMatch(/\+$/);
  // State and T: it stays, it turns, it stays, it turns.
  expect(rows.map((r) => r[2])).toEqual(['0', '1', '1', '0']);
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
