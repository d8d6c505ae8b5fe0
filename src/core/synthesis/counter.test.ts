import fc from 'fast-check';
import { compile } from '../netlist/compile';
import { cycleFrom } from '../states/cycles';
import { machineOf, stateNumber } from '../states/machine';
import { sentence } from '../values/result';
import { COUNTER_KINDS, type CounterKind, counterOf, readCycle } from './counter';

const kinds = fc.constantFrom(...(Object.keys(COUNTER_KINDS) as CounterKind[]));
const cycles = fc
  .uniqueArray(fc.nat(7), { minLength: 2, maxLength: 7 })
  .filter((numbers) => Math.max(...numbers) > 0);

test('numbers are read one by one and as ranges, and what is wrong is said', () => {
  expect(readCycle('0-3, 7 5')).toEqual({ ok: true, value: [0, 1, 2, 3, 7, 5] });
  expect(readCycle('3-0')).toEqual({ ok: true, value: [3, 2, 1, 0] });
  const says = (text: string) => {
    const read = readCycle(text);
    return read.ok ? '' : sentence(read.problem);
  };
  expect(says('')).toMatch('Type the numbers');
  expect(says('0 1 two')).toMatch('“two” is no number');
  expect(says('0 1 0')).toMatch('0 stands twice');
  expect(says('4')).toMatch('at least two');
  expect(says('0 256')).toMatch('256 is too large');
});

test('the excitation of a JK counter of three', () => {
  const { table, expressions, inputs } = counterOf({ cycle: [0, 1, 2], kind: 'jkff', unused: 'either' });
  expect(inputs).toEqual(['J1', 'K1', 'J0', 'K0']);
  expect(table.map((r) => r.inputs.join(''))).toEqual(['0x1x', '1xx1', 'x10x', 'xxxx']);
  expect(expressions.map((e) => `${e.name} = ${e.text}`)).toEqual([
    'J1 = Q0',
    'K1 = 1',
    "J0 = Q1'",
    'K0 = 1',
  ]);
});

test('for any cycle and each kind of flip-flop the circuit goes through it, from its first number on', () => {
  fc.assert(
    fc.property(
      cycles,
      kinds,
      fc.constantFrom('either' as const, 'first' as const),
      (cycle, kind, unused) => {
        const { sheet, bits } = counterOf({ cycle, kind, unused });
        const netlist = compile(sheet);
        expect(netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
        const labels = [...netlist.storage].map(
          (g) => sheet.parts.get(netlist.partName(netlist.owner[g]!))!.label,
        );
        const made = machineOf(netlist, { all: true, labels });
        if (!made.ok) throw new Error(made.problem.message);
        const machine = made.value;
        const number = (s: number) => stateNumber(machine.states[s]!.code);
        expect(cycleFrom(machine, 0, 0).cycle.map(number)).toEqual(cycle);
        // Every other number is accounted for.
        expect(machine.states).toHaveLength(2 ** bits);
        if (unused === 'first')
          for (const s of machine.states.keys())
            if (!cycle.includes(number(s)!)) expect(number(machine.next[s]!)).toBe(cycle[0]);
      },
    ),
    { numRuns: 16 },
  );
});
