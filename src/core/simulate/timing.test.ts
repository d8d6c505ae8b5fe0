import { readVerilog } from '../formats/verilog/read';
import { compile } from '../netlist/compile';
import { partOf, Rig, sheetOfParts } from '../testing/rig';
import { glitchesOf } from '../timing/measure';
import { timingOf } from '../timing/paths';
import { type Logic, ONE, ZERO } from '../values/logic';
import { wordText } from '../values/radix';
import { Run } from './run';

const NS = 1000;
const port = (id: string, direction: 'in' | 'out', width = 1, rank = 0) =>
  partOf('port', id, { direction, width }, rank);

describe('a ripple counter that is cut short by decoding ten', () => {
  const sheet = sheetOfParts(
    [
      partOf('clock', 'clk', { hertz: 1e6 }),
      partOf('constant', 'one'),
      ...[0, 1, 2, 3].map((i) => partOf('tff', `t${i}`, { edge: 'falling', clear: 'low' })),
      partOf('nand', 'ten'),
      partOf('join', 'j', { widths: [1, 1, 1, 1] }),
      port('Count', 'out', 4),
    ],
    [
      'clk.Y-t0.C',
      ...[0, 1, 2].map((i) => `t${i}.Q-t${i + 1}.C`),
      ...[0, 1, 2, 3].flatMap((i) => [`one.Y-t${i}.T`, `ten.Y-t${i}.CLR`, `t${i}.Q-j.I${i}`]),
      't1.Q-ten.A',
      't3.Q-ten.B',
      'j.Y-Count.A',
    ],
  );
  const netlist = compile(sheet);
  const run = new Run(netlist, { delays: 'parts' });
  run.advance(12e6);
  const { nets } = netlist.outputs[0]!;
  const states: { from: number; state: string }[] = [];
  for (const { time } of run.trace.changes(0, 12e6)) {
    const all = run.trace.stateAt(time);
    const state = wordText(
      nets.map((n) => all[n] as Logic),
      'unsigned',
    );
    if (states.at(-1)?.state !== state) states.push({ from: time, state });
  }

  test('shows the eleventh state, as long as the delays that end it', () => {
    const at = states.findIndex((s) => s.state === '10');
    expect(at).toBeGreaterThan(0);
    // The NAND sees ten after 8 ns, and the flip-flops are clear 15 ns after that.
    expect(states[at + 1]!.from - states[at]!.from).toBe((8 + 15) * NS);
    expect(states[at + 1]!.state).toBe('0');
  });

  test('counts short pulses, the one that clears among them', () => {
    const clear = netlist.netsOfPin('ten', 'Y')![0]!;
    expect(glitchesOf(run.trace, [clear], 50 * NS)).toHaveLength(1);
    expect(glitchesOf(run.trace, [clear], 20 * NS)).toEqual([]);
  });

  test('a value at any time is looked up, not simulated', () => {
    for (const { from, state } of states.slice(0, 20))
      expect(
        wordText(
          nets.map((n) => run.trace.valueAt(n, from)),
          'unsigned',
        ),
      ).toBe(state);
  });
});

