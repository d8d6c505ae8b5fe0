import fc from 'fast-check';
import Papa from 'papaparse';
import { csvField, csvFile, unguarded } from './csv';

test('no field is taken for a formula, and numbers stay numbers', () => {
  expect(['=1+1', '@SUM', '-B', '+C', '-12', '+3.5', 'Key', 'a "b"', 'a, b'].map(csvField)).toEqual([
    "'=1+1",
    "'@SUM",
    "'-B",
    "'+C",
    '-12',
    '+3.5',
    'Key',
    '"a ""b"""',
    '"a, b"',
  ]);
});

test('whatever is written comes back when it is read', () => {
  const texts = fc.array(fc.string({ maxLength: 8 }), { minLength: 2, maxLength: 4 });
  fc.assert(
    fc.property(fc.array(texts, { minLength: 1, maxLength: 5 }), (rows) => {
      const isGuarded = (text: string) => /^'[=+\-@\t\r]/.test(text);
      if (rows.flat().some(isGuarded)) return;
      const read = Papa.parse<string[]>(csvFile(rows).slice(0, -2), { delimiter: ',' }).data;
      expect(read.map((row) => row.map(unguarded))).toEqual(rows);
    }),
  );
});
