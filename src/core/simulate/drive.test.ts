import fc from 'fast-check';
import { DEFAULT_WAVE } from '../circuit/default-wave';
import { NO_TIME_SETUP, type Wave } from '../circuit/time-setup';
import { rowOf } from '../logic/table/truth-table';
import { compile } from '../netlist/compile';
import { waveLevels } from '../parts/wave';
import { interlock, Sketch } from '../testing/sketch';
import type { Logic } from '../values/logic';
import { countThrough, withLevel } from './draw-wave';
import { drivenBy, drivenClocks } from './drive';
import { Run } from './run';
import { waveProblem } from './wave-problem';

const wave = (part: Partial<Wave>): Wave => ({ ...DEFAULT_WAVE, ...part });
/** Values at moments in ns. */
const at = (w: Partial<Wave>, times: readonly number[], width = 1) =>
  times.map((t) => waveLevels(wave(w), width)(t * 1000).value);

test('a periodic input is low until its phase, then high for its duty', () => {
  // 20 ns, high for 5, begun at 3: high in [3, 8), [23, 28), ...
  const clock = { pattern: 'periodic' as const, step: 20_000, high: 5000, phase: 3000 };
  expect(at(clock, [0, 2, 3, 7, 8, 22, 23, 28, 43])).toEqual([0, 0, 1, 1, 0, 0, 1, 0, 1]);
});

test('levels, values, bits, a count, and what looks like chance', () => {
  expect(at({ pattern: 'levels', data: '10 1, 25ns 0' }, [0, 10, 24, 25])).toEqual([0, 1, 1, 0]);
  expect(at({ pattern: 'values', data: '3 0x2 1', step: 10_000 }, [0, 10, 20, 90], 2)).toEqual([3, 2, 1, 1]);
  expect(at({ pattern: 'bits', data: '0011', first: 'least', step: 1000 }, [0, 1, 2, 3])).toEqual([
    1, 1, 0, 0,
  ]);
  expect(at({ pattern: 'count', step: 1000, place: 1 }, [0, 1, 2, 3, 4])).toEqual([0, 0, 1, 1, 0]);
  const chance = [...Array(64).keys()];
  const once = at({ pattern: 'random', step: 1000, seed: 7 }, chance);
  expect(at({ pattern: 'random', step: 1000, seed: 7 }, chance)).toEqual(once);
  expect(at({ pattern: 'random', step: 1000, seed: 8 }, chance)).not.toEqual(once);
  expect(once.filter((v) => v === 1).length).toBeGreaterThan(16);
});

test('a wave says when it changes next, so that a run never passes a change', () => {
  const any = fc.record({
    pattern: fc.constantFrom('periodic' as const, 'count' as const, 'random' as const),
    step: fc.integer({ min: 2, max: 40 }),
    place: fc.nat(3),
    phase: fc.nat(30),
    seed: fc.nat(9),
  });
  fc.assert(
    fc.property(any, fc.nat(300), (w, time) => {
      const levels = waveLevels(wave({ ...w, high: Math.ceil(w.step / 2) }), 2);
      const now = levels(time);
      expect(now.next).toBeGreaterThan(time);
      for (let t = time; t < Math.min(now.next, time + 200); t++) expect(levels(t).value).toBe(now.value);
    }),
  );
});

test('what cannot be run is said where it stands', () => {
  const says = (w: Partial<Wave>, width = 1) => waveProblem(wave(w), width)?.message ?? null;
  expect(says({ pattern: 'levels', data: '10 1, 25 0\n30 1' })).toBeNull();
  expect(says({ pattern: 'levels', data: '40 1, 25 0' })).toBe(
    '25 ns does not come after 40 ns: give the times in order, each once',
  );
  expect(says({ pattern: 'levels', data: '10 1, soon 0' })).toMatch(/^“soon 0” is not a time/);
  expect(says({ pattern: 'levels', data: '10 5' }, 2)).toMatch('fits 2 bits');
  expect(says({ pattern: 'periodic', step: 0 })).toMatch('a period of 0 is no clock');
  expect(says({ pattern: 'periodic', step: 10, high: 10 })).toMatch('never changes');
  expect(says({ pattern: 'values', data: '1 0 two' })).toBe('value 3, “two”, is no number that fits one bit');
  expect(says({ pattern: 'bits', data: '01-1' })).toBe('character 3, “-”, is neither 0 nor 1');
  expect(says({ pattern: 'count', step: 0 })).toMatch('at least 1 ps');
});

