import fc from 'fast-check';
import { pushOne } from '../testing/push-one';
import { changes, NETS } from '../testing/random-changes';
import { Trace } from './trace';

test('a state of the past is what the changes up to then make of the first one', () => {
  fc.assert(
    fc.property(changes, fc.nat({ max: 500 }), (list, at) => {
      const trace = new Trace(new Uint8Array(NETS), 0);
      const expected = new Uint8Array(NETS);
      for (const { time, net, value } of list) {
        pushOne(trace, time, net, value);
        if (time <= at) expected[net] = value;
      }
      expect(trace.stateAt(at)).toEqual(expected);
    }),
  );
});

test('a window shows how each lane began and every change in it', () => {
  const trace = new Trace(new Uint8Array(2), 0);
  for (const [time, net, value] of [
    [5, 0, 1],
    [10, 1, 1],
    [20, 0, 0],
    [30, 0, 1],
  ] as const)
    pushOne(trace, time, net, value);
  expect(trace.window([0, 1], 8, 25)).toEqual([
    [
      { time: 8, value: 1 },
      { time: 20, value: 0 },
    ],
    [
      { time: 8, value: 0 },
      { time: 10, value: 1 },
    ],
  ]);
  expect(trace.changeBefore(new Set([0]), 30)).toBe(20);
  expect(trace.changeBefore(new Set([0]), 5)).toBeNull();
});

test('the oldest part is let go where a trace grows too long, and it says so', () => {
  const trace = new Trace(new Uint8Array(1), 0, 100_000);
  for (let i = 1; i <= 300_000; i++) pushOne(trace, i, 0, i % 2);
  expect(trace.length).toBeLessThanOrEqual(100_000 + 32_768);
  expect(trace.trimmed).toBe(true);
  expect(trace.begins).toBeGreaterThan(150_000);
  expect(trace.stateAt(299_999)[0]).toBe(1);
  expect(trace.stateAt(300_000)[0]).toBe(0);
});

test('changes that come many instants at once are those that come one by one, whatever is asked', () => {
  fc.assert(
    fc.property(changes, fc.nat({ max: 6 }), fc.nat({ max: 500 }), (list, cut, at) => {
      const single = new Trace(new Uint8Array(NETS), 0);
      for (const { time, net, value } of list) pushOne(single, time, net, value);
      const many = new Trace(new Uint8Array(NETS), 0);
      // In pieces of some instants, as the kernel hands them over.
      const byTime = new Map<number, number[]>();
      for (const { time, net, value } of list)
        byTime.set(time, [...(byTime.get(time) ?? []), (net << 4) | value]);
      const instants = [...byTime];
      for (let from = 0; from < instants.length; from += cut + 1) {
        const piece = instants.slice(from, from + cut + 1);
        let end = 0;
        const ends = piece.map(([, words]) => (end += words.length));
        many.push(
          Int32Array.from(piece.flatMap(([, words]) => words)),
          Float64Array.from(piece.map(([time]) => time)),
          Int32Array.from(ends),
          piece.length,
        );
      }
      const nets = [...Array(NETS).keys()];
      expect(many.length).toBe(single.length);
      expect(many.window(nets, at / 2, at)).toEqual(single.window(nets, at / 2, at));
      expect(many.stateAt(at)).toEqual(single.stateAt(at));
      expect(many.changeBefore(null, at)).toBe(single.changeBefore(null, at));
      expect(many.changeAfter(new Set([1, 3]), at)).toBe(single.changeAfter(new Set([1, 3]), at));
      for (const net of nets) expect(many.valueAt(net, at)).toBe(single.valueAt(net, at));
    }),
  );
});

test('an instant may lie across two chunks, and a state long ago is that of the changes up to then', () => {
  const trace = new Trace(new Uint8Array(8), 0);
  const count = 100_000;
  const words = Int32Array.from({ length: count }, (_, i) => ((i % 8) << 4) | ((i >> 3) & 1));
  // Instants of seven changes, so that their ends fall anywhere in a chunk.
  const instants = Math.ceil(count / 7);
  const times = Float64Array.from({ length: instants }, (_, k) => 10 * (k + 1));
  const ends = Int32Array.from({ length: instants }, (_, k) => Math.min(count, 7 * (k + 1)));
  trace.push(words, times, ends, instants);
  expect(trace.length).toBe(count);
  for (const k of [0, 4680, 4681, 4682, 9361, 9362, instants - 1]) {
    const state = new Uint8Array(8);
    for (let i = 0; i < ends[k]!; i++) state[i % 8] = (i >> 3) & 1;
    expect(trace.stateAt(times[k]!)).toEqual(state);
  }
  let seen = 0;
  for (const { time } of trace.changes(0, Number.POSITIVE_INFINITY)) {
    if (time !== 10 * (Math.floor(seen / 7) + 1)) throw new Error(`change ${seen} at ${time}`);
    seen++;
  }
  expect(seen).toBe(count);
});
