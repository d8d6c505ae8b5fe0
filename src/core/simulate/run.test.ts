import fc from 'fast-check';
import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { randomSheet } from '../testing/random-circuit';
import { interlock, Sketch } from '../testing/sketch';
import { type Logic, letterOf, ONE, X, ZERO } from '../values/logic';
import { Run } from './run';
import { clockAt } from './timed-sources';

const NS = 1000;

function source(n: Netlist, part: string): number {
  return n.sources.find((s) => s.part === part)!.net;
}
const out = (n: Netlist, run: Run, i = 0) => letterOf(run.values[n.outputs[i]!.nets[0]!] as Logic);

test('outputs follow the inputs at once without delays', () => {
  const n = compile(interlock().sheet);
  const run = new Run(n, { delays: 'zero' });
  run.set([[source(n, 'switch1'), ONE]]);
  expect([out(n, run, 0), out(n, run, 1)]).toEqual(['0', '1']);
  run.set([
    [source(n, 'switch2'), ONE],
    [source(n, 'switch3'), ONE],
  ]);
  expect([out(n, run, 0), out(n, run, 1)]).toEqual(['1', '0']);
  expect(run.time).toBe(0);
});

test('with the parts’ own delays the output comes later, by the sum along the path', () => {
  const n = compile(interlock().sheet);
  const run = new Run(n, { delays: 'parts' });
  run.set([[source(n, 'switch1'), ONE]]);
  run.advance(9 * NS);
  expect(out(n, run, 1)).toBe('0');
  run.advance(10 * NS);
  expect(out(n, run, 1)).toBe('1');
  // Bars closes: NOT takes 6 ns and AND 10 ns.
  run.set([[source(n, 'switch2'), ONE]]);
  run.advance(run.time + 16 * NS - 1);
  expect(out(n, run, 1)).toBe('1');
  run.advance(run.time + 1);
  expect(out(n, run, 1)).toBe('0');
});

function inverterChain(length: number): Sketch {
  const s = new Sketch();
  s.place('switch', 0, 0, 'In');
  for (let i = 1; i <= length; i++) {
    s.place('not', 8 * i, 0);
    s.wire(i === 1 ? 'switch1.Y' : `not${i - 1}.Y`, `not${i}.A`);
  }
  s.place('lamp', 8 * length + 10, 0);
  s.wire(`not${length}.Y`, 'lamp1.A');
  return s;
}

test('a pulse shorter than the delay is swallowed, one as long passes', () => {
  const n = compile(inverterChain(1).sheet);
  const lamp = n.outputs[0]!.nets[0]!;
  for (const [width, changes] of [
    [6 * NS - 1, 0],
    [6 * NS, 2],
  ] as const) {
    const run = new Run(n, { delays: 'parts' });
    run.set([[source(n, 'switch1'), ONE]]);
    run.advance(width);
    run.set([[source(n, 'switch1'), ZERO]]);
    run.advance(100 * NS);
    expect(run.trace.window([lamp], 0, 100 * NS)[0]!.length - 1).toBe(changes);
  }
});

test('the result does not depend on how a run is cut into slices', () => {
  const s = ring(4);
  const whole = new Run(compile(s.sheet), { delays: 'parts' });
  whole.advance(5e12);
  const sliced = new Run(compile(s.sheet), { delays: 'parts' });
  let slices = 0;
  while (!sliced.advance(5e12, 3)) slices++;
  expect(slices).toBeGreaterThan(3);
  expect(sliced.values).toEqual(whole.values);
  expect(sliced.time).toBe(whole.time);
  expect(sliced.trace.length).toBe(whole.trace.length);
});

/** A ring of flip-flops with one twist, on a clock of 1 Hz: all of them on one wire. */
function ring(stages: number): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 60);
  for (let i = 1; i <= stages; i++) s.place('dff', 20, 12 * i);
  for (let i = 1; i <= stages; i++) {
    s.wire('clock1.Y', `dff${i}.C`);
    s.wire(i === 1 ? `dff${stages}.Q'` : `dff${i - 1}.Q`, `dff${i}.D`);
    s.place('lamp', 40, 12 * i);
    s.wire(`dff${i}.Q`, `lamp${i}.A`);
  }
  return s;
}

test.each(['zero', 'unit', 'parts'] as const)(
  'flip-flops on one clock take their data together (%s delays)',
  (delays) => {
    const n = compile(ring(3).sheet);
    const run = new Run(n, { delays });
    const seen: string[] = [];
    for (let cycle = 0; cycle < 7; cycle++) {
      run.advance((cycle + 1) * 1e12 - 1);
      seen.push(n.outputs.map((_, i) => out(n, run, i)).join(''));
    }
    expect(seen).toEqual(['100', '110', '111', '011', '001', '000', '100']);
  },
);

