import fc from 'fast-check';
import { DEFAULT_WAVE } from '../circuit/default-wave';
import { compile } from '../netlist/compile';
import { drivenBy } from '../simulate/drive';
import { levelAt, type Timed } from '../simulate/timed-sources';
import { Sketch } from '../testing/sketch';
import { clockEdges, clockOf, periodOf } from './clock-edges';

/** A clock at flip-flops that take over at one edge or the other. */
function clocked(edges: readonly ('rising' | 'falling')[], params = {}): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1e8, ...params });
  for (const [i, edge] of edges.entries()) {
    s.place('dff', 12, 10 * i, '', { edge });
    s.wire('clock1.Y', `dff${i + 1}.C`);
  }
  return s;
}

test('the active edges are those on which most of the flip-flops take over', () => {
  const rising = compile(clocked(['rising', 'rising', 'falling']).sheet);
  expect(clockEdges(rising, 0, 40_000)).toEqual({
    edges: [5000, 15_000, 25_000, 35_000],
    first: 1,
    isAll: true,
  });
  const falling = compile(clocked(['falling', 'falling', 'rising']).sheet);
  expect(clockEdges(falling, 0, 30_000).edges).toEqual([10_000, 20_000, 30_000]);
  expect(periodOf(falling)).toBe(10_000);
});

test('later edges are counted from time 0 on, and some may be asked for beyond the window', () => {
  const netlist = compile(clocked(['rising']).sheet);
  expect(clockEdges(netlist, 12_000, 26_000)).toEqual({ edges: [15_000, 25_000], first: 2, isAll: true });
  expect(clockEdges(netlist, 0, 0, 3).edges).toEqual([5000, 15_000, 25_000]);
  expect(clockEdges(netlist, 0, 1e9).isAll).toBe(false);
});

test('without anything that moves there is no clock', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('dff', 12, 0);
  s.wire('switch1.Y', 'dff1.C');
  const netlist = compile(s.sheet);
  expect(clockOf(netlist)).toBeNull();
  expect(clockEdges(netlist, 0, 1e6)).toEqual({ edges: [], first: 1, isAll: true });
  expect(periodOf(netlist)).toBeNull();
});

test('an input that a stimulus drives is a clock where it clocks something', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 0, 6, 'B');
  s.place('lamp', 12, 0);
  s.wire('switch1.Y', 'lamp1.A');
  const wave = (pattern: 'periodic' | 'count') => ({
    ...DEFAULT_WAVE,
    pattern,
    step: 8000,
    high: 2000,
    phase: 1000,
  });
  const driven = (pattern: 'periodic' | 'count') =>
    drivenBy(compile(s.sheet), { name: 'S', inputs: [{ part: 'switch1', wave: wave(pattern) }] });
  expect(clockOf(driven('count'))).toBeNull();
  expect(clockEdges(driven('periodic'), 0, 20_000).edges).toEqual([]);

  s.place('dff', 20, 0);
  s.wire('switch1.Y', 'dff1.C');
  expect(clockOf(driven('count'))?.source.part).toBe('switch1');
});

test('for any clock the edges are where its level rises', () => {
  fc.assert(
    fc.property(
      fc.record({
        hertz: fc.integer({ min: 1e7, max: 1e9 }),
        duty: fc.integer({ min: 1, max: 99 }),
        first: fc.constantFrom(0, 1),
        phase: fc.integer({ min: 0, max: 99 }),
      }),
      fc.integer({ min: 0, max: 50_000 }),
      (params, from) => {
        const netlist = compile(clocked(['rising'], params).sheet);
        const source = netlist.sources.find((s): s is Timed => s.kind === 'clock')!;
        const to = from + 200_000;
        const expected: number[] = [];
        let before = levelAt(source, Math.max(0, from - 1)).value;
        for (let time = Math.max(0, from - 1); time <= to; ) {
          const { value, next } = levelAt(source, time);
          if (value === 1 && before === 0) expected.push(time);
          before = value;
          time = next;
        }
        expect(clockEdges(netlist, from, to).edges).toEqual(expected);
      },
    ),
    { numRuns: 80 },
  );
});

test('a square wave on an input is a clock only where it clocks something', () => {
  const wave = { ...DEFAULT_WAVE, pattern: 'periodic' as const, step: 20_000, high: 10_000 };
  const s = new Sketch();
  s.place('switch', 0, 0, 'In');
  s.place('lamp', 20, 0, 'L');
  s.wire('switch1.Y', 'lamp1.A');
  const driven = (sketch: Sketch) =>
    drivenBy(compile(sketch.sheet), { name: 'Ride', inputs: [{ part: 'switch1', wave }] });
  expect(clockOf(driven(s))).toBeNull();
  // As the data of a flip-flop it is none either; through a gate to its clock it is one.
  s.place('dff', 20, 20);
  s.wire('switch1.Y', 'dff1.D');
  expect(clockOf(driven(s))).toBeNull();
  s.place('not', 10, 30);
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'dff1.C');
  expect(clockOf(driven(s))?.source.part).toBe('switch1');
});
