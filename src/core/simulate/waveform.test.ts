import fc from 'fast-check';
import { pushOne } from '../testing/push-one';
import type { Logic } from '../values/logic';
import { stretchesOf } from './stretches';
import { Trace } from './trace';
import {
  differencesAt,
  differencesOf,
  type Waveform,
  waveformFromText,
  waveformOfBits,
  waveformStretches,
  waveformText,
} from './waveform';

/*
 * Courses of the barrier's signals, laid beside a run of one or two nets.
 */

const course = (...changes: readonly [time: number, letters: string][]): Waveform => ({
  width: changes[0]![1].length,
  changes: changes.map(([time, letters]) => ({
    time,
    bits: [...letters].reverse().map((c) => '01XZ'.indexOf(c) as Logic),
  })),
});

function traceOf(changes: readonly (readonly [time: number, net: number, value: number])[]): Trace {
  const trace = new Trace(new Uint8Array(2), 0);
  for (const [time, net, value] of changes) pushOne(trace, time, net, value);
  return trace;
}

test('where a run is otherwise than expected is found from one change to the next', () => {
  const trace = traceOf([
    [1000, 0, 1],
    [3000, 0, 0],
  ]);
  const at = (c: Waveform) => differencesOf(trace, [0], c, 5000);
  expect(at(course([0, '0'], [1000, '1'], [3000, '0']))).toEqual([]);
  // It was to rise half a ns later, and to fall at 2 ns.
  expect(at(course([0, '0'], [1500, '1'], [2000, '0']))).toEqual([
    { from: 1000, to: 1500 },
    { from: 2000, to: 3000 },
  ]);
  // Nothing is said before 2 ns, and nothing certain after 4.
  expect(at(course([2000, '0'], [4000, 'X']))).toEqual([{ from: 2000, to: 3000 }]);
  expect(at(course([2000, '1']))).toEqual([{ from: 3000, to: 5000 }]);
  expect(at(course([6000, '1']))).toEqual([]);
});

test('a run that is read at some times is held against what is expected there alone', () => {
  // Read just before 2, 4 and 6 ns; it rises a little later than at once, and does not fall.
  const trace = traceOf([
    [2300, 0, 1],
    [4100, 1, 1],
  ]);
  const expected = course([0, '0'], [2000, '1'], [4000, '0']);
  const at = [1999, 3999, 5999];
  expect(differencesAt(trace, [0], expected, at, 9000)).toEqual([{ from: 4000, to: 6000 }]);
  expect(differencesAt(trace, [0], expected, at, 5000)).toEqual([]);
  const word = course([0, '00'], [2000, 'X1'], [4000, '10']);
  expect(differencesAt(trace, [0, 1], word, at, 9000)).toEqual([{ from: 4000, to: 6000 }]);
  expect(differencesAt(trace, [0], course([0, '1']), at, 9000)).toEqual([{ from: 0, to: 2000 }]);
  expect(differencesAt(trace, [0], course([3000, '0']), at, 9000).map((d) => d.to)).toEqual([4000, 6000]);
});

test('several bits are one number', () => {
  const [high, low] = [course([0, '0'], [2000, '1']), course([0, '1'], [1000, '0'])];
  const both = waveformOfBits([
    { course: low, bit: 0 },
    { course: high, bit: 0 },
  ]);
  expect(waveformText(both)).toBe('0:01 1000:00 2000:10');
  const trace = traceOf([
    [0, 0, 1],
    [1000, 0, 0],
    [2000, 1, 1],
  ]);
  expect(differencesOf(trace, [0, 1], both, 3000)).toEqual([]);
  expect(differencesOf(trace, [1, 0], both, 3000)).toEqual([
    { from: 0, to: 1000 },
    { from: 2000, to: 3000 },
  ]);
});

const some: fc.Arbitrary<Waveform> = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 400 }), fc.constantFrom<Logic>(0, 1)), { maxLength: 40 })
  .map((steps) => {
    let time = 0;
    const changes: { time: number; bits: Logic[] }[] = [{ time: 0, bits: [0] }];
    for (const [by, value] of steps) {
      time += by;
      if (changes.at(-1)!.bits[0] !== value) changes.push({ time, bits: [value] });
    }
    return { width: 1, changes };
  });
const ran = ({ changes }: Waveform) => traceOf(changes.slice(1).map((c) => [c.time, 0, c.bits[0]!]));

test('a course is drawn as a run of the same changes is, fine or coarse', () => {
  fc.assert(
    fc.property(some, fc.integer({ min: 1, max: 3000 }), (c, from) => {
      const to = from + 4000;
      const fine = waveformStretches(c, from, to, 0.5);
      const [run] = stretchesOf(ran(c), [[0]], from, to, 0.5);
      expect(fine).toEqual(run);
      // However coarse, there are no gaps, and no more stretches than steps allow.
      const coarse = waveformStretches(c, from, to, 200);
      expect(coarse[0]!.from).toBe(from);
      expect(coarse.at(-1)!.to).toBe(to);
      for (const [i, s] of coarse.entries()) if (i > 0) expect(s.from).toBe(coarse[i - 1]!.to);
      expect(coarse.length).toBeLessThanOrEqual((2 * 4000) / 200 + 2);
    }),
  );
});

test('a run is the same as its own course, and as that read from text', () => {
  fc.assert(
    fc.property(some, some, (a, b) => {
      const read = waveformFromText(waveformText(a))!;
      expect(read).toEqual(a);
      expect(differencesOf(ran(a), [0], read, 20_000)).toEqual([]);
      // At any time at which they are not alike a difference stands, and only there.
      const found = differencesOf(ran(a), [0], b, 20_000);
      const at = (c: Waveform, t: number) => c.changes.findLast((one) => one.time <= t)!.bits[0];
      for (let t = 0; t < 16_000; t += 97)
        expect(found.some((f) => f.from <= t && t < f.to)).toBe(at(a, t) !== at(b, t));
    }),
    { numRuns: 60 },
  );
  for (const bad of ['', '5', '5:2', '9:1 3:0', '0:1 4:01', 'x:1']) expect(waveformFromText(bad)).toBeNull();
});
