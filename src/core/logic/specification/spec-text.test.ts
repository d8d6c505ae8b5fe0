import { specColumns, specOf } from '../../testing/specs';
import { specFromText, specLines, withCells } from './spec-text';

test('a block is pasted from a cell on, or refused with what is wrong with it', () => {
  const empty = specOf('A, B = Y, Z');
  expect(specColumns(withCells(empty, 0, 0, '0\t1\n1\tx\n1\t\n0\t-\n'))).toEqual(['0110', '1x.x']);
  expect(specColumns(withCells(empty, 1, 2, '1\n0'))).toEqual(['....', '..10']);
  expect(specColumns(withCells(empty, 1, 2, '1\n0\n1'))).toMatch(
    /3 rows and 1 columns; from here on there are 2 and 1/,
  );
  expect(specColumns(withCells(empty, 0, 0, '0\n7'))).toMatch(/“7” in row 2 of what was pasted/);
  expect(specColumns(withCells(empty, 0, 0, 'constructor'))).toMatch(/“constructor” in row 1/);
});

test('a whole table comes as CSV, from a spreadsheet or as Markdown, in any order of rows', () => {
  const csv = specFromText('A,B,=,Y\n1,1,,1\n0,0,,0\n0,1,,\n1,0,,x');
  expect(specColumns(csv)).toEqual(['0xx1']);
  expect(specColumns(specFromText('A\tB\tY\tZ\n0\t0\t0\t1\n0\t1\t1\t0\n1\t0\t1\t0\n1\t1\t0\t1'))).toEqual([
    '0110',
    '1001',
  ]);
  expect(specColumns(specFromText('| A | Y |\n| - | - |\n| 0 | 1 |\n| 1 | 0 |'))).toEqual(['10']);
  expect(specColumns(specFromText('A,B,Y\n0,0,1\n0,0,1\n1,0,1'))).toMatch(
    /^Row 2 repeats the inputs of a row above it, if the first 2 columns are the inputs, as 3 rows suggest/,
  );
  expect(specColumns(specFromText('A,B,=,Y\n0,0,,1\n0,0,,1'))).toBe(
    'Row 2 repeats the inputs of a row above it.',
  );
  expect(specColumns(specFromText('A,B,Y\n0,2,1'))).toMatch(/Row 1/);
  expect(specColumns(specFromText('A,B,Y\n0,1'))).toMatch(/Row 1 has 2 cells where there are 3 names/);
  expect(specColumns(specFromText('A,B,Y'))).toMatch(/rows of 0, 1 and x below it/);
});

test('names with commas come as CSV has them, bars in Markdown as Markdown has them', () => {
  const made = specFromText('"Bars, down",Key,Go\n0,0,0\n0,1,0\n1,0,0\n1,1,1');
  expect(made.ok && made.value.inputs).toEqual(['Bars, down', 'Key']);
  const barred = specFromText('| A\\|B | Y |\n|:-:|:-:|\n| 0 | - |\n| 1 | 0 |');
  expect(barred.ok && [barred.value.inputs, specColumns(barred)]).toEqual([['A|B'], ['x0']]);
  expect(specColumns(specFromText('A,Y\n0,"1\n1,0'))).toMatch(/a quoted cell is not closed/);
  expect(specColumns(specFromText('A;Y\n0;1\n1;0'))).toEqual(['10']);
});

test('rows that are pasted with their inputs, only without a heading, find their places', () => {
  const empty = specOf('A, B = Y', '0000');
  expect(specColumns(withCells(empty, 0, 3, '1\t1\t0\n0\t0\t1\n0\t1\tx\n1\t0\t1'))).toEqual(['1x10']);
  expect(specColumns(withCells(empty, 0, 0, '0\t2\t1'))).toMatch(/Row 1, B: “2” is not 0 or 1/);
});

test('a table that is copied can be pasted as a whole, in all formats', () => {
  const made = specOf('A, B = Y, Z', '01x.', '1100');
  expect([...specLines(made, 'tsv')].join('\n')).toBe(
    'A\tB\tY\tZ\n0\t0\t0\t1\n0\t1\t1\t1\n1\t0\tx\t0\n1\t1\t.\t0',
  );
  for (const format of ['csv', 'tsv', 'md'] as const)
    expect(specFromText([...specLines(made, format)].join('\n'))).toEqual({ ok: true, value: made });
});
