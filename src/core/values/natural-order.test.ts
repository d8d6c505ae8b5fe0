import fc from 'fast-check';
import { naturalOrder } from './natural-order';

test('plain names stand as the collator of the language has them', () => {
  const collator = new Intl.Collator('en', { numeric: true });
  const piece = fc.constantFrom(
    ...'aAbBzZ_0129',
    '10',
    '007',
    'Key',
    'drive',
    ' ',
    '-',
    'é',
    'e\u0301',
    'ß',
    '٣',
    '·',
    '\u0000',
    '',
  );
  const name = fc.array(piece, { maxLength: 5 }).map((pieces) => pieces.join(''));
  fc.assert(
    fc.property(name, name, (a, b) => {
      expect(Math.sign(naturalOrder(a, b))).toBe(Math.sign(collator.compare(a, b)));
    }),
    { numRuns: 8000 },
  );
});

test('A2 stands before A10, and small letters before capitals where all else is the same', () => {
  const names = ['A10', 'a1', 'A2', 'A1', 'B', 'A_1', '10', '9', 'Q1', 'q1'];
  expect([...names].sort(naturalOrder)).toEqual(['9', '10', 'A_1', 'a1', 'A1', 'A2', 'A10', 'B', 'q1', 'Q1']);
});
