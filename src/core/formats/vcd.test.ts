import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { partOf, sheetOfParts } from '../testing/rig';
import { codeOf, netsIn, readVcd, signalsOf, writeVcd } from './vcd';

const port = (id: string, direction: 'in' | 'out', width = 1, rank = 0) =>
  partOf('port', id, { direction, width }, rank);
const inner = sheetOfParts(
  [port('A', 'in'), partOf('not', 'n'), port('Y', 'out')],
  ['A.Y-n.A', 'n.Y-Y.A'],
  'inner',
);
const sheet = sheetOfParts(
  [
    partOf('clock', 'c', { hertz: 5e7 }, 0, 'Clock'),
    partOf('counter', 'n', { width: 3, modulo: 5 }, 0, ''),
    partOf('block', 'b', { sheet: 'inner', title: 'inner', inputs: 'A', outputs: 'Y' }),
    partOf('number', 'd', { width: 3 }, 1, 'Car number'),
    port('N', 'out', 1, 2),
  ],
  ['c.Y-n.C', 'n.Q-d.A', 'c.Y-b.A', 'b.Y-N.A'],
  'Ring',
);
const netlist = compile(sheet, [inner]);
const run = new Run(netlist, { delays: 'parts' });
run.advance(200_000);
const text = [...writeVcd(run.trace, signalsOf(netlist, sheet, [inner]), 200_000)].join('\n');

test('a dump has scopes for blocks, vectors for buses, and times in ps', () => {
  expect(text).toMatch(/^\$version Manege \$end\n\$timescale 1 ps \$end\n\$scope module Ring \$end/);
  expect(text).toMatch(/\$var wire 3 \S+ Car_number \[2:0\] \$end/);
  expect(text).toMatch(/\$scope module b \$end\n\$var wire 1 ! A \$end[\s\S]*\$upscope \$end/);
  expect(text.match(/\$scope/g)).toHaveLength(text.match(/\$upscope/g)!.length);
  expect(text).toMatch(/#0\n\$dumpvars\n/);
  expect(text).toMatch(/#200000(\n[01b].*)*$/);
});

test('what is read back is what the trace knows, change by change', () => {
  const read = readVcd(text);
  if (!read.ok) throw new Error(read.problem.message);
  const count = read.value.find((s) => s.path === 'Ring.Car_number')!;
  for (let time = 0; time <= 200_000; time += 500) {
    const state = run.trace.stateAt(time);
    const bits = count.changes.findLast((c) => c.time <= time)!.bits;
    expect(bits).toEqual(netlist.outputs.find((o) => o.name === 'Car number')!.nets.map((n) => state[n]));
  }
  expect(read.value.find((s) => s.path === 'Ring.b.Y')!.changes.length).toBeGreaterThan(10);
});

test('codes are printable, short and different', () => {
  const codes = Array.from({ length: 10_000 }, (_, i) => codeOf(i));
  expect(new Set(codes).size).toBe(10_000);
  expect(codes.every((c) => /^[!-~]{1,3}$/.test(c))).toBe(true);
});

test.each([
  ['no definitions', '$date today $end', /\$enddefinitions is missing/],
  ['an open section', '$var wire 1 ! a', /\$var is not closed by \$end/],
  [
    'an unknown code',
    '$var wire 1 ! a $end $enddefinitions $end #0 1"',
    /line 1: the code " was not declared/,
  ],
  [
    'times that run back',
    '$var wire 1 ! a $end\n$enddefinitions $end\n#5\n1!\n#4\n',
    /line 5: the time #4 is before/,
  ],
  ['too many bits', '$var wire 2 ! a $end $enddefinitions $end #0 b101 !', /3 bits are too many/],
  ['a strange unit', '$timescale 3 days $end', /a timescale such as 1 ns is expected/],
  ['a change before the definitions', '#0 1!', /stands before \$enddefinitions/],
])('%s is refused', (_, file, problem) => {
  const read = readVcd(file);
  expect(read.ok ? '' : read.problem.message).toMatch(problem);
});

test('short words are filled up as the standard says', () => {
  const read = readVcd(
    '$timescale 1ns $end $var wire 4 % w $end $enddefinitions $end #1 b1 % #2 bx1 % #3 bz %',
  );
  if (!read.ok) throw new Error(read.problem.message);
  expect(read.value[0]!.changes).toEqual([
    { time: 1000, bits: [1, 0, 0, 0] },
    { time: 2000, bits: [1, 2, 2, 2] },
    { time: 3000, bits: [3, 3, 3, 3] },
  ]);
});

test('nets are found in a dump by scopes and name, or by a name that only one signal has', () => {
  const signals = [
    { scope: ['Top'], name: 'Key', nets: [4] },
    { scope: ['Top'], name: 'Total', nets: [7, 8] },
    { scope: ['Top'], name: 'Bell', nets: [9] },
    { scope: ['Top'], name: 'Lamp', nets: [10] },
  ];
  const dump = (...names: readonly (readonly [path: string, width: number])[]) =>
    names.map(([path, width]) => ({
      path,
      name: path.split('.').at(-1)!,
      width,
      changes: [{ time: 0, bits: Array(width).fill(1) }],
    }));
  const read = dump(
    ['Top.key', 1],
    ['Bench.dut.Total', 2],
    ['Bench.a.Bell', 1],
    ['Bench.b.Bell', 1],
    ['Top.Lamp', 3],
  );
  const found = netsIn(signals, read);
  expect([...found.keys()]).toEqual([4, 7, 8]);
  expect(found.get(4)!.course).toBe(read[0]);
  expect([found.get(7), found.get(8)]).toEqual([
    { course: read[1], bit: 0 },
    { course: read[1], bit: 1 },
  ]);
});
