import fc from 'fast-check';
import { bitsOf, readWord, wordText, wordValue } from './radix';
import { readTime, timeText } from './time';

test('words are written in each radix', () => {
  expect(
    (['binary', 'hexadecimal', 'unsigned', 'signed'] as const).map((r) => wordText(bitsOf(202, 8), r)),
  ).toEqual(['11001010', 'CA', '202', '-54']);
  expect(wordText([1, 2, 0, 1], 'binary')).toBe('10X1');
  expect(wordText([1, 2, 0, 1, 3, 3, 3, 3], 'hexadecimal')).toBe('ZX');
  expect([wordText([1, 2], 'unsigned'), wordText([3, 3], 'signed')]).toEqual(['X', 'Z']);
});

test('what is written is read again, whatever the width', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 32 }), fc.nat(), (width, seed) => {
      const bits = bitsOf(seed, width);
      expect(readWord(`0b${wordText(bits, 'binary')}`, width)).toEqual(bits);
      expect(readWord(`0x${wordText(bits, 'hexadecimal')}`, width)).toEqual(bits);
      expect(readWord(`${width}'d${wordValue(bits)}`, width)).toEqual(bits);
      expect(readWord(wordText(bits, 'signed'), width)).toEqual(bits);
    }),
  );
});

test.each([
  ['1010', 4, [0, 1, 0, 1]],
  ["4'b1xz0", 4, [0, 3, 2, 1]],
  ['-1', 3, [1, 1, 1]],
  ['x', 2, [2, 2]],
  ['10', 4, [0, 1, 0, 1]],
  ['8', 3, null],
  ['-5', 3, null],
  ['0b10101', 4, null],
  ['door', 4, null],
  ['', 4, null],
])('“%s” in %i bits', (text, width, bits) => {
  expect(readWord(text, width)).toEqual(bits);
});

test('times are read with their unit and written in the one that reads best', () => {
  expect(['40ns', '1.5 us', '2 ms', '7', 'soon'].map(readTime)).toEqual([40_000, 1_500_000, 2e9, null, null]);
  expect([0, 250e9, 15_000, 999].map(timeText)).toEqual(['0 s', '250 ms', '15 ns', '999 ps']);
});
