import { durationOf } from './duration';

test('a time, a bare number of ns, or a frequency', () => {
  expect(['20 ns', '20', '1.5us', '4 Hz', '50 MHz', '0 Hz', '0 s'].map(durationOf)).toEqual([
    20_000, 20_000, 1_500_000, 250e9, 20_000, 0, 0,
  ]);
  expect(['soon', '-3 ns', '3 bars', ''].map(durationOf)).toEqual([null, null, null, null]);
});
