import fc from 'fast-check';
import Papa from 'papaparse';
import { csvField, csvFile, tsvLine, unguarded } from './csv';

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

test('a formula behind blanks, invisible characters, full-width signs or another divider is none either', () => {
  const cells = ['\u200b=1+1', '\u0000=1', ' \u00a0@x', '\uff1d1+1', 'a;=1+1', 'a\t-1', "'=1", 'a\n+B'];
  expect(cells.map((cell) => csvField(cell).replaceAll('"', ''))).toEqual([
    "'\u200b=1+1",
    "'\u0000=1",
    "' \u00a0@x",
    "'\uff1d1+1",
    "a;'=1+1",
    "a\t'-1",
    "''=1",
    "a\n'+B",
  ]);
  expect(tsvLine(['a\t=1', '-5', '=B'])).toBe("a =1\t-5\t'=B");
});

test('whatever is written comes back when it is read', () => {
  const letter = fc.constantFrom(...'\'=+-@;|,"\t\r\n a1\u200b\uff1d');
  const text = fc.oneof(fc.string({ maxLength: 8 }), fc.string({ unit: letter, maxLength: 6 }));
  const texts = fc.array(text, { minLength: 2, maxLength: 4 });
  fc.assert(
    fc.property(fc.array(texts, { minLength: 1, maxLength: 5 }), (rows) => {
      const read = Papa.parse<string[]>(csvFile(rows).slice(0, -2), { delimiter: ',' }).data;
      expect(read.map((row) => row.map(unguarded))).toEqual(rows);
    }),
  );
});
