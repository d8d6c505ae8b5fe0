import type { Params } from '../circuit/lesson';
import { runsOf, spokenText } from '../values/markup';
import { text, whole, z } from '../values/schema';
import type { Appearance, PartKind } from './part-kind';
import { LINE, roundedBox, type Shape, type TableLook } from './shape';

/*
 * What stands on a sheet to be read: it has no pins and no behaviour.
 */

const SIZES = { small: 0.95, normal: 1.3, large: 2, title: 3 } as const;
const LETTER = 0.56;
const LINE_HEIGHT = 1.35;

const linesOf = (params: Params) => (params.text as string).split('\n');
const sizeOf = (params: Params) => SIZES[params.size as keyof typeof SIZES];

/** How long a text is as it is read, in letters. */
const lettersOf = (line: string) =>
  runsOf(line).reduce((sum, run) => sum + run.text.length * (run.low ? 0.75 : 1), 0);

const noteKind: PartKind = {
  kind: 'note',
  family: 'Notes',
  name: 'Note',
  typed: ['note', 'text'],
  says: 'Words on the sheet. A_0 is written with a subscript, ~Q with a bar over it.',
  labelled: '',
  typedText: 'text',
  labelSide: 'none',
  params: z.object({
    text: z._default(text(4000), 'Note'),
    size: z._default(z.enum(['small', 'normal', 'large', 'title']), 'normal'),
  }),
  settings: [
    { param: 'text', label: 'Text', control: 'text', hint: 'A_0: subscript · ~Q: bar' },
    {
      param: 'size',
      label: 'Size',
      control: 'choice',
      options: (['small', 'normal', 'large', 'title'] as const).map((value) => ({ value, label: value })),
    },
  ],
  ports: () => [],
  body: (params) => {
    const size = sizeOf(params);
    const wide = Math.max(2, ...linesOf(params).map((l) => lettersOf(l) * LETTER * size));
    return { x0: 0, y0: 0, x1: Math.ceil(wide), y1: Math.ceil(linesOf(params).length * size * LINE_HEIGHT) };
  },
  symbol: (params) => {
    const size = sizeOf(params);
    return linesOf(params).map(
      (line, i): Shape => ({
        shape: 'text',
        x: 0,
        y: (i + 0.5) * size * LINE_HEIGHT,
        text: line,
        size,
        bold: params.size === 'title',
      }),
    );
  },
  build: () => {},
  spoken: (params) => `note: ${linesOf(params).join(' ')}`,
};

const ROW = 1.7;
const CELL_LETTER = 0.6;
const TEXT_SIZE = 1;

/** Shapes of a table whose upper left corner is the origin, and how large it is. */
function tableShapes({ heading, rows, at }: TableLook): { shapes: Shape[]; width: number; height: number } {
  const columns = Math.max(1, heading.length, ...rows.map((r) => r.length));
  const widths = Array.from(
    { length: columns },
    (_, c) => Math.max(1, ...[heading, ...rows].map((r) => lettersOf(r[c] ?? ''))) * CELL_LETTER + 1,
  );
  const starts = widths.map((_, c) => widths.slice(0, c).reduce((sum, w) => sum + w, 0));
  const width = starts.at(-1)! + widths.at(-1)!;
  const height = (rows.length + 1) * ROW;
  const shapes: Shape[] = [
    {
      shape: 'path',
      d: roundedBox(0, 0, width, height, 0.3),
      fill: 'raised',
      stroke: 'hairline',
      weight: LINE,
    },
  ];
  if (at !== null && at < rows.length)
    shapes.push({
      shape: 'path',
      d: `M0.1 ${(at + 1) * ROW}H${width - 0.1}M0.1 ${(at + 2) * ROW}H${width - 0.1}`,
      stroke: 'one',
      weight: 0.2,
    });
  shapes.push({ shape: 'path', d: `M0 ${ROW}H${width}`, stroke: 'ink', weight: LINE });
  for (const [r, row] of [heading, ...rows].entries())
    for (const [c, said] of row.entries())
      shapes.push({
        shape: 'text',
        x: starts[c]! + widths[c]! / 2,
        y: (r + 0.5) * ROW,
        text: said,
        size: TEXT_SIZE,
        align: 'center',
        face: r === 0 ? 'text' : 'mono',
        bold: r === 0,
      });
  return { shapes, width, height };
}

/** Cells as they come from a spreadsheet: rows of text with tabs between, or with commas where there is no tab. */
function cellsOf(params: Params): TableLook {
  const said = params.cells as string;
  const between = said.includes('\t') ? '\t' : ',';
  const rows = said
    .replace(/\s+$/, '')
    .split(/\r?\n/)
    .map((row) => row.split(between).map((c) => c.trim()));
  return { heading: rows[0] ?? [], rows: rows.slice(1), at: null };
}

