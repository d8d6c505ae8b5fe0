import fc from 'fast-check';
import { changes, NETS } from '../testing/random-changes';
import { Trace } from './trace';

test('a state of the past is what the changes up to then make of the first one', () => {
  fc.assert(
    fc.property(changes, fc.nat({ max: 500 }), (list, at) => {
      const trace = new Trace(new Uint8Array(NETS), 0);
      const expected = new Uint8Array(NETS);
      for (const { time, net, value } of list) {
        trace.push(time, net, value);
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
    trace.push(time, net, value);
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
  for (let i = 1; i <= 300_000; i++) trace.push(i, 0, i % 2);
  expect(trace.length).toBeLessThanOrEqual(100_000 + 32_768);
  expect(trace.trimmed).toBe(true);
  expect(trace.begins).toBeGreaterThan(150_000);
  expect(trace.stateAt(299_999)[0]).toBe(1);
  expect(trace.stateAt(300_000)[0]).toBe(0);
});