test('counting through all combinations is the truth table laid in time', () => {
  const netlist = compile(interlock().sheet);
  const stimulus = countThrough('All', netlist, 10_000, DEFAULT_WAVE);
  const run = new Run(drivenBy(netlist, stimulus), { delays: 'zero' });
  for (let row = 0; row < 8; row++) {
    run.advance(row * 10_000 + 5000);
    expect(rowOf(netlist.inputColumns.map((c) => run.values[c.nets[0]] as Logic))).toBe(row);
  }
});

test('a stretch that is drawn has its level, and all else is as it was', () => {
  expect(withLevel(null, 10_000, 30_000, 1)).toBe('10 1, 30 0');
  const drawn = wave({ data: '10 1, 30 0' });
  expect(withLevel(drawn, 15_000, 20_000, 0)).toBe('10 1, 15 0, 20 1, 30 0');
  expect(withLevel(drawn, 0, 10_000, 1)).toBe('0 1, 30 0');
  expect(withLevel(drawn, 5500, 40_000, 0)).toBe('');
  const stretch = fc.tuple(
    fc.nat(60),
    fc.integer({ min: 1, max: 20 }),
    fc.constantFrom(0 as const, 1 as const),
  );
  fc.assert(
    fc.property(fc.array(stretch, { maxLength: 8 }), (stretches) => {
      let data = '';
      const expected = new Array<number>(100).fill(0);
      for (const [from, length, value] of stretches) {
        data = withLevel(wave({ data }), from * 1000, (from + length) * 1000, value);
        expected.fill(value, from, from + length);
      }
      expect(waveProblem(wave({ data }), 1)).toBeNull();
      expect(at({ data }, [...expected.keys()])).toEqual(expected);
    }),
  );
});

test('a string of bits or a list of values stays as it ends, begins anew, or is 0 from then on', () => {
  const bits = { pattern: 'bits' as const, data: '011', step: 1000 };
  expect(at(bits, [2, 3, 9])).toEqual([1, 1, 1]);
  expect(at({ ...bits, endsAtZero: true }, [2, 3, 9])).toEqual([1, 0, 0]);
  expect(at({ ...bits, endsAtZero: true, repeat: true }, [2, 3, 4, 5])).toEqual([1, 0, 1, 1]);
  expect(at({ pattern: 'values', data: '3 1', step: 1000, endsAtZero: true }, [0, 1, 2], 2)).toEqual([
    3, 1, 0,
  ]);
});

test('a stretch of a bus is drawn as a number, and what else the wave does stays', () => {
  const drawn = wave({ data: '10 5, 30 9' });
  expect(withLevel(drawn, 15_000, 20_000, 7, 4)).toBe('10 5, 15 7, 20 5, 30 9');
  expect(withLevel(null, 0, 10_000, 15, 4)).toBe('0 15, 10 0');
  // 0 1 1 0 by steps of 10 ns, of which the second becomes 0.
  const bits = wave({ pattern: 'bits', data: '0110', step: 10_000 });
  expect(withLevel(bits, 10_000, 20_000, 0)).toBe('20 1, 30 0');
  const square = wave({ pattern: 'periodic', step: 20_000, high: 10_000, phase: 10_000 });
  expect(withLevel(square, 10_000, 20_000, 0)).toMatch(/^30 1, 40 0, 50 1/);
});

test('clocks that a stimulus drives are told by it', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  s.place('switch', 0, 10, 'In');
  const time = (w: Partial<Wave>) => ({
    ...NO_TIME_SETUP,
    stimuli: [{ name: 'Ride', inputs: ['clock1', 'switch1'].map((part) => ({ part, wave: wave(w) })) }],
    driven: 'Ride',
  });
  const square = { pattern: 'periodic' as const, step: 10_000, high: 5000 };
  expect([...drivenClocks({ ...s.sheet, time: time(square) })]).toEqual([['clock1', '100 MHz']]);
  expect([...drivenClocks({ ...s.sheet, time: time({ data: '10 1' }) })]).toEqual([['clock1', 'Ride']]);
  expect([...drivenClocks(s.sheet)]).toEqual([]);
});