const sizedBox = (width: number, height: number) => ({
  x0: 0,
  y0: 0,
  x1: Math.ceil(width),
  y1: Math.ceil(height),
});

const tableKind: PartKind = {
  kind: 'table',
  family: 'Notes',
  name: 'Table',
  typed: ['table'],
  says: 'A table to be read, typed or pasted from a spreadsheet; the first row is its heading.',
  labelled: '',
  labelSide: 'none',
  params: z.object({ cells: z._default(text(20_000), 'A\tB\tY\n0\t0\t0') }),
  settings: [{ param: 'cells', label: 'Cells', control: 'text', hint: 'A, B, Y and so on, a row a line' }],
  ports: () => [],
  body: (params) => {
    const { width, height } = tableShapes(cellsOf(params));
    return sizedBox(width, height);
  },
  symbol: (params) => tableShapes(cellsOf(params)).shapes,
  build: () => {},
  spoken: (params) => {
    const { heading, rows } = cellsOf(params);
    return `table of ${heading.join(', ')} with ${rows.length} rows`;
  },
};

/** How many rows of a truth table are shown on the sheet at most. */
export const MOST_ROWS = 16;

/** The heading and empty rows: what is drawn where the table itself is not at hand. */
function blankTable(params: Params): TableLook {
  const heading = (params.columns as string).split('\t').filter(Boolean);
  return {
    heading,
    rows: Array.from({ length: params.rows as number }, () => heading.map(() => '')),
    at: null,
  };
}

/**
 * The sheet's own truth table, always as the circuit is. How large it is stands in its parameters, which follow the
 * sheet's inputs and outputs.
 */
const truthKind: PartKind = {
  kind: 'truth',
  family: 'Notes',
  name: 'Truth table',
  typed: ['truth', 'truth table'],
  says: "The sheet's truth table as a note: it follows the circuit, and the row of the moment is marked.",
  labelled: '',
  labelSide: 'none',
  params: z.object({
    /** Names of inputs and outputs with tabs between. */
    columns: z._default(text(4000), ''),
    rows: z._default(whole(0, MOST_ROWS), 0),
  }),
  ports: () => [],
  body: (params) => {
    const { width, height } = tableShapes(blankTable(params));
    return sizedBox(width, height);
  },
  symbol: (params, look: Appearance) => tableShapes(look.table?.() ?? blankTable(params)).shapes,
  build: () => {},
  spoken: (params) => `truth table of ${(params.columns as string).split('\t').join(', ')} on the sheet`,
};

const FORM_WORDS = {
  sop: 'smallest sum of products',
  pos: 'smallest product of sums',
  drawn: 'as drawn',
  nand: 'NAND only',
  nor: 'NOR only',
  xor: 'exclusive or',
  mixed: 'exclusive or where it helps',
  minterms: 'all minterms',
  maxterms: 'all maxterms',
};
const NOTATION_WORDS = { bar: 'bars over', prime: "A'B + C", sign: '¬A ∧ B ∨ C', words: 'not A and B' };

const optionsOf = (words: Readonly<Record<string, string>>) =>
  Object.entries(words).map(([value, label]) => ({ value, label }));

/** The formulas of the sheet's outputs, always as the circuit is. The text follows the circuit. */
const formulaKind: PartKind = {
  kind: 'formula',
  family: 'Notes',
  name: 'Formula',
  typed: ['formula'],
  says: "The formulas of the sheet's outputs as a note: it follows the circuit.",
  labelled: '',
  labelSide: 'none',
  params: z.object({
    form: z._default(z.enum(Object.keys(FORM_WORDS) as [keyof typeof FORM_WORDS]), 'sop'),
    notation: z._default(z.enum(Object.keys(NOTATION_WORDS) as [keyof typeof NOTATION_WORDS]), 'bar'),
    text: z._default(text(4000), 'Formula'),
  }),
  settings: [
    { param: 'form', label: 'Form', control: 'choice', options: optionsOf(FORM_WORDS) },
    { param: 'notation', label: 'Notation', control: 'choice', options: optionsOf(NOTATION_WORDS) },
  ],
  ports: () => [],
  body: (params) => noteKind.body({ ...params, size: 'normal' }),
  symbol: (params, look) => noteKind.symbol({ ...params, size: 'normal' }, look),
  build: () => {},
  spoken: (params) => `formulas on the sheet: ${spokenText(params.text as string)}`,
};

export const notes: readonly PartKind[] = [noteKind, tableKind, truthKind, formulaKind];