describe('registers around a ripple adder of sixteen bits', () => {
  const stages = Array.from(
    { length: 16 },
    (_, i) => `full f${i}(a[${i}], b[${i}], c[${i}], s[${i}], c[${i + 1}]);`,
  );
  const read = readVerilog(
    `\`timescale 1ns/1ps
     module full(input a, b, ci, output s, co);
       wire h, g, p;
       xor #14 (h, a, b); xor #14 (s, h, ci); and #10 (g, a, b); and #10 (p, h, ci); or #10 (co, g, p);
     endmodule
     module ripple(input [15:0] a, b, output [16:0] sum);
       wire [16:0] c; wire [15:0] s;
       assign c[0] = 1'b1;
       ${stages.join('\n')}
       assign sum = {c[16], s};
     endmodule`,
    'Adder',
    { module: 'ripple' },
  );
  if (!read.ok) throw new Error(read.problem.message);
  const { sheets } = read.value;
  const sheet = sheetOfParts(
    [
      partOf('switch', 'clk', {}, 0, 'clk'),
      partOf('switch', 'a', { width: 16 }, 1, 'a'),
      partOf('switch', 'b', { width: 16 }, 2, 'b'),
      partOf('register', 'ra', { width: 16 }),
      partOf('register', 'rb', { width: 16 }),
      partOf('register', 'rs', { width: 17 }),
      partOf('block', 'add', { sheet: sheets[0]!.id, inputs: 'a[15:0], b[15:0]', outputs: 'sum[16:0]' }),
      partOf('number', 'out', { width: 17 }, 3, 'sum'),
    ],
    [
      'clk.Y-ra.C',
      'clk.Y-rb.C',
      'clk.Y-rs.C',
      'a.Y-ra.D',
      'b.Y-rb.D',
      'ra.Q-add.a',
      'rb.Q-add.b',
      'add.sum-rs.D',
      'rs.Q-out.A',
    ],
  );
  const netlist = compile(sheet, sheets);
  const shortest = timingOf(netlist).shortestClockPs!;

  /** 0xffff + 0 + 1 after 0 + 0 + 1: the carry runs all the way. */
  function sumAt(period: number) {
    const run = new Run(netlist, { delays: 'parts' });
    const nets = (name: string) => netlist.inputs.find((t) => t.name === name)!.nets;
    const put = (a: number, b: number) =>
      run.set([
        ...nets('a').map((n, i) => [n, ((a >> i) & 1) as Logic] as const),
        ...nets('b').map((n, i) => [n, ((b >> i) & 1) as Logic] as const),
      ]);
    const clk = nets('clk')[0]!;
    put(0xffff, 0);
    run.advance(1e6);
    for (const at of [1e6, 1e6 + period]) {
      run.advance(at);
      run.set([[clk, ONE]]);
      run.advance(at + 20_000);
      run.set([[clk, ZERO]]);
    }
    run.advance(run.time + 1e6);
    const sum = wordText(
      netlist.outputs[0]!.nets.map((n) => run.values[n] as Logic),
      'unsigned',
    );
    return { sum: Number(sum), violations: run.violations };
  }

  test('the shortest period is the sum along the carry, with clock-to-output and setup', () => {
    // 15 out of the register, the first half sum 14, fifteen carries of 20 each and the last sum 14, setup 8.
    expect(shortest).toBe((15 + 14 + 15 * 20 + Math.max(14, 20) + 8) * NS);
  });

  test('at that period the sum is right and nothing is violated', () => {
    expect(sumAt(shortest)).toEqual({ sum: 0x10000, violations: [] });
  });

  test('just below it the last bit is missed, and the violation is recorded with its margin', () => {
    const { sum, violations } = sumAt(shortest - 1);
    expect(sum).not.toBe(0x10000);
    expect(violations).toHaveLength(1);
    expect(violations[0]).toMatchObject({ kind: 'setup', short: 1, time: 1e6 + shortest - 1 });
    expect(netlist.partName(netlist.owner[netlist.storage[violations[0]!.store]!]!)).toBe('rs');
  });

  test('far below it the old sum is taken', () => {
    expect(sumAt(40_000).sum).not.toBe(0x10000);
  });
});

test('data that change within the hold time are taken, and noted', () => {
  const rig = Rig.of('dff', {}, { delays: 'parts' });
  rig.run.advance(1e6);
  rig.set({ C: 1 });
  rig.run.advance(rig.run.time + 1500);
  rig.set({ D: 1 });
  rig.run.advance(rig.run.time + 1e6);
  expect(rig.word('Q')).toBe('1');
  expect(rig.run.violations).toMatchObject([{ kind: 'hold', short: 500 }]);
});

test.each(['nor', 'nand'])('a latch of two %s gates remembers, timed and settled', (kind) => {
  const idle = kind === 'nor' ? 0 : 1;
  const sheet = sheetOfParts(
    [
      port('A', 'in'),
      port('B', 'in', 1, 1),
      partOf(kind, 'g1'),
      partOf(kind, 'g2'),
      port('Q', 'out'),
      port('N', 'out', 1, 1),
    ],
    ['A.Y-g1.A', 'B.Y-g2.A', 'g1.Y-g2.B', 'g2.Y-g1.B', 'g1.Y-Q.A', 'g2.Y-N.A'],
  );
  for (const delays of ['zero', 'unit', 'parts'] as const) {
    const rig = new Rig(sheet, { delays });
    const settle = () => rig.run.advance(rig.run.time + 1e6);
    // Not at the same instant, which no latch decides.
    rig.set({ A: idle }).set({ B: idle });
    for (const [input, q] of [
      ['A', kind === 'nor' ? '0' : '1'],
      ['B', kind === 'nor' ? '1' : '0'],
      ['A', kind === 'nor' ? '0' : '1'],
    ] as const) {
      rig.set({ [input]: 1 - idle });
      settle();
      rig.set({ [input]: idle });
      settle();
      expect([rig.word('Q'), rig.word('N')]).toEqual([q, q === '0' ? '1' : '0']);
    }
    expect(rig.run.unsettled.size).toBe(0);
  }
});

