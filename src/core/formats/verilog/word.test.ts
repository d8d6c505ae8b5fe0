import fc from 'fast-check';
import { RandomNumbers } from './interpret/schedule';
import {
  binary,
  bitsAt,
  digitsOf,
  either,
  floatingWord,
  joinedWords,
  numberIn,
  power,
  resized,
  resolvedWords,
  shifted,
  truthOf,
  unary,
  withBits,
  wordOf,
  wordOfDigits,
} from './word';

const digits = (most = 12) =>
  fc.string({ unit: fc.constantFrom('0', '1', 'x', 'z'), minLength: 1, maxLength: most });
const pairs = digits().chain((a) =>
  fc.tuple(
    fc.constant(a),
    fc.string({ unit: fc.constantFrom('0', '1', 'x', 'z'), minLength: a.length, maxLength: a.length }),
  ),
);
const known = (digit: string) => (digit === 'z' ? 'x' : digit);

/** The tables of IEEE Std 1364-2005, 5.1.10 and 4.6.1, digit by digit. */
const BITWISE: Readonly<Record<string, (a: string, b: string) => string>> = {
  '&': (a, b) => (a === '0' || b === '0' ? '0' : a === '1' && b === '1' ? '1' : 'x'),
  '|': (a, b) => (a === '1' || b === '1' ? '1' : a === '0' && b === '0' ? '0' : 'x'),
  '^': (a, b) => (/[xz]/.test(a + b) ? 'x' : a === b ? '0' : '1'),
  '~^': (a, b) => (/[xz]/.test(a + b) ? 'x' : a === b ? '1' : '0'),
};
const resolved = (a: string, b: string) => (a === 'z' ? b : b === 'z' || a === b ? a : 'x');

test('words are what their digits say', () => {
  fc.assert(
    fc.property(digits(80), (text) => {
      expect(digitsOf(wordOfDigits(text))).toBe(text);
      expect(digitsOf(unary('~', wordOfDigits(text)))).toBe(
        [...text].map((d) => (d === '0' ? '1' : d === '1' ? '0' : 'x')).join(''),
      );
    }),
  );
});

test('bitwise operators, drivers and choices go by their tables', () => {
  fc.assert(
    fc.property(pairs, ([a, b]) => {
      const [x, y] = [wordOfDigits(a), wordOfDigits(b)];
      const each = (of: (a: string, b: string) => string) =>
        [...a].map((digit, i) => of(digit, b[i]!)).join('');
      for (const [operator, of] of Object.entries(BITWISE))
        expect(digitsOf(binary(operator, x, y))).toBe(each(of));
      expect(digitsOf(resolvedWords(x, y))).toBe(each(resolved));
      expect(digitsOf(either(x, y))).toBe(each((p, q) => (p === q ? known(p) : 'x')));
      expect(digitsOf(resolvedWords(x, floatingWord(a.length)))).toBe(a);
    }),
  );
});

test('parts are taken, put and joined as in texts', () => {
  fc.assert(
    fc.property(digits(), fc.integer({ min: -4, max: 14 }), digits(6), (text, from, part) => {
      const low = [...text].reverse();
      const taken = part
        .split('')
        .map((_, i) => low[from + i] ?? 'x')
        .reverse()
        .join('');
      expect(digitsOf(bitsAt(wordOfDigits(text), from, part.length))).toBe(taken);
      const put = low
        .map((digit, i) => [...part].reverse()[i - from] ?? digit)
        .reverse()
        .join('');
      expect(digitsOf(withBits(wordOfDigits(text), from, wordOfDigits(part)))).toBe(put);
      expect(digitsOf(joinedWords([wordOfDigits(text), wordOfDigits(part)]))).toBe(text + part);
    }),
  );
});

test('numbers are those of whole numbers in as many bits, with a sign or without', () => {
  const wholes = fc.tuple(
    fc.integer({ min: 1, max: 40 }),
    fc.bigInt({ min: -(2n ** 40n), max: 2n ** 40n }),
    fc.bigInt({ min: -(2n ** 40n), max: 2n ** 40n }),
    fc.boolean(),
  );
  fc.assert(
    fc.property(wholes, ([width, a, b, signed]) => {
      const [x, y] = [wordOf(a, width, signed), wordOf(b, width, signed)];
      const wrap = signed ? BigInt.asIntN : BigInt.asUintN;
      const [p, q] = [wrap(width, a), wrap(width, b)];
      expect([numberIn(x), numberIn(y)]).toEqual([p, q]);
      for (const [operator, value] of [
        ['+', p + q],
        ['-', p - q],
        ['*', p * q],
      ] as const)
        expect(numberIn(binary(operator, x, y))).toBe(wrap(width, value));
      if (q !== 0n)
        expect([numberIn(binary('/', x, y)), numberIn(binary('%', x, y))]).toEqual([
          wrap(width, p / q),
          wrap(width, p % q),
        ]);
      expect(truthOf(binary('<', x, y))).toBe(p < q);
      expect(numberIn(shifted('>>>', x, wordOf(3, 4)))).toBe(p >> 3n);
      expect(numberIn(shifted('<<', x, wordOf(2, 4)))).toBe(wrap(width, p << 2n));
      expect(numberIn(resized(x, width + 7))).toBe(p);
      expect(numberIn(power(x, wordOf(3, 4)))).toBe(wrap(width, p ** 3n));
    }),
  );
});

test('what is divided by zero, or is unknown in part, is unknown', () => {
  expect(digitsOf(binary('/', wordOf(5, 4), wordOf(0, 4)))).toBe('xxxx');
  expect(digitsOf(binary('+', wordOfDigits('0x01'), wordOf(1, 4)))).toBe('xxxx');
  expect(digitsOf(binary('==', wordOfDigits('1x'), wordOf(0, 2)))).toBe('0');
  expect(digitsOf(binary('==', wordOfDigits('0x'), wordOf(0, 2)))).toBe('x');
  expect(digitsOf(binary('===', wordOfDigits('0x'), wordOfDigits('0x')))).toBe('1');
  expect(digitsOf(binary('&&', wordOfDigits('0x'), wordOf(0, 2)))).toBe('0');
});

test('$random gives the numbers of the standard', () => {
  const numbers = new RandomNumbers();
  expect(Array.from({ length: 5 }, () => numbers.next())).toEqual([
    303379748, -1064739199, -2071669239, -1309649309, 112818957,
  ]);
});
