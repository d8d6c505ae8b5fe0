import { readVerilog } from '@/core/formats/verilog/read';
import { stateLabel } from '@/core/logic/table/state-table';
import { compile } from '@/core/netlist/compile';
import { counter } from '@/core/testing/verilog-circuits';
import { stateColumnCount, stateTableOf } from './state-table';

function circuit(bits: number) {
  const read = readVerilog(counter(bits, 'toggle'), 'Counter');
  if (!read.ok) throw new Error(read.problem.message);
  const sheet = read.value.sheets[0]!;
  return { sheet, netlist: compile(sheet, read.value.sheets) };
}

test('a small circuit has its table at once, the same one each time', () => {
  const { sheet, netlist } = circuit(3);
  expect(stateColumnCount(netlist)).toBe(4);
  const table = stateTableOf(netlist, sheet);
  expect(table?.ok && [table.value.rows, table.value.inputs.length, table.value.outputs.length]).toEqual([
    16, 4, 6,
  ]);
  expect(stateTableOf(netlist, sheet)).toBe(table);
});

test('a larger one waits until it is asked for, and one that is too large says so', () => {
  const ten = circuit(10);
  expect(stateTableOf(ten.netlist, ten.sheet)).toBeNull();
  const asked = stateTableOf(ten.netlist, ten.sheet, true);
  expect(asked?.ok && asked.value.rows).toBe(2 ** 11);
  // It is known now.
  expect(stateTableOf(ten.netlist, ten.sheet)).toBe(asked);
  const large = circuit(15);
  expect(stateTableOf(large.netlist, large.sheet, true)).toMatchObject({
    ok: false,
    problem: { message: '16 bits of state and inputs give too many rows to derive here' },
  });
});

test('a bit of state is called by its part’s label, with what stands behind the id', () => {
  const { sheet } = circuit(1);
  const part = [...sheet.parts.values()].find((p) => p.kind === 'dff')!;
  const named = { ...sheet, parts: new Map([[part.id, { ...part, label: 'Q_0' }]]) };
  expect(stateLabel(named, part.id)).toBe('Q_0');
  expect(stateLabel(named, `${part.id}[2]`)).toBe('Q_0[2]');
  expect(stateLabel(named, `${part.id}+`)).toBe('Q_0+');
  expect(stateLabel(named, 'elsewhere')).toBe('elsewhere');
});
