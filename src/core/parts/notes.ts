import type { Box } from '../circuit/geometry';
import { runsOf, spokenText } from '../values/markup';
import { definePart } from './define-part';
import type { ParamSchemas } from './param-schemas';
import type { PartKind } from './part-kind';
import { LINE, roundedBox, type Shape, type TableLook } from './shape';
import { choiceSetting } from './shared-settings';

/*
 * Notes: they have no pins and no behaviour.
 */

const SIZES = { small: 0.95, normal: 1.3, large: 2, title: 3 } as const;
const SIZE_NAMES = ['small', 'normal', 'large', 'title'] as const;
const LETTER = 0.56;
const LINE_HEIGHT = 1.35;

const linesOf = (text: string) => text.split('\n');

/** The properties that all notes share. */
const readable = {
  family: 'Notes',
  labelled: '',
  labelSide: 'none',
  isNote: true,
  alwaysAllowed: true,
  ports: () => [],
  build: () => {},
} as const;

/** How long a text is as it is read, in letters. */
const lettersOf = (line: string) =>
  runsOf(line).reduce((sum, run) => sum + run.text.length * (run.low ? 0.75 : 1), 0);

const sizedBox = (width: number, height: number) => ({
  x0: 0,
  y0: 0,
  x1: Math.ceil(width),
  y1: Math.ceil(height),
});

function textBody(text: string, size: number): Box {
  const lines = linesOf(text);
  const wide = Math.max(2, ...lines.map((l) => lettersOf(l) * LETTER * size));
  return sizedBox(wide, lines.length * size * LINE_HEIGHT);
}

function textShapes(text: string, size: number, bold = false): Shape[] {
  return linesOf(text).map(
    (line, i): Shape => ({ shape: 'text', x: 0, y: (i + 0.5) * size * LINE_HEIGHT, text: line, size, bold }),
  );
}

const noteKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      text: of.text(4000, 'Note'),
      size: of.oneOf(SIZE_NAMES, 'normal'),
    }),
  {
    ...readable,
    kind: 'note',
    name: 'Note',
    typed: ['note', 'text'],
    says: 'Words on the sheet. A_0 is written with a subscript, ~Q with a bar over it.',
    typedText: 'text',
    settings: [
      { param: 'text', label: 'Text', control: 'text', hint: 'A_0: subscript · ~Q: bar' },
      choiceSetting(
        'size',
        'Size',
        SIZE_NAMES.map((size) => [size, size]),
      ),
    ],
    body: ({ text, size }) => textBody(text, SIZES[size]),
    symbol: ({ text, size }) => textShapes(text, SIZES[size], size === 'title'),
    spoken: (params) => `note: ${linesOf(params.text).join(' ')}`,
  },
);

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
function cellsOf(cells: string): TableLook {
  const between = cells.includes('\t') ? '\t' : ',';
  const rows = cells
    .replace(/\s+$/, '')
    .split(/\r?\n/)
    .map((row) => row.split(between).map((c) => c.trim()));
  return { heading: rows[0] ?? [], rows: rows.slice(1), at: null };
}

const tableKind = definePart(
  (of: ParamSchemas) => of.object({ cells: of.text(20_000, 'A\tB\tY\n0\t0\t0') }),
  {
    ...readable,
    kind: 'table',
    name: 'Table',
    typed: ['table'],
    says: 'A table to be read, typed or pasted from a spreadsheet; the first row is its heading.',
    settings: [{ param: 'cells', label: 'Cells', control: 'text', hint: 'A, B, Y and so on, a row a line' }],
    body: (params) => {
      const { width, height } = tableShapes(cellsOf(params.cells));
      return sizedBox(width, height);
    },
    symbol: (params) => tableShapes(cellsOf(params.cells)).shapes,
    spoken: (params) => {
      const { heading, rows } = cellsOf(params.cells);
      return `table of ${heading.join(', ')} with ${rows.length} rows`;
    },
  },
);

/** How many rows of a truth table are shown on the sheet at most. */
export const MOST_ROWS = 16;

interface TruthParams {
  /** Names of inputs and outputs with tabs between. */
  readonly columns: string;
  readonly rows: number;
}

/** The heading and empty rows: drawn where the table itself is not at hand. */
function blankTable({ columns, rows }: TruthParams): TableLook {
  const heading = columns.split('\t').filter(Boolean);
  return {
    heading,
    rows: Array.from({ length: rows }, () => heading.map(() => '')),
    at: null,
  };
}

/**
 * The sheet's own truth table, always as the circuit is. How large it is stands in its parameters, which follow the
 * sheet's inputs and outputs.
 */
const truthKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      columns: of.text(4000, ''),
      rows: of.whole(0, MOST_ROWS, 0),
    }),
  {
    ...readable,
    follows: 'truth table',
    kind: 'truth',
    name: 'Truth table',
    typed: ['truth', 'truth table'],
    says: "The sheet's truth table as a note: it follows the circuit, and the row of the moment is marked.",
    body: (params) => {
      const { width, height } = tableShapes(blankTable(params));
      return sizedBox(width, height);
    },
    symbol: (params, look) => tableShapes(look.table?.() ?? blankTable(params)).shapes,
    spoken: (params) => `truth table of ${params.columns.split('\t').join(', ')} on the sheet`,
  },
);

const FORMS = [
  ['sop', 'smallest sum of products'],
  ['pos', 'smallest product of sums'],
  ['drawn', 'as drawn'],
  ['nand', 'NAND only'],
  ['nor', 'NOR only'],
  ['xor', 'exclusive or'],
  ['mixed', 'exclusive or where it helps'],
  ['minterms', 'all minterms'],
  ['maxterms', 'all maxterms'],
] as const;
const NOTATIONS = [
  ['bar', 'bars over'],
  ['prime', "A'B + C"],
  ['sign', '¬A ∧ B ∨ C'],
  ['words', 'not A and B'],
] as const;
const valuesOf = <V extends string>(choices: readonly (readonly [V, string])[]) =>
  choices.map(([value]) => value) as [V, ...V[]];

/** The formulas of the sheet's outputs, always as the circuit is. The text follows the circuit. */
const formulaKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      form: of.oneOf(valuesOf(FORMS), 'sop'),
      notation: of.oneOf(valuesOf(NOTATIONS), 'bar'),
      text: of.text(4000, 'Formula'),
    }),
  {
    ...readable,
    follows: 'formulas',
    kind: 'formula',
    name: 'Formula',
    typed: ['formula'],
    says: "The formulas of the sheet's outputs as a note: it follows the circuit.",
    settings: [choiceSetting('form', 'Form', FORMS), choiceSetting('notation', 'Notation', NOTATIONS)],
    body: ({ text }) => textBody(text, SIZES.normal),
    symbol: ({ text }) => textShapes(text, SIZES.normal),
    spoken: (params) => `formulas on the sheet: ${spokenText(params.text)}`,
  },
);

export const notes: readonly PartKind[] = [noteKind, tableKind, truthKind, formulaKind];
