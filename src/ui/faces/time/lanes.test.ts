import { NO_TIME_SETUP } from '@/core/circuit/time-setup';
import { compile } from '@/core/netlist/compile';
import { interlock, Sketch } from '@/core/testing/sketch';
import { apart, grouped, kept, lanesOf, moved, nameOfGroup, without, withSignals } from './lanes';

const netlist = compile(interlock().sheet);
const names = (lanes: readonly { name: string }[]) => lanes.map((l) => l.name);

/** Lamps Q0 to Q2 on one switch each. */
function counter() {
  const s = new Sketch();
  for (const i of [0, 1, 2]) {
    s.place('switch', 0, 6 * i, `S${i}`);
    s.place('lamp', 10, 6 * i, `Q${i}`);
    s.wire(`switch${i + 1}.Y`, `lamp${i + 1}.A`);
  }
  return compile(s.sheet);
}

test('inputs come first; what was arranged stays, and what is new follows it', () => {
  const lanes = lanesOf(netlist, undefined, 'unsigned');
  expect(names(lanes)).toEqual(['Key', 'Bars', 'Clear', 'Drive', 'Warn']);
  const order = kept(moved(lanes, lanes[4]!.key, 0).slice(0, 2), 'unsigned');
  expect(names(lanesOf(netlist, { ...NO_TIME_SETUP, lanes: order }, 'unsigned'))).toEqual([
    'Warn',
    'Key',
    'Bars',
    'Clear',
    'Drive',
  ]);
  const hidden = { ...NO_TIME_SETUP, lanes: order, hidden: ['lamp1', 'switch2'] };
  expect(names(lanesOf(netlist, hidden, 'unsigned'))).toEqual(['Warn', 'Key', 'Clear']);
  // A part that is gone takes its lane along; a caption stays.
  const gone = {
    ...NO_TIME_SETUP,
    lanes: [
      { of: ['gone'], name: '' },
      { of: [], name: 'Inputs' },
    ],
  };
  expect(names(lanesOf(netlist, gone, 'unsigned'))[0]).toBe('Inputs');
});

test('lanes become one number by the numbers behind their names, and come apart again', () => {
  const circuit = counter();
  const lanes = lanesOf(circuit, undefined, 'hexadecimal');
  const outputs = new Set(lanes.filter((l) => !l.isInput).map((l) => l.key));
  const one = grouped(lanes, outputs);
  expect(names(one)).toEqual(['S0', 'S1', 'S2', 'Q']);
  const number = one[3]!;
  expect(number.of).toEqual(['lamp3', 'lamp2', 'lamp1']);
  expect(number.nets).toEqual(circuit.outputs.map((t) => t.nets[0]));
  expect(number.radix).toBe('unsigned');
  expect(names(apart(one, number.key, [...circuit.inputs, ...circuit.outputs]))).toEqual([
    'S0',
    'S1',
    'S2',
    'Q2',
    'Q1',
    'Q0',
  ]);
  const again = lanesOf(circuit, { ...NO_TIME_SETUP, lanes: kept(one, 'hexadecimal') }, 'hexadecimal');
  expect(again).toEqual(one);
  expect([nameOfGroup(['Q[1]', 'Q[0]']), nameOfGroup(['A', 'B']), nameOfGroup(['Sum 3', 'Sum 12'])]).toEqual([
    'Q',
    'Number',
    'Sum',
  ]);
});

test('a signal within the sheet has a lane where it was asked for; taken away it is not kept as hidden', () => {
  const inner = [{ part: 'dff1', name: 'Bell_0', nets: [2] }];
  const lanes = lanesOf(netlist, undefined, 'unsigned', inner);
  expect(names(lanes)).not.toContain('Bell0');
  const more = withSignals(lanes, inner, 'unsigned');
  const plan = { ...NO_TIME_SETUP, lanes: kept(more, 'unsigned') };
  expect(lanesOf(netlist, plan, 'unsigned', inner)).toEqual(more);
  expect(more.at(-1)).toMatchObject({ name: 'Bell0', marked: 'Bell_0', nets: [2], isInput: false });
  // Where it is gone from the sheet, so is its lane.
  expect(lanesOf(netlist, plan, 'unsigned')).toEqual(lanes);
  const left = without(more, new Set(['dff1', 'lamp1']), netlist, ['switch2']);
  expect(names(left.lanes)).toEqual(['Key', 'Bars', 'Clear', 'Warn']);
  expect(left.hidden).toEqual(['switch2', 'lamp1']);
});
