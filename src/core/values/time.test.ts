import fc from 'fast-check';
import { naturalOrder } from './natural-order';
import {
  frequencyText,
  justAfter,
  justBefore,
  PS_PER_SECOND,
  readDuration,
  readIn,
  readTime,
  timeText,
} from './time';

test.each([
  ['40ns', 40_000],
  ['1.5 us', 1_500_000],
  ['1.5 µs', 1_500_000],
  ['20 ms', 20e9],
  ['20 milliseconds', 20e9],
  ['1 Microsecond', 1_000_000],
  ['2seconds', 2 * PS_PER_SECOND],
  ['1 minute 30 seconds', 90 * PS_PER_SECOND],
  [' 2 S ', 2 * PS_PER_SECOND],
  ['7 ps', 7],
  ['1e3 ps', 1000],
  ['0.4 ps', 0],
  ['.2s', 200e9],
  ['2. ms', 2e9],
  ['1 h', 3600 * PS_PER_SECOND],
  ['4 h 33 min', 16_380 * PS_PER_SECOND],
  ['4h33min4s', 16_384 * PS_PER_SECOND],
  ['2 days', 172_800 * PS_PER_SECOND],
  ['90 seconds', 90 * PS_PER_SECOND],
])('%j is a time', (text, ps) => {
  expect(readTime(text)).toBe(ps);
});

test.each(['', '40', 'ns', '-3 ns', '1,5 ns', '3 mins5', '1 ns 2', '1..5 ns', '4 m'])(
  '%j is none',
  (text) => {
    expect(readTime(text)).toBeNull();
  },
);

test.each([
  [0, '0 s'],
  [999, '999 ps'],
  [1000, '1 ns'],
  [1_250_000, '1.25 µs'],
  [1.25e12, '1.25 s'],
  [-40_000, '-40 ns'],
  [1_234_567, '1.23457 µs'],
  [90e12, '90 s'],
  [999_999_960_000, '1 s'],
  [999_999, '999.999 ns'],
  [16_384e12, '4 h 33 min 4 s'],
  [5461.5e12, '1 h 31 min 1.5 s'],
  [3600e12, '1 h'],
  [-7200e12, '-2 h'],
  [31_536_000e12, '365 d'],
])('%d ps are told as %s', (ps, text) => {
  expect(timeText(ps)).toBe(text);
});

test('what is told is read again, to six digits', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: Number.MAX_SAFE_INTEGER }), (ps) => {
      const again = readTime(timeText(ps))!;
      expect(Math.abs(again - ps) / ps).toBeLessThan(1e-5);
    }),
  );
});

test('names are ordered as people count them', () => {
  expect(['A10', 'A2', 'a1', 'B'].sort(naturalOrder)).toEqual(['a1', 'A2', 'A10', 'B']);
});

test('a time, a bare number of ns, or a frequency', () => {
  expect(['20 ns', '20', '1.5us', '4 Hz', '50 MHz', '0 Hz', '0 s'].map(readDuration)).toEqual([
    20_000, 20_000, 1_500_000, 250e9, 20_000, 0, 0,
  ]);
  expect(['soon', '-3 ns', '3 bars', ''].map(readDuration)).toEqual([null, null, null, null]);
});

test('a time where a frequency is asked for, and the other way round', () => {
  expect(['4', '.5 kHz', '20 ms', '1 h', '4 Hz'].map((text) => readIn('Hz', text))).toEqual([
    4,
    500,
    50,
    1 / 3600,
    4,
  ]);
  expect(['4', '2 kHz', '20 ms'].map((text) => readIn('ns', text))).toEqual([4, 500_000, 20_000_000]);
  expect(readIn('Hz', '0 s')).toBeNull();
  expect(readIn('ps', 'soon')).toBeNull();
});

test('just before and just after a time are other numbers, at all times', () => {
  for (const time of [1, 5e11, 2 ** 53, 16_384e12, 31_536_000e12]) {
    expect(justBefore(time)).toBeLessThan(time);
    expect(justAfter(time)).toBeGreaterThan(time);
    expect(justAfter(time) - justBefore(time)).toBeLessThan(1e5);
  }
  expect(justBefore(40)).toBe(39);
});

test('a frequency is told in the unit that reads best', () => {
  expect([4, 33.33e6, 5e10, 0.5, 1 / 16_384].map(frequencyText)).toEqual([
    '4 Hz',
    '33.33 MHz',
    '50 GHz',
    '0.5 Hz',
    '0.00006104 Hz',
  ]);
});
