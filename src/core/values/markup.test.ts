import fc from 'fast-check';
import { plainText, runsOf, spokenText } from './markup';

const said = (text: string) =>
  runsOf(text).map((r) => `${r.barred ? '¯' : ''}${r.low ? 'low ' : ''}${r.text}`);

test('subscripts and bars are read, alone and within each other', () => {
  expect(said('Key')).toEqual(['Key']);
  expect(said('A_0')).toEqual(['A', 'low 0']);
  expect(said('A_in B')).toEqual(['A', 'low in', ' B']);
  expect(said('S_{i+1}')).toEqual(['S', 'low i+1']);
  expect(said('~Q')).toEqual(['¯Q']);
  expect(said('~{Q_0} + D')).toEqual(['¯Q', '¯low 0', ' + D']);
  expect(said('A~B_1')).toEqual(['A', '¯B', 'low 1']);
});

test('a mark about nothing is written as it is', () => {
  for (const text of ['_', '~', 'A_', '_x', '~ Q', 'A_{', 'A_{}', '~{Q', '~~'])
    expect(plainText(text)).toBe(text);
});

test('a bar is spoken as a not', () => {
  expect(spokenText('~{Q_0} and D_1')).toBe('not Q0 and D1');
});

test('no text is lost or grows, however deep the marks go', () => {
  fc.assert(
    fc.property(fc.string({ unit: fc.constantFrom('A', '0', '_', '~', '{', '}', ' ') }), (text) => {
      const letters = (t: string) => t.replace(/[_~{}]/g, '');
      expect(letters(plainText(text))).toBe(letters(text));
      expect(plainText(text).length).toBeLessThanOrEqual(text.length);
    }),
  );
  expect(plainText(`${'~{'.repeat(500)}Q${'}'.repeat(500)}`)).toContain('Q');
});
