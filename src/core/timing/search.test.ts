import { Trace } from '../simulate/trace';
import { pushOne } from '../testing/push-one';
import { search } from './search';

/** A count 0, 1, 2, 3 at 0, 10, 20, 30; at 20 bit 0 falls 1 ps before bit 1 rises, so 0 lasts for 1 ps. */
function count(): Trace {
  const trace = new Trace(new Uint8Array(3), 0);
  for (const [time, net, value] of [
    [10, 0, 1],
    [20, 0, 0],
    [21, 1, 1],
    [30, 0, 1],
  ] as const)
    pushOne(trace, time, net, value);
  return trace;
}

test('edges, values and short pulses are found forwards and backwards', () => {
  const trace = count();
  expect(search(trace, [0], { is: 'change' }, 10)).toBe(20);
  expect(search(trace, [0], { is: 'rise' }, 10)).toBe(30);
  expect(search(trace, [0], { is: 'fall' }, 0)).toBe(20);
  expect(search(trace, [0], { is: 'change' }, 20, true)).toBe(10);
  expect(search(trace, [0], { is: 'change' }, 10, true)).toBeNull();
  expect(search(trace, [0, 1], { is: 'value', bits: [1, 1] }, 0)).toBe(30);
  expect(search(trace, [0, 1], { is: 'value', bits: [0, 0] }, 5)).toBe(20);
  expect(search(trace, [0, 1], { is: 'pulse', shorter: 2 }, 0)).toBe(20);
  expect(search(trace, [0, 1], { is: 'pulse', shorter: 1 }, 0)).toBeNull();
  expect(search(trace, [2], { is: 'change' }, 0)).toBeNull();
});

test('bits of one instant change together', () => {
  const trace = new Trace(new Uint8Array([1, 0]), 0);
  pushOne(trace, 10, 0, 0);
  pushOne(trace, 10, 1, 1);
  // From 1 to 2 at once: neither 0 nor 3 is ever there.
  expect(search(trace, [0, 1], { is: 'value', bits: [0, 0] }, 0)).toBeNull();
  expect(search(trace, [0, 1], { is: 'value', bits: [0, 1] }, 0)).toBe(10);
});
