import type { Task } from '../../../circuit/exercise';
import { SignalName } from '../../../circuit/signal-name';
import { type Infer, list, text, title, whole, z } from '../../../values/schema';
import { listed } from '../../../values/wording';
import { GIVEN, SCRATCH } from '../../rules';
import { type TaskKind, wrongIn } from '../task-kind';

/** Most rows of a table that a student fills in: more are too many by hand. */
export const MOST_FILLED_ROWS = 64;
const MOST_COLUMNS = 24;

/** A cell as it is written: `0`, `1`, `x`, a state, `Q'`. */
const Cell = text(16);
const Cells = list(Cell, MOST_FILLED_ROWS);

const Asked = z.object({
  rows: whole(1, MOST_FILLED_ROWS),
  /** Columns in their order: those with cells are given, the others are filled in. */
  columns: z
    .array(z.object({ name: SignalName, cells: z.nullable(Cells), isInput: z.boolean() }))
    .check(z.minLength(1, 'at least one column is needed'), z.maxLength(MOST_COLUMNS)),
  /** What a cell may be, in the order in which it turns; anything where there is none. */
  values: list(title(16), 8),
  /** Whether the given circuit stands still until the table is filled in. */
  isPredicted: z.boolean(),
});

const Key = z.object({
  /** The wanted cells of the columns that are filled in, in their order. */
  columns: list(Cells, MOST_COLUMNS),
});

const Answer = z.object({
  kind: z.literal('table'),
  /** By the columns that are filled in; an empty cell is not filled in yet. */
  columns: list(Cells, MOST_COLUMNS),
  /** Whether the prediction is final, so that the circuit may be observed. */
  isFinal: z.boolean(),
});

export type TableAsked = Infer<typeof Asked>;
export type TableKey = Infer<typeof Key>;
export type TableAnswer = Infer<typeof Answer>;
export type TableTask = Task<TableAsked, TableKey>;

/** The columns that are filled in. */
export const columnsAsked = ({ columns }: TableAsked) => columns.filter(({ cells }) => cells === null);

/** The answer with every cell that there is, empty ones where nothing is filled in. */
export function filledIn({ asked }: TableTask, answer: TableAnswer | null): TableAnswer {
  const columns = columnsAsked(asked).map((_, c) =>
    Array.from({ length: asked.rows }, (_, row) => answer?.columns[c]?.[row] ?? ''),
  );
  return { kind: 'table', columns, isFinal: answer?.isFinal ?? false };
}

/** A cell as it is compared: capitals and blanks do not count. */
const compared = (cell: string): string => cell.replaceAll(/\s/g, '').toLowerCase();

/** Whether two cells say the same. */
export const isSameCell = (a: string, b: string): boolean => compared(a) === compared(b);

const textOfCells = (columns: readonly (readonly string[])[]): string =>
  JSON.stringify(columns.map((cells) => cells.map(compared)));

/** Wrong rows that are told one by one. */
const MOST_NAMED = 6;

/** For each column that is filled in, row by row whether it is right. */
export interface TableCheck {
  readonly isRight: readonly (readonly boolean[])[];
  readonly answer: TableAnswer;
}

function wrongRows(task: TableTask, isRight: TableCheck['isRight']): string | null {
  const names = columnsAsked(task.asked).map(({ name }) => name);
  const wrong = Array.from({ length: task.asked.rows }, (_, row) => ({
    row,
    columns: names.filter((_, c) => !isRight[c]![row]),
  })).filter(({ columns }) => columns.length > 0);
  if (wrong.length === 0) return null;
  const told = wrong
    .slice(0, MOST_NAMED)
    .map(({ row, columns }) => (names.length > 1 ? `${row} (${columns.join(', ')})` : String(row)));
  return `${wrong.length === 1 ? 'row' : 'rows'} ${told.join(', ')}${wrong.length > MOST_NAMED ? ' …' : ''}`;
}

/** A table is filled in, cell by cell; with a circuit that stands still meanwhile it is a prediction. */
export const table = {
  kind: 'table',
  name: 'Fill in a table',
  says: 'The student fills in columns of a table; a circuit that is given can stand still until then, and is observed after.',
  gistName: 'Cells filled in',
  asked: Asked,
  key: Key,
  answer: Answer,
  strange({ asked, key }) {
    const open = columnsAsked(asked);
    if (open.length === 0) return 'no column is left to be filled in';
    const twice = asked.columns.find(({ name }, i) => asked.columns.findIndex((c) => c.name === name) !== i);
    if (twice) return `the name ${twice.name} stands twice`;
    if (key.columns.length !== open.length)
      return `it has ${key.columns.length} wanted columns where ${open.length} are needed`;
    const all = [...asked.columns.flatMap(({ cells }) => (cells ? [cells] : [])), ...key.columns];
    return all.some((cells) => cells.length !== asked.rows)
      ? `a column has not the ${asked.rows} rows of the table`
      : null;
  },
  hashed: {
    blank: ({ key }) => ({ columns: key.columns.map((cells) => cells.map(() => '')) }),
    wanted: ({ key }) => textOfCells(key.columns),
    given: (_, { detail }) => textOfCells(detail.answer.columns),
    bits: ({ asked, key }) =>
      asked.values.length > 1 ? Math.log2(asked.values.length) * key.columns.flat().length : null,
  },
  said: (_, { gist, detail }) => (gist ? textOfCells(detail.answer.columns) : null),
  wrongUnits: ({ asked }, { gist, detail: { isRight } }) =>
    gist
      ? wrongIn(Array.from({ length: asked.rows }, (_, row) => isRight.every((column) => column[row])))
      : [],
  unitName: (_, row) => `row ${row}`,
  rules: ({ asked, given }, answer) => ({
    ...(given ? GIVEN : SCRATCH),
    still:
      given && asked.isPredicted && !answer?.isFinal
        ? 'the circuit stands still until you have filled in the table and pressed “Observe”'
        : null,
  }),
  mark(task, { answer }) {
    const filled = filledIn(task, answer);
    const isRight = task.key.columns.map((cells, c) =>
      cells.map((wanted, row) => isSameCell(wanted, filled.columns[c]![row]!)),
    );
    const right = isRight.flat().filter(Boolean).length;
    const of = isRight.flat().length;
    const open = filled.columns.flat().filter((cell) => cell === '').length;
    return {
      right,
      of,
      word: 'cell',
      complaints:
        open === of
          ? ['Nothing is filled in yet.']
          : open > 0
            ? [`${open} of ${of} cells ${open === 1 ? 'is' : 'are'} still empty.`]
            : [],
      solved: right === of,
      wrong: open === of ? null : wrongRows(task, isRight),
      gist:
        open === of ? '' : `${of - open} of ${of} in ${listed(columnsAsked(task.asked).map((c) => c.name))}`,
      detail: { isRight, answer: filled },
    };
  },
} satisfies TaskKind<TableAsked, TableKey, TableAnswer, TableCheck>;