test('a ring of three inverters swings in timed runs and is named in settled ones', () => {
  const sheet = sheetOfParts(
    [partOf('not', 'n1'), partOf('not', 'n2'), partOf('not', 'n3'), port('Q', 'out')],
    ['n1.Y-n2.A', 'n2.Y-n3.A', 'n3.Y-n1.A', 'n3.Y-Q.A'],
  );
  const timed = new Rig(sheet, { delays: 'parts' });
  timed.run.advance(1e6);
  const [changes] = timed.run.trace.window([timed.netlist.outputs[0]!.nets[0]!], 0, 1e6);
  const widths = changes!.slice(2).map((c, i) => c.time - changes![i + 1]!.time);
  expect(new Set(widths)).toEqual(new Set([3 * 6 * NS]));
  const settled = new Rig(sheet);
  expect(settled.run.unsettled.size).toBe(3);
  expect(settled.word('Q')).toBe('X');
});

test('a run is saved and goes on elsewhere as it would have', () => {
  const sheet = sheetOfParts(
    [
      partOf('clock', 'c', { hertz: 1e7 }),
      partOf('counter', 'n', { width: 4, modulo: 11 }),
      partOf('rom', 'r', { address: 4, width: 4, content: [7, 1, 12, 3] }),
      port('Q', 'out', 4),
    ],
    ['c.Y-n.C', 'n.Q-r.A', 'r.Q-Q.A'],
  );
  const netlist = compile(sheet);
  const whole = new Run(netlist, { delays: 'parts' });
  whole.advance(5e6);
  const first = new Run(netlist, { delays: 'parts' });
  for (const stop of [310_000, 333_333, 2_000_001]) {
    first.advance(stop);
    const second = new Run(netlist, { delays: 'parts' }, structuredClone(first.save()));
    second.advance(5e6);
    expect(second.values).toEqual(whole.values);
    expect(second.events).toBe(whole.events);
  }
});

test('delays that share no divisor are kept to the picosecond', () => {
  const sheet = sheetOfParts(
    [
      port('A', 'in'),
      partOf('buffer', 'slow', { delayRise: 999_999_937, delayFall: 999_999_937 }),
      partOf('buffer', 'quick', { delayRise: 7, delayFall: 11 }),
      partOf('not', 'now', { delayRise: 0, delayFall: 0 }),
      port('S', 'out'),
      port('Q', 'out', 1, 1),
      port('N', 'out', 1, 2),
    ],
    ['A.Y-slow.A', 'A.Y-quick.A', 'A.Y-now.A', 'slow.Y-S.A', 'quick.Y-Q.A', 'now.Y-N.A'],
  );
  const rig = new Rig(sheet, { delays: 'parts' });
  rig.set({ A: 1 });
  const seen = (at: number) => {
    rig.run.advance(at);
    return rig.word('S') + rig.word('Q') + rig.word('N');
  };
  expect([seen(0), seen(6), seen(7), seen(999_999_936), seen(999_999_937)]).toEqual([
    '000',
    '000',
    '010',
    '010',
    '110',
  ]);
});

test('a long run stays within its memory and says from when on it knows', () => {
  const sheet = sheetOfParts(
    [partOf('not', 'n1'), partOf('not', 'n2'), partOf('not', 'n3')],
    ['n1.Y-n2.A', 'n2.Y-n3.A', 'n3.Y-n1.A'],
  );
  const run = new Run(compile(sheet), { delays: 'parts', mostChanges: 200_000 });
  run.advance(6000 * 500_000);
  expect(run.events).toBeGreaterThanOrEqual(500_000);
  expect(run.trace.trimmed).toBe(true);
  expect(run.trace.length).toBeLessThanOrEqual(200_000);
  expect(run.trace.begins).toBeGreaterThan(0);
});