test('a gated clock without delays moves its flip-flop together with the ungated one', () => {
  const s = new Sketch();
  s.place('clock', 0, 0);
  s.place('constant', 0, 10);
  s.place('and', 10, 5);
  s.place('dff', 30, 0);
  s.place('dff', 30, 12);
  s.place('lamp', 50, 12);
  s.wire('clock1.Y', 'dff1.C');
  s.wire('clock1.Y', 'and1.A');
  s.wire('constant1.Y', 'and1.B');
  s.wire('and1.Y', 'dff2.C');
  s.wire("dff1.Q'", 'dff1.D');
  s.wire('dff1.Q', 'dff2.D');
  s.wire('dff2.Q', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero' });
  run.advance(0.6e12);
  expect(out(n, run)).toBe('0');
  run.advance(1.6e12);
  expect(out(n, run)).toBe('1');
});

test('a flip-flop keeps what it holds where the edge is not its own, and is unknown where the edge is', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'D');
  s.place('switch', 0, 10, 'C');
  s.place('dff', 20, 0, '', { edge: 'falling' });
  s.place('lamp', 40, 0);
  s.wire('switch1.Y', 'dff1.D');
  s.wire('switch2.Y', 'dff1.C');
  s.wire('dff1.Q', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero' });
  const [d, c] = [source(n, 'switch1'), source(n, 'switch2')];
  run.set([[d, ONE]]);
  run.set([[c, ONE]]);
  expect(out(n, run)).toBe('0');
  run.set([[c, ZERO]]);
  expect(out(n, run)).toBe('1');
  run.set([[d, ZERO]]);
  run.set([[c, X]]);
  run.set([[c, ZERO]]);
  expect(out(n, run)).toBe('X');
});

test('a ring of three inverters oscillates with delays, and is named without', () => {
  const s = new Sketch();
  for (let i = 1; i <= 3; i++) s.place('not', 8 * i, 0);
  for (let i = 1; i <= 3; i++) s.wire(`not${i}.Y`, `not${(i % 3) + 1}.A`);
  const n = compile(s.sheet);
  const timed = new Run(n, { delays: 'parts' });
  timed.advance(1000 * NS);
  const [lane] = timed.trace.window([n.netsOfPin('not1', 'Y')![0]!], 100 * NS, 1000 * NS);
  const periods = lane!.slice(3).map((c, i) => c.time - lane![i + 1]!.time);
  expect(new Set(periods)).toEqual(new Set([2 * 3 * 6 * NS]));
  const settled = new Run(n, { delays: 'zero' });
  expect(settled.unsettled.size).toBe(3);
  expect([...settled.values].every((v) => v === X)).toBe(true);
});

test('two cross-coupled NORs remember in both ways of running', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'R');
  s.place('switch', 0, 10, 'S');
  s.place('nor', 20, 0);
  s.place('nor', 20, 10);
  s.place('lamp', 40, 0);
  s.wire('switch1.Y', 'nor1.A');
  s.wire('switch2.Y', 'nor2.B');
  s.wire('nor1.Y', 'nor2.A');
  s.wire('nor2.Y', 'nor1.B');
  s.wire('nor1.Y', 'lamp1.A');
  const n = compile(s.sheet);
  for (const delays of ['zero', 'parts'] as const) {
    const run = new Run(n, { delays });
    const press = (part: string) => {
      run.set([[source(n, part), ONE]]);
      run.advance(run.time + 100 * NS);
      run.set([[source(n, part), ZERO]]);
      run.advance(run.time + 100 * NS);
    };
    press('switch2');
    expect(out(n, run)).toBe('1');
    press('switch1');
    expect(out(n, run)).toBe('0');
    expect(run.unsettled.size).toBe(0);
  }
});

test('timed runs come to rest where settled ones do, for random circuits and inputs', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 5, gates: 25 }),
      fc.array(fc.nat({ max: 31 }), { maxLength: 6 }),
      (sheet, rows) => {
        const n = compile(sheet);
        const zero = new Run(n, { delays: 'zero' });
        const unit = new Run(n, { delays: 'unit' });
        const parts = new Run(n, { delays: 'parts' });
        for (const row of rows) {
          const changes = n.inputs.map((t, i) => [t.nets[0]!, ((row >> i) & 1) as Logic] as const);
          for (const run of [zero, unit, parts]) {
            run.set(changes);
            run.advance(run.time + 1e7);
          }
          expect(unit.values).toEqual(zero.values);
          expect(parts.values).toEqual(zero.values);
        }
      },
    ),
    { numRuns: 150 },
  );
});

test('a clock starts low and changes at the end of each half', () => {
  const wave = { low: 300, high: 200, first: 0, begun: 0 } as const;
  expect([0, 299, 300, 499, 500].map((t) => clockAt(wave, t).value)).toEqual([0, 0, 1, 1, 0]);
  expect(clockAt(wave, 300).next).toBe(500);
  expect(clockAt(wave, 500).next).toBe(800);
});

test('a clock may begin high, and in the middle of a period', () => {
  const high = { low: 300, high: 200, first: 1, begun: 0 } as const;
  expect([0, 199, 200, 499, 500].map((t) => clockAt(high, t).value)).toEqual([1, 1, 0, 0, 1]);
  const late = { low: 300, high: 200, first: 0, begun: 250 } as const;
  expect([0, 49, 50, 249, 250].map((t) => clockAt(late, t).value)).toEqual([0, 0, 1, 1, 0]);
  expect([0, 50, 250].map((t) => clockAt(late, t).next)).toEqual([50, 250, 550]);
});

test('a run that starts later with held states goes on as the first would have', () => {
  const n = compile(ring(3).sheet);
  const first = new Run(n, { delays: 'zero' });
  first.advance(2.25e12);
  const second = new Run(n, { delays: 'zero', from: first.time, held: first.held() });
  expect(second.values).toEqual(first.values);
  first.advance(9e12);
  second.advance(9e12);
  expect(second.values).toEqual(first.values);
});
