import { type Logic, ONE, ZERO } from '../../values/logic';
import { cell, inputAt, type TruthTable } from './truth-table';

/** Columns of zeros and ones whose text is looked up at once. */
const TOGETHER = 8;

/** Writes the rows of tables, each as the texts of its values with something between them. */
export class RowTexts {
  /** By the number of columns: the text of each number that they can make, the first column its highest bit. */
  private readonly texts: (readonly string[])[] = [];
  /** The text of the slow inputs in rows that have the same, and which these are. */
  private slow = '';
  private slowRow = -1;

  constructor(
    private readonly between: string,
    private readonly textOf: (value: Logic) => string,
  ) {}

  /** The text of a row of a table, or of a piece of one that begins with row `first`. */
  of(table: TruthTable, row: number, first = 0): string {
    const { between } = this;
    let text = this.inputs(table.inputs.length, first + row);
    if (isUnknown(table, row)) {
      for (let o = 0; o < table.outputs.length; o++) text += between + this.textOf(cell(table, o, row));
      return text;
    }
    const { ones } = table;
    const [word, bit] = [row >>> 5, row & 31];
    for (let from = 0; from < ones.length; from += TOGETHER) {
      const to = Math.min(ones.length, from + TOGETHER);
      let number = 0;
      for (let o = from; o < to; o++) number = (number << 1) | ((ones[o]![word]! >>> bit) & 1);
      text += between + this.numbers(to - from)[number]!;
    }
    return text;
  }

  private inputs(count: number, row: number): string {
    const quick = Math.min(count, TOGETHER);
    const slowRow = row >>> quick;
    if (slowRow !== this.slowRow) {
      this.slowRow = slowRow;
      this.slow = '';
      for (let i = 0; i < count - quick; i++) this.slow += this.textOf(inputAt(count, i, row)) + this.between;
    }
    return this.slow + this.numbers(quick)[row & ((1 << quick) - 1)]!;
  }

  private numbers(columns: number): readonly string[] {
    this.texts[columns] ??= Array.from({ length: 1 << columns }, (_, number) =>
      Array.from({ length: columns }, (_, c) =>
        this.textOf((number >>> (columns - 1 - c)) & 1 ? ONE : ZERO),
      ).join(this.between),
    );
    return this.texts[columns]!;
  }
}

/** Whether some output is X or Z in a row. */
function isUnknown({ unknown }: TruthTable, row: number): boolean {
  const word = row >>> 5;
  let any = 0;
  for (let o = 0; o < unknown.length; o++) {
    const column = unknown[o];
    if (column) any |= column[word]!;
  }
  return ((any >>> (row & 31)) & 1) === 1;
}
