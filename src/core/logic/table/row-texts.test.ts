import fc from 'fast-check';
import { letterOf } from '../../values/logic';
import { RowTexts } from './row-texts';
import { cell, inputAt, type TruthTable } from './truth-table';

/** Tables of four words of 32 rows with random columns; a column without unknown values may be null. */
const anyTable = fc
  .record({ inputs: fc.integer({ min: 6, max: 19 }), outputs: fc.integer({ min: 1, max: 18 }) })
  .chain(({ inputs, outputs }) => {
    const words = 4;
    const column = fc.uint32Array({ minLength: words, maxLength: words });
    // Most words have no unknown value, as in most tables.
    const rare = fc
      .tuple(column, fc.nat({ max: words }))
      .map(([c, at]) => c.map((word, w) => (w === at ? word : 0)));
    const list = <T>(of: fc.Arbitrary<T>) => fc.array(of, { minLength: outputs, maxLength: outputs });
    return fc.record({
      inputs: fc.constant(Array.from({ length: inputs }, (_, i) => `i${i}`)),
      outputs: fc.constant(Array.from({ length: outputs }, (_, o) => `o${o}`)),
      rows: fc.constant(32 * words),
      ones: list(column),
      unknown: list(fc.option(rare)),
      floating: list(fc.option(rare)),
    });
  });

const plain = (table: TruthTable, row: number, first: number) => [
  ...table.inputs.map((_, i) => String(inputAt(table.inputs.length, i, first + row))),
  ...table.outputs.map((_, o) => letterOf(cell(table, o, row))),
];

test('rows are written as their values one by one, in whichever order', () => {
  fc.assert(
    fc.property(
      anyTable,
      fc.nat({ max: 50 }).map((n) => 64 * n),
      fc.array(fc.nat({ max: 127 })),
      (table, first, some) => {
        const texts = new RowTexts(', ', (value) => `<${letterOf(value)}>`);
        for (const row of [...some, ...Array(table.rows).keys()])
          expect(texts.of(table, row, first)).toBe(
            plain(table, row, first)
              .map((value) => `<${value}>`)
              .join(', '),
          );
      },
    ),
    { numRuns: 60 },
  );
});
