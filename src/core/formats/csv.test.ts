import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { partOf, sheetOfParts } from '../testing/rig';
import { inputNets, readCsv, readStimulus, sampleHeading, sampleLine } from './csv';

const sheet = sheetOfParts(
  [
    partOf('switch', 'a', { width: 4 }, 0, 'Car number'),
    partOf('switch', 'b', {}, 1, 'Bars, shut'),
    partOf('number', 'n', { width: 4 }, 2, 'Shown'),
  ],
  ['a.Y-n.A'],
);
const netlist = compile(sheet);

test('fields are quoted as RFC 4180 has it', () => {
  expect(readCsv('\uFEFFa,"b, c","d ""e"""\r\n1,"2\n3",\r\n\r\n')).toEqual({
    ok: true,
    value: { heads: ['a', 'b, c', 'd "e"'], rows: [['1', '2\n3', '']] },
  });
});

test.each([
  ['nothing', '', /it is empty/],
  ['an open quote', 'a,b\n1,"2\n', /quoted field/],
  ['a short row', 'a,b\n1\n', /row 2 has 1 fields, and the heading has 2/],
])('%s is refused', (_, text, problem) => {
  const read = readCsv(text);
  expect(read.ok ? '' : read.problem.message).toMatch(problem);
});

test('a stimulus drives buses and single bits, and a blank leaves an input as it was', () => {
  const read = readStimulus('Time,Car number,"Bars, shut"\n0,0b1010,0\n2.5,,1\n3,-1,x\n', netlist);
  if (!read.ok) throw new Error(read.problem.message);
  expect(read.value.map((r) => [r.time, r.changes.length])).toEqual([
    [0, 5],
    [2500, 1],
    [3000, 5],
  ]);
  const run = new Run(netlist, { delays: 'zero' });
  const lines = read.value.map((row) => {
    run.set(row.changes);
    return sampleLine(run, row.time);
  });
  expect([sampleHeading(netlist), ...lines]).toEqual([
    'time,Car number[3],Car number[2],Car number[1],Car number[0],"Bars, shut",Shown[3],Shown[2],Shown[1],Shown[0]',
    '0,1,0,1,0,0,1,0,1,0',
    '2.5,1,0,1,0,1,1,0,1,0',
    '3,1,1,1,1,X,1,1,1,1',
  ]);
});

test('one bit of a bus is an input of its own', () => {
  expect(inputNets(netlist, 'Car number')).toHaveLength(4);
  expect(inputNets(netlist, 'Car number[2]')).toEqual([netlist.inputs[0]!.nets[2]]);
  expect(inputNets(netlist, 'Car number[4]')).toBeNull();
});

test.each([
  ['no time', 'Car number\n1\n', /no column “time”/],
  [
    'an unknown input',
    'time,Gate\n0,1\n',
    /“Gate” is not an input of the circuit; its inputs are Car number, Bars, shut/,
  ],
  ['a column twice', 'time,Car number,Car number\n0,1,1\n', /is there twice/],
  ['no number for a time', 'time,Car number\nsoon,1\n', /row 2: “soon” is not a time/],
  ['a blank time', 'time,Car number\n ,1\n', /row 2: “” is not a time/],
  [
    'a value too large',
    'time,Car number\n0,16\n',
    /row 2, column “Car number”: “16” is not a value of 4 bits/,
  ],
])('%s is refused with its place', (_, text, problem) => {
  const read = readStimulus(text, netlist);
  expect(read.ok ? '' : read.problem.message).toMatch(problem);
});
